import type { Readable } from 'node:stream';
import type { BeforeApplicationShutdown, OnApplicationBootstrap } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { SMTPServer } from 'smtp-server';
import { config } from '../platform/config.js';
import { BounceSettings } from '../settings/bounce-settings.service.js';
import { IncomingMail } from './incoming-mail.service.js';

/** Reports are short; larger messages are none. Bytes. */
const LARGEST = 2 * 1024 * 1024;
const refusal = (responseCode: number, message: string): Error => Object.assign(new Error(message), { responseCode });

/** What a stranger sends, as far as it is small enough; the rest is let by without being kept. @returns null: it was too large */
async function received(stream: Readable): Promise<Buffer | null> {
  const chunks: Buffer[] = [];
  let size = 0;
  for await (const chunk of stream as AsyncIterable<Buffer>) {
    size += chunk.length;
    if (size > LARGEST) chunks.length = 0;
    else chunks.push(chunk);
  }
  return size > LARGEST ? null : Buffer.concat(chunks);
}

/** Takes mail straight from other mail servers, for addresses that somebody here knows and for nobody else. */
@Injectable()
export class InboundSmtp implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('inbound');
  private server: SMTPServer | null = null;

  constructor(
    private readonly settings: BounceSettings,
    private readonly door: IncomingMail,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    this.settings.changed.subscribe(() => void this.open().catch((error: unknown) => this.logger.error(error)));
    await this.open();
  }

  async beforeApplicationShutdown(): Promise<void> {
    await this.close();
  }

  private async close(): Promise<void> {
    const { server } = this;
    this.server = null;
    this.settings.listening = null;
    if (server) await new Promise<void>((done) => server.close(() => done()));
  }

  private async open(): Promise<void> {
    await this.close();
    const port = config.inboundPort ?? (await this.settings.smtpPort());
    if (port === 0 && config.inboundPort === null) return;
    const server = new SMTPServer({
      banner: 'Mailbag takes reports only',
      authOptional: true,
      disabledCommands: ['AUTH', 'STARTTLS'],
      size: LARGEST,
      maxClients: 20,
      socketTimeout: 60_000,
      closeTimeout: 1000,
      onRcptTo: ({ address }, _session, done) => {
        void this.door.leadsHere(address).then((isOurs) => done(isOurs ? null : refusal(550, '5.1.1 no such mailbox here')), done);
      },
      onData: (stream, session, done) => {
        received(stream)
          .then((raw) => {
            if (!raw) throw refusal(552, '5.3.4 too large for a report');
            const { rcptTo, mailFrom } = session.envelope;
            return this.door.take(raw, {
              way: 'smtp',
              to: rcptTo.map(({ address }) => address),
              from: mailFrom ? mailFrom.address : '',
            });
          })
          .then(
            () => done(),
            // What cannot be kept now is asked for again later (RFC 5321, 4.2.2: 451).
            (error: Error & { responseCode?: number }) =>
              done(error.responseCode ? error : refusal(451, '4.3.0 could not be kept, try again')),
          );
      },
    });
    server.on('error', (error) => this.logger.warn(error.message));
    await new Promise<void>((done) => {
      server.once('error', () => done());
      server.listen(port, config.host, () => {
        this.server = server;
        const address = server.server.address();
        this.settings.listening = typeof address === 'object' && address ? address.port : port;
        done();
      });
    });
  }
}
