import { oneLine } from '@mailbag/core';
import type { Transporter } from 'nodemailer';

/** A message that belongs to no delivery. */
export interface SingleMessage {
  subject: string;
  text: string;
  html?: string;
  attachments?: { filename: string; content: Buffer }[];
}

/** `unknown`: the connection broke, and no answer says whether the server has it (RFC 5321, 4.5.3.2.6 and 6.1). */
export type SingleOutcome = { kind: 'sent'; failure: null } | { kind: 'not-sent' | 'unknown'; failure: string };

interface SmtpError extends Error {
  code?: string;
  response?: string;
  responseCode?: number;
}

/** Whether a connection that was there ended without an answer, as the library tells it. */
const isOpenEnded = ({ code, responseCode, message }: SmtpError): boolean =>
  responseCode === undefined && (code === 'ECONNECTION' || /^Timeout/.test(message));

/** Sends a message at once, and closes the connection. */
export async function sendSingle(
  transporter: Transporter,
  from: { name: string; address: string },
  to: string | string[],
  { subject, text, html, attachments = [] }: SingleMessage,
): Promise<SingleOutcome> {
  try {
    await transporter.sendMail({
      from: { name: from.name, address: from.address },
      to,
      subject: oneLine(subject),
      text,
      ...(html !== undefined && { html, disableUrlAccess: true }),
      attachments,
      headers: { 'Auto-Submitted': 'auto-generated' },
    });
    return { kind: 'sent', failure: null };
  } catch (error) {
    const failure = oneLine((error as SmtpError).response ?? (error as Error).message);
    return { kind: isOpenEnded(error as SmtpError) ? 'unknown' : 'not-sent', failure };
  } finally {
    transporter.close();
  }
}
