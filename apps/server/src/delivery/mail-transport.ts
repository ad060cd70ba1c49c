import type { Readable, Writable } from 'node:stream';
import { replyMeaning } from '@mailbag/core';
import nodemailer from 'nodemailer';
import { connectionOptions } from '../senders/outgoing-server.js';
import type { SendingServer } from '../senders/senders.service.js';
import type { Outcome, RefusedRecipient } from './outcome.js';
import { CLOSED, givenBack, shortWords } from './outcome.js';
import type { OutgoingMessage } from './outgoing-message.js';
import { composed } from './outgoing-message.js';

/** What the library says of a failed attempt. */
interface SmtpError extends Error {
  code?: string;
  command?: string;
  response?: string;
  responseCode?: number;
  timeoutType?: string;
  recipient?: string;
  rejectedErrors?: SmtpError[];
}

/** Whether a failure is the mail server's own, whoever the message is for. */
function isServersOwn({ code, command, responseCode, timeoutType }: SmtpError): boolean {
  if (code === 'EAUTH' || code === 'ETLS' || code === 'EDNS' || code === 'EPROTOCOL') return true;
  // RFC 5321, 3.8: 421 says that the service is not available and the channel is closing.
  if (responseCode === 421) return true;
  // Too large is said of the message (RFC 1870, 6.1), everything else at this point of the sender.
  if (command === 'MAIL FROM') return responseCode !== 552 && responseCode !== 452;
  if (code === 'ETIMEDOUT') return timeoutType !== undefined && timeoutType !== 'SOCKET_TIMEOUT';
  return code === 'ESOCKET' || (code === 'ECONNECTION' && command === 'CONN' && responseCode === undefined);
}

/** Hands messages to one mail server over a pool of connections. */
export class MailTransport {
  private readonly transporter;
  /** Called when the server has asked for the message and before its first byte leaves. */
  private readonly gates = new Map<string, () => Promise<void>>();
  /** Messages of which something may have left. */
  private readonly opened = new Set<string>();
  /** Why messages were kept back at the gate. */
  private readonly held = new Map<string, string>();
  private isClosed = false;

  constructor(server: SendingServer) {
    // No requeues: a message whose connection breaks must not go out a second time by itself.
    this.transporter = nodemailer.createTransport({
      pool: true,
      maxConnections: server.connections,
      maxMessages: Infinity,
      maxRequeues: 0,
      ...connectionOptions(server),
    } as object);
    this.transporter.use('stream', (mail, done) => {
      const message = mail.message as unknown as { createReadStream: (options?: object) => Readable };
      const make = message.createReadStream.bind(message);
      message.createReadStream = (given) => this.gated(String(mail.data.messageId), make(given));
      done();
    });
  }

  /** A stream that says, before anything runs through it, that the message is about to leave. */
  private gated(messageId: string, source: Readable): Readable {
    const pipe = source.pipe.bind(source);
    source.pipe = <Destination extends NodeJS.WritableStream>(destination: Destination): Destination => {
      const gate = this.gates.get(messageId) ?? (() => Promise.resolve());
      gate().then(
        () => {
          this.opened.add(messageId);
          pipe(destination as unknown as Writable);
        },
        (error: Error) => {
          this.held.set(messageId, error.message);
          source.destroy(error);
        },
      );
      return destination;
    };
    return source;
  }

  /** @param beforeData is waited for before the first byte of the message leaves */
  async send(message: OutgoingMessage, beforeData: () => Promise<void>): Promise<Outcome> {
    if (this.isClosed) return givenBack;
    const { messageId } = message;
    this.gates.set(messageId, async () => {
      if (this.isClosed) throw new Error(CLOSED);
      await beforeData();
    });
    try {
      const info = (await this.transporter.sendMail(composed(message) as object)) as unknown as {
        response?: string;
        accepted?: (string | { address: string })[];
        rejectedErrors?: SmtpError[];
      };
      const refused = (info.rejectedErrors ?? []).map((error): RefusedRecipient => ({
        address: error.recipient ?? '',
        reply: shortWords(error.response ?? error.message),
        forNow: replyMeaning(error.responseCode) === 'try-later',
      }));
      const accepted = (info.accepted ?? []).map((one) => (typeof one === 'string' ? one : one.address));
      return { kind: 'accepted', detail: shortWords(info.response ?? ''), accepted, refused };
    } catch (error) {
      return this.outcome(messageId, error as SmtpError);
    } finally {
      this.gates.delete(messageId);
      this.opened.delete(messageId);
      this.held.delete(messageId);
    }
  }

  private outcome(messageId: string, error: SmtpError): Outcome {
    const held = this.held.get(messageId);
    if (held === CLOSED) return givenBack;
    if (held !== undefined) return { kind: 'our-side', detail: shortWords(held), lasting: false };
    const reply = shortWords(error.response ?? error.message);
    const isUnderWay = this.opened.has(messageId);
    // A reply after the message, or a refusal before it, is an answer; no reply after it leaves the outcome open (RFC 5321, 4.5.3.2.6 and 6.1).
    if (isUnderWay && (error.responseCode === undefined || error.responseCode < 400)) return { kind: 'unknown', detail: reply };
    // What waited for a connection ends with an error of the library's own.
    if (this.isClosed && !isUnderWay && error.responseCode === undefined) return givenBack;
    if (isServersOwn(error) && !isUnderWay) return { kind: 'server', detail: reply };
    if (error.responseCode !== undefined) {
      // Several recipients that are all refused: one of them for now is reason enough to come again.
      const codes = error.rejectedErrors?.map((one) => one.responseCode) ?? [error.responseCode];
      return { kind: codes.some((code) => replyMeaning(code) === 'try-later') ? 'try-later' : 'refused', detail: reply };
    }
    if (error.code === 'EMESSAGE' || error.code === 'EENVELOPE' || error.code === 'ESTREAM') return { kind: 'refused', detail: reply };
    return { kind: 'try-later', detail: reply };
  }

  /** Nothing begins to leave any more: what has begun comes to its end, everything else is given back. */
  close(): void {
    this.isClosed = true;
    this.transporter.close();
  }
}
