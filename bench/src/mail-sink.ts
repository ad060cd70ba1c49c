import type { AddressInfo } from 'node:net';
import { SMTPServer } from 'smtp-server';

/** A mail server in a process of its own that takes everything and keeps nothing but the subject of the last message, so that what sends is what is measured. */
let lastCode = '';
const server = new SMTPServer({
  authOptional: true,
  disabledCommands: ['STARTTLS'],
  logger: false,
  onData(stream, _session, done) {
    let head = '';
    stream.on('data', (chunk: Buffer) => {
      if (head.length < 4000) head += chunk.toString('latin1');
    });
    stream.on('end', () => {
      const code = /^Subject: (\d{6}) is your code/m.exec(head)?.[1];
      if (code) {
        lastCode = code;
        process.send?.({ code: lastCode });
      }
      done();
    });
  },
});
server.listen(0, '127.0.0.1', () => process.send?.({ port: (server.server.address() as AddressInfo).port }));
process.on('disconnect', () => process.exit(0));
