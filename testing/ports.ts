import { connect, createServer } from 'node:net';
import type { AddressInfo } from 'node:net';

/** A port of loopback that nothing listens on. */
export const freePort = (): Promise<number> =>
  new Promise((resolve) => {
    const server = createServer().listen(0, '127.0.0.1', () => {
      const { port } = server.address() as AddressInfo;
      server.close(() => resolve(port));
    });
  });

/** Whether something listens on a port of loopback. */
export const answers = (port: number): Promise<boolean> =>
  new Promise((resolve) => {
    const socket = connect(port, '127.0.0.1', () => {
      socket.destroy();
      resolve(true);
    }).on('error', () => resolve(false));
  });
