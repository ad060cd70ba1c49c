import type { Socket } from 'node:net';
import { SMTPServer } from 'smtp-server';
import type { Mailbox } from './mailbox.js';
import { treatmentOf } from './behaviour.js';

const refusal = (responseCode: number, message: string): Error => Object.assign(new Error(message), { responseCode });

/** A receiving mail server on loopback that speaks SMTP (RFC 5321) and treats recipients by their addresses. */
export function mailServer(mailbox: Mailbox): SMTPServer {
  const tries = new Map<string, number>();
  const server = new SMTPServer({
    name: 'post-office.test',
    banner: 'Stand-in post office',
    authOptional: true,
    disabledCommands: ['STARTTLS'],
    hideDSN: false,
    onAuth: (auth, _session, done) =>
      auth.password === 'wrong' ? done(refusal(535, '5.7.8 Authentication credentials invalid')) : done(null, { user: auth.username }),
    onRcptTo({ address }, _session, done) {
      const count = (tries.get(address) ?? 0) + 1;
      tries.set(address, count);
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
    },
    onData(stream, session, done) {
      const chunks: Buffer[] = [];
      stream.on('data', (chunk: Buffer) => chunks.push(chunk));
      stream.on('end', () => {
        const to = session.envelope.rcptTo.map(({ address }) => address);
        const raw = Buffer.concat(chunks);
        if (to.some((address) => treatmentOf(address) === 'drop')) {
          void mailbox.take(raw, to.join(', '));
          for (const connection of server.connections as unknown as Set<{ id: string; _socket: Socket }>) {
            if (connection.id === session.id) connection._socket.destroy();
          }
          return;
        }
        mailbox.take(raw, to.join(', ')).then(
          ({ id }) => (done as (error: null, message: string) => void)(null, `2.0.0 taken as ${id}`),
          (error: Error) => done(error),
        );
      });
    },
  });
  return server;
}
