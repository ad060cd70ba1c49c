import type { AddressInfo } from 'node:net';
import { front } from './front.js';

/** Starts the front on loopback. Arguments: its port, 0 for a free one, the address of Mailbag, the address of the post office's page. */
const [port = '0', mailbag = '', postOffice = ''] = process.argv.slice(2);
const server = front(mailbag, postOffice);
server.on('error', (error: NodeJS.ErrnoException) => {
  console.error(error.code === 'EADDRINUSE' ? `Port ${port} is taken. Choose another one with --port.` : error.message);
  process.exit(1);
});
server.listen(Number(port), process.env.MAILBAG_HOST ?? '127.0.0.1', () => {
  const { port: taken } = server.address() as AddressInfo;
  if (process.send) process.send({ port: taken });
  else console.log(JSON.stringify({ port: taken }));
});
process.on('disconnect', () => process.exit(0));
