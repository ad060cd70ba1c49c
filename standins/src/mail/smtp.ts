import { createServer } from 'node:net';
import type { AddressInfo, Socket } from 'node:net';
import nodemailer from 'nodemailer';
import { SMTPServer } from 'smtp-server';
import type { Mood } from './behaviour.js';
import { replyOf, treatmentOf } from './behaviour.js';
import type { ImapBox } from './imap.js';
import type { Mailbox } from './mailbox.js';
import { replyTo } from './replies.js';

const refusal = (responseCode: number, message: string): Error => Object.assign(new Error(message), { responseCode });

/** A receiving mail server on loopback that speaks SMTP (RFC 5321) and treats recipients by their addresses. */
export class PostOfficeServer {
  mood: Mood = 'well';
  /** Port to which reports are sent by SMTP; 0: they are put into the mailbox. */
  reportsTo = 0;
  /** Milliseconds until something comes back. */
  replyAfter = 300;
  readonly smtp: SMTPServer;
  private readonly tries = new Map<string, number>();
  private readonly front = createServer((socket) => this.greet(socket));

  constructor(
    private readonly mailbox: Mailbox,
    private readonly box: ImapBox,
  ) {
    this.smtp = new SMTPServer({
      name: 'post-office.test',
      banner: 'Stand-in post office',
      authOptional: true,
      disabledCommands: ['STARTTLS'],
      hideDSN: false,
      logger: false,
      onAuth: (auth, _session, done) =>
        auth.password === 'wrong' ? done(refusal(535, '5.7.8 Authentication credentials invalid')) : done(null, { user: auth.username }),
      onMailFrom: (_address, _session, done) =>
        this.mood === 'busy' ? done(refusal(421, '4.3.2 Service not available, closing transmission channel')) : done(),
      onRcptTo: ({ address }, _session, done) => this.recipient(address, done),
      onData: (stream, session, done) => {
        const chunks: Buffer[] = [];
        const to = session.envelope.rcptTo.map(({ address }) => address);
        const from = session.envelope.mailFrom ? session.envelope.mailFrom.address : '';
        const is = (treatment: string): boolean => to.some((address) => treatmentOf(address) === treatment);
        stream.on('data', (chunk: Buffer) => {
          chunks.push(chunk);
          if (is('cut')) this.hangUp(session.id);
        });
        stream.on('end', () => {
          const raw = Buffer.concat(chunks);
          if (is('cut')) return;
          if (is('drop')) {
            void mailbox.take(raw, to, from);
            return this.hangUp(session.id);
          }
          mailbox.take(raw, to, from).then(
            ({ id }) => {
              (done as (error: null, message: string) => void)(null, `2.0.0 taken as ${id}`);
              for (const address of to) this.answerLater(address, from, raw);
            },
            (error: Error) => done(error),
          );
        });
      },
    });
    this.smtp.on('error', (error) => console.error(error.message));
  }

  private recipient(address: string, done: (error?: Error | null) => void): void {
    const count = (this.tries.get(address) ?? 0) + 1;
    this.tries.set(address, count);
    switch (treatmentOf(address)) {
      case 'unknown':
        return done(refusal(550, `5.1.1 unknown user "${address.split('@')[0]}"`));
      case 'full':
        return done(refusal(452, '4.2.2 mailbox full'));
      case 'later':
        return count <= 2 ? done(refusal(451, '4.7.1 greylisted, please try again later')) : done();
      case 'slow':
        return void setTimeout(() => done(), 3000);
      case 'hang':
        return undefined;
      default:
        return done();
    }
  }

  private hangUp(id: string): void {
    for (const connection of this.smtp.connections as unknown as Set<{ id: string; _socket: Socket }>)
      if (connection.id === id) connection._socket.destroy();
  }

  private answerLater(recipient: string, returnPath: string, raw: Buffer): void {
    const reply = replyOf(recipient);
    // Nothing is ever sent back to an empty return path (RFC 5321, 4.5.5).
    if (!reply || returnPath === '') return;
    const headers = raw.subarray(0, Math.max(0, raw.indexOf('\r\n\r\n'))).toString('latin1');
    setTimeout(
      () =>
        void this.sendBack(returnPath, replyTo(reply, recipient, returnPath, headers)).catch((error: Error) =>
          console.error(error.message),
        ),
      this.replyAfter,
    );
  }

  private async sendBack(returnPath: string, message: string): Promise<void> {
    if (this.reportsTo === 0) return this.box.add(Buffer.from(`Return-Path: <>\r\nDelivered-To: ${returnPath}\r\n${message}`));
    // Tries again while the other side is away, as a mail server does.
    for (let tries = 1; ; tries++) {
      const transport = nodemailer.createTransport({ host: '127.0.0.1', port: this.reportsTo, secure: false, ignoreTLS: true });
      try {
        await transport.sendMail({ envelope: { from: '', to: [returnPath] }, raw: message });
        return;
      } catch (error) {
        if (tries >= 30) throw error;
        await new Promise((done) => setTimeout(done, 400));
      } finally {
        transport.close();
      }
    }
  }

  /** Moods that show before the first word of SMTP. */
  private greet(socket: Socket): void {
    socket.on('error', () => undefined);
    if (this.mood === 'garbage') return void socket.end('HTTP/1.0 400 what is this?\r\n\r\n');
    if (this.mood === 'silent') return;
    if (this.mood === 'broken-tls') {
      socket.write('220 post-office.test\r\n');
      socket.on('data', (chunk) => {
        const text = chunk.toString('latin1');
        if (/^EHLO/i.test(text)) socket.write('250-post-office.test\r\n250 STARTTLS\r\n');
        else if (/^STARTTLS/i.test(text)) socket.write('220 go ahead\r\n');
        else socket.end(Buffer.from([1, 2, 3, 4, 5, 6, 7, 8]));
      });
      return;
    }
    this.smtp.server.emit('connection', socket);
  }

  listen(port: number): Promise<number> {
    return new Promise((resolve, reject) => {
      this.front.once('error', reject);
      this.front.listen(port, '127.0.0.1', () => resolve((this.front.address() as AddressInfo).port));
    });
  }
}
