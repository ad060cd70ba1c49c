import { createServer } from 'node:http';
import type { IncomingMessage, RequestListener, Server, ServerResponse } from 'node:http';
import type { AddressInfo } from 'node:net';
import { MailbagError } from '@mailbag/core/errors';

/** Seconds after which an answer of a starting or stopping server is asked for again. */
const AGAIN = 1;
/** Milliseconds that a client may take for its headers, and for a whole request: a large file over a slow line. */
const [HEADERS_TIME, REQUEST_TIME] = [60_000, 3_600_000];

/** What a server says that does not work yet or any more: to programs the error, to people a page that looks again by itself. */
function notNow(code: 'server-starts' | 'server-stops'): RequestListener {
  const error = new MailbagError(code);
  return (request: IncomingMessage, response: ServerResponse) => {
    const isProgram = request.url?.startsWith('/api/') ?? false;
    response.writeHead(503, {
      'retry-after': String(AGAIN),
      connection: 'close',
      'cache-control': 'no-store',
      'content-type': isProgram ? 'application/json' : 'text/html; charset=utf-8',
    });
    response.end(
      isProgram
        ? JSON.stringify(error.toJSON())
        : `<!doctype html><html lang="en"><meta charset="utf-8"><meta http-equiv="refresh" content="${AGAIN}"><title>Mailbag</title><p>${error.message}</p></html>`,
    );
  };
}

/** The one port. It is taken before anything else is touched, so that a second start ends before it begins. */
export class FrontDoor {
  private listener: RequestListener = notNow('server-starts');
  readonly server: Server = createServer((request, response) => this.listener(request, response));

  constructor() {
    // A client that was busy for some seconds must not write into a connection that was closed meanwhile.
    this.server.keepAliveTimeout = 65_000;
    this.server.headersTimeout = HEADERS_TIME;
    this.server.requestTimeout = REQUEST_TIME;
  }

  /** @returns the port @throws MailbagError port-taken */
  async listen(port: number, host: string): Promise<number> {
    await new Promise<void>((resolve, reject) => {
      this.server.once('error', (cause: NodeJS.ErrnoException) => {
        const why =
          cause.code === 'EADDRINUSE'
            ? 'is taken by another program'
            : cause.code === 'EACCES'
              ? 'is not allowed to this user'
              : `cannot be used (${cause.code ?? cause.message})`;
        reject(new MailbagError('port-taken', { port, host, why }, { cause }));
      });
      this.server.listen(port, host, resolve);
    });
    return (this.server.address() as AddressInfo).port;
  }

  /** From now on requests are answered. */
  open(listener: RequestListener): void {
    this.listener = listener;
  }

  /** Takes no more requests, waits a moment for those that are being answered, and ends the others. @param patience milliseconds */
  async close(patience: number): Promise<void> {
    this.listener = notNow('server-stops');
    if (!this.server.listening) return;
    const closed = new Promise<void>((resolve) => this.server.close(() => resolve()));
    this.server.closeIdleConnections();
    const timer = setTimeout(() => this.server.closeAllConnections(), patience);
    await closed;
    clearTimeout(timer);
  }
}
