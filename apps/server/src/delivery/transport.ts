import type { Readable } from 'node:stream';
import type { MailTestAnswer } from '@mailbag/contract';
import { MailbagError, replyMeaning } from '@mailbag/core';
import nodemailer from 'nodemailer';
import { config } from '../platform/config.js';
import type { MailSettings } from '../settings/settings.service.js';

const timeouts = {
  connectionTimeout: config.mailTimeout,
  greetingTimeout: config.mailTimeout,
  socketTimeout: config.mailTimeout,
  dnsTimeout: config.mailTimeout,
};

const options = (settings: MailSettings) => ({
  host: settings.host,
  port: settings.port,
  secure: settings.tls,
  ...(settings.user ? { auth: { user: settings.user, pass: settings.password } } : {}),
  ...timeouts,
  disableFileAccess: false,
  disableUrlAccess: true,
});

/** What the library says of a failed attempt. */
interface SmtpError extends Error {
  code?: string;
  command?: string;
  response?: string;
  responseCode?: number;
}

export interface OutgoingMessage {
  messageId: string;
  to: { name: string; address: string };
  subject: string;
  text: string;
  html: string;
  attachments: { filename: string; path: string; contentType: string }[];
}

/** How an attempt ended. `unknown`: the message was on its way when the connection was lost; nobody knows whether it arrived. */
export type Outcome = { kind: 'accepted' | 'try-later' | 'refused' | 'unknown'; said: string };

const oneLine = (text: string): string => text.replace(/\s+/g, ' ').trim().slice(0, 500);

/** Hands messages to the mail server over a pool of connections. */
export class MailTransport {
  /** The streams of messages under way, to know whether any of one was sent. */
  private readonly streams = new Map<string, Readable>();
  private readonly transporter;

  constructor(private readonly settings: MailSettings) {
    // No requeues: a message whose connection breaks must not go out a second time by itself.
    this.transporter = nodemailer.createTransport({
      pool: true,
      maxConnections: config.mailConnections,
      maxMessages: Infinity,
      maxRequeues: 0,
      ...options(settings),
    } as object);
    this.transporter.use('stream', (mail, done) => {
      const message = mail.message as unknown as { createReadStream: (options?: object) => Readable };
      const make = message.createReadStream.bind(message);
      message.createReadStream = (given) => {
        const stream = make(given);
        this.streams.set(String(mail.data.messageId), stream);
        return stream;
      };
      done();
    });
  }

  async send(message: OutgoingMessage): Promise<Outcome> {
    try {
      const info = (await this.transporter.sendMail({
        ...message,
        from: { name: this.settings.senderName, address: this.settings.senderAddress },
        headers: { 'Auto-Submitted': 'auto-generated' },
      })) as unknown as { response?: string; accepted?: unknown[]; rejectedErrors?: SmtpError[] };
      const refused = info.rejectedErrors?.[0];
      if (refused) return this.outcome(message.messageId, refused);
      return { kind: 'accepted', said: oneLine(info.response ?? '') };
    } catch (error) {
      return this.outcome(message.messageId, error as SmtpError);
    } finally {
      this.streams.delete(message.messageId);
    }
  }

  private outcome(messageId: string, error: SmtpError): Outcome {
    const said = oneLine(error.response ?? error.message);
    // The sign-in and the sender are ours to mend; they are no fault of the recipient.
    if (error.code === 'EAUTH' || error.command === 'MAIL FROM') return { kind: 'try-later', said };
    if (error.responseCode !== undefined) {
      const meaning = replyMeaning(error.responseCode);
      return { kind: meaning === 'accepted' ? 'unknown' : meaning, said };
    }
    if (this.streams.get(messageId)?.readableDidRead) return { kind: 'unknown', said };
    if (error.code === 'EMESSAGE' || error.code === 'EENVELOPE') return { kind: 'refused', said };
    return { kind: 'try-later', said };
  }

  close(): void {
    this.transporter.close();
  }
}

/** Connects, greets and signs in, and says in a sentence how that went. */
export async function testMailServer(settings: MailSettings): Promise<MailTestAnswer> {
  const transporter = nodemailer.createTransport(options(settings) as object);
  try {
    await transporter.verify();
    return { ok: true, said: settings.user ? `${settings.host} answered and took the sign-in.` : `${settings.host} answered.` };
  } catch (cause) {
    const error = cause as SmtpError;
    const told =
      error.code === 'EAUTH'
        ? new MailbagError('mail-sign-in-refused', { host: settings.host, said: oneLine(error.response ?? error.message) })
        : new MailbagError('mail-server-unreachable', {
            host: settings.host,
            port: settings.port,
            why: oneLine(error.response ?? error.message),
          });
    return { ok: false, said: told.message };
  } finally {
    transporter.close();
  }
}
