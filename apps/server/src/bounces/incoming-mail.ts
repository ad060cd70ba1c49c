import type { IncomingMail } from '@mailbag/core';
import type { AddressObject } from 'mailparser';
import { simpleParser } from 'mailparser';

const addressesOf = (value: AddressObject | AddressObject[] | undefined): string[] =>
  [value ?? []].flat().flatMap(({ value: list }) => list.map(({ address }) => address ?? ''));

/** Takes a raw message apart. @param envelopeTo addresses of its envelope, where they are known */
export async function incomingMail(raw: Buffer, envelopeTo: readonly string[]): Promise<IncomingMail> {
  const mail = await simpleParser(raw, { keepDeliveryStatus: true, skipHtmlToText: false, skipTextToHtml: true, skipImageLinks: true });
  const headers: Record<string, string> = {};
  for (const { key, line } of mail.headerLines)
    headers[key] ??= line
      .slice(line.indexOf(':') + 1)
      .replace(/\r?\n[ \t]+/g, ' ')
      .trim();
  const part = (...types: string[]): string | null =>
    mail.attachments.find(({ contentType }) => types.includes(contentType.toLowerCase()))?.content.toString('utf8') ?? null;
  const to = [
    ...envelopeTo,
    ...addressesOf(mail.to),
    ...addressesOf(mail.cc),
    headers['delivered-to'] ?? '',
    headers['x-original-to'] ?? '',
  ].filter(Boolean);
  return {
    headers,
    to,
    text: (mail.text ?? '').slice(0, 100_000),
    status: part('message/delivery-status', 'message/global-delivery-status'),
    returned: part('message/rfc822', 'text/rfc822-headers', 'message/rfc822-headers', 'message/global', 'message/global-headers'),
  };
}
