import type { AddressInfo } from 'node:net';
import { StandInPrinter, printerServer } from './printer.js';

/** Starts the stand-in printer on loopback. Argument: its port, 0 for a free one. Tells it as one line of JSON. */
const server = printerServer(new StandInPrinter());
server.listen(Number(process.argv[2] ?? 0), '127.0.0.1', () => {
  const { port } = server.address() as AddressInfo;
  if (process.send) process.send({ port });
  else console.log(JSON.stringify({ port }));
});
process.on('disconnect', () => process.exit(0));
