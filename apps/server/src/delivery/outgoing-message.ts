import { createHash } from 'node:crypto';
import type { MailAddress } from '@mailbag/core';
import nodemailer from 'nodemailer';
import { sha256 } from '../files/files.js';
import type { Sender } from '../senders/senders.service.js';

export interface Attachment {
  filename: string;
  content: Buffer;
  contentType: string;
  /** SHA-256 of the content in hexadecimal, where it is known. */
  digest?: string | null;
}

export interface OutgoingMessage {
  messageId: string;
  from: Sender;
  /** Where bounces come back to. */
  returnPath: string;
  to: MailAddress[];
  copyTo: MailAddress[];
  blindCopyTo: MailAddress[];
  subject: string;
  text: string;
  html: string;
  headers: Record<string, string>;
  attachments: Attachment[];
}

const namedAddress = ({ name, address }: MailAddress): { name: string; address: string } => ({ name, address });

/** A message as the library composes it, for sending and for samples alike. */
export const composed = ({
  from,
  to,
  copyTo,
  blindCopyTo,
  returnPath,
  messageId,
  subject,
  text,
  html,
  headers,
  attachments,
}: OutgoingMessage) => ({
  messageId,
  from: { name: from.name, address: from.address },
  ...(from.replyTo ? { replyTo: from.replyTo } : {}),
  to: to.map(namedAddress),
  ...(copyTo.length > 0 ? { cc: copyTo.map(namedAddress) } : {}),
  // Blind copies stand in the envelope only.
  envelope: { from: returnPath, to: [...new Set([...to, ...copyTo, ...blindCopyTo].map(({ address }) => address))] },
  subject,
  text,
  html,
  headers,
  attachments,
  disableUrlAccess: true,
  ...(from.dkim ? { dkim: from.dkim } : {}),
});

/** The whole message as it would travel. */
export async function rawMessage(message: OutgoingMessage): Promise<Buffer> {
  const transporter = nodemailer.createTransport({ streamTransport: true, buffer: true, newline: 'windows' } as object);
  const { message: raw } = (await transporter.sendMail(composed(message) as object)) as unknown as { message: Buffer };
  return raw;
}

/** Digest of what a recipient reads: subject, texts and attachments. The same message composed again has the same. In hexadecimal. */
export async function contentDigest({
  subject,
  text,
  html,
  attachments,
}: Pick<OutgoingMessage, 'subject' | 'text' | 'html' | 'attachments'>): Promise<string> {
  const hash = createHash('sha256').update(JSON.stringify([subject, text, html]));
  for (const { filename, content, digest } of attachments)
    hash.update(`\n${JSON.stringify(filename)} ${digest ?? (await sha256(content))}`);
  return hash.digest('hex');
}
