import type { IncomingMail } from '@mailbag/core';
import { readReport } from '@mailbag/core';
import type { AddressObject } from 'mailparser';
import { simpleParser } from 'mailparser';
import type { Tasks } from '../work/tasks.js';

/** Characters of a message that are looked at: of a header, of its text, of the report in it, of the message that came back. A report says what it has to say at its beginning. */
const [LONGEST_HEADER, LONGEST_TEXT, LONGEST_STATUS, LONGEST_RETURNED] = [2000, 100_000, 100_000, 20_000];
const MOST_ADDRESSES = 50;

const addressesOf = (value: AddressObject | AddressObject[] | undefined): string[] =>
  [value ?? []].flat().flatMap(({ value: list }) => list.map(({ address }) => address ?? ''));

/** Takes a raw message apart. @param envelopeTo addresses of its envelope, where they are known */
async function incomingMail(raw: Uint8Array, envelopeTo: readonly string[]): Promise<IncomingMail> {
  const mail = await simpleParser(Buffer.from(raw.buffer, raw.byteOffset, raw.length), {
    keepDeliveryStatus: true,
    skipHtmlToText: true,
    skipTextToHtml: true,
    skipTextLinks: true,
    skipImageLinks: true,
    maxHtmlLengthToParse: LONGEST_TEXT,
  });
  const headers: Record<string, string> = {};
  for (const { key, line } of mail.headerLines)
    headers[key] ??= line
      .slice(line.indexOf(':') + 1, LONGEST_HEADER)
      .replace(/\r?\n[ \t]+/g, ' ')
      .trim();
  const part = (limit: number, ...types: string[]): string | null =>
    mail.attachments
      .find(({ contentType }) => types.includes(contentType.toLowerCase()))
      ?.content.subarray(0, limit)
      .toString('utf8') ?? null;
  const to = [
    ...envelopeTo,
    ...addressesOf(mail.to).slice(0, MOST_ADDRESSES),
    ...addressesOf(mail.cc).slice(0, MOST_ADDRESSES),
    headers['delivered-to'] ?? '',
    headers['x-original-to'] ?? '',
  ].filter(Boolean);
  return {
    headers,
    to,
    text: (mail.text ?? '').slice(0, LONGEST_TEXT),
    status: part(LONGEST_STATUS, 'message/delivery-status', 'message/global-delivery-status'),
    returned: part(
      LONGEST_RETURNED,
      'message/rfc822',
      'text/rfc822-headers',
      'message/rfc822-headers',
      'message/global',
      'message/global-headers',
    ),
  };
}

/** Takes a message apart and says what it is. */
export async function readMail({ raw, envelopeTo }: Tasks['readMail']['input']): Promise<Tasks['readMail']['output']> {
  const mail = await incomingMail(raw, envelopeTo);
  const { from = '', subject = '' } = mail.headers;
  return {
    report: readReport(mail),
    messageId: mail.headers['message-id'] ?? '',
    from,
    subject,
    returnPath: mail.headers['return-path']?.replace(/[<>\s]/g, '') ?? null,
    matter: mail.status ?? mail.text,
  };
}
