import type { Server } from 'node:http';
import { createServer, request } from 'node:http';
import type { AddressInfo } from 'node:net';

/** Bytes of the bodies of answers by their paths, as they went over the line. */
export type Loaded = ReadonlyMap<string, number>;

/** A line to a server that counts what comes over it, whichever thread of the browser asks for it. */
export class CountingLine {
  private readonly loaded = new Map<string, number>();
  private lastAt = 0;

  private constructor(
    private readonly server: Server,
    readonly address: string,
  ) {}

  /** @param to address of the server, without a path */
  static async to(to: string): Promise<CountingLine> {
    const target = new URL(to);
    let line: CountingLine | null = null;
    const server = createServer((asked, answer) => {
      const onward = request(
        { host: target.hostname, port: target.port, path: asked.url, method: asked.method, headers: asked.headers },
        (given) => {
          answer.writeHead(given.statusCode!, given.headers);
          given.on('data', (part: Buffer) => line?.count(new URL(asked.url!, to).pathname, part.length));
          given.pipe(answer);
        },
      );
      onward.on('error', () => answer.destroy());
      answer.on('close', () => onward.destroy());
      asked.pipe(onward);
    });
    await new Promise<void>((resolve) => server.listen(0, '127.0.0.1', resolve));
    line = new CountingLine(server, `http://127.0.0.1:${(server.address() as AddressInfo).port}`);
    return line;
  }

  private count(path: string, bytes: number): void {
    // What goes on coming all the time is not what a screen loads.
    if (path === '/api/events') return;
    this.loaded.set(path, (this.loaded.get(path) ?? 0) + bytes);
    this.lastAt = performance.now();
  }

  /** All that has come since the last time, once nothing more has come for a second. */
  async taken(): Promise<Loaded> {
    const asked = performance.now();
    while (performance.now() - Math.max(asked, this.lastAt) < 1000) await new Promise((resolve) => setTimeout(resolve, 50));
    const loaded = new Map(this.loaded);
    this.loaded.clear();
    return loaded;
  }

  close(): void {
    this.server.closeAllConnections();
    this.server.close();
  }
}
