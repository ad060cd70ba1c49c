import { request as ask, createServer } from 'node:http';
import type { IncomingMessage, Server, ServerResponse } from 'node:http';

/** What the page of a stranger's mail may do: show its text. No script of it runs, and nothing of it counts as Mailbag's own. */
const SHUT_IN = "default-src 'none'; style-src 'unsafe-inline'; sandbox allow-downloads";

/** Passes a request on and its answer back, as they come. */
function forward(request: IncomingMessage, response: ServerResponse, to: URL, headers: Record<string, string> | null): void {
  const onward = ask(to, { method: request.method, headers: request.headers }, (answer) => {
    if (headers) {
      // A PDF is shown by the browser's own reader, which a sandbox keeps out.
      const isPdf = answer.headers['content-type'] === 'application/pdf';
      Object.assign(answer.headers, headers, isPdf ? { 'content-security-policy': "default-src 'none'; object-src 'self'" } : {});
    }
    response.writeHead(answer.statusCode ?? 502, answer.headers);
    answer.pipe(response);
    answer.once('error', () => response.destroy());
  });
  onward.once('error', () => {
    if (response.headersSent) response.destroy();
    else response.writeHead(502, { 'content-type': 'text/plain' }).end('Nobody answers here just now. Try again in a moment.');
  });
  response.once('close', () => onward.destroy());
  request.pipe(onward);
}

/**
 * One port for Mailbag and the stand-in post office's page, so that the demo needs one address.
 * @param mailbag address of the server @param postOffice address of the page
 */
export function front(mailbag: string, postOffice: string): Server {
  const isSignedIn = async ({ headers: { cookie = '' } }: IncomingMessage): Promise<boolean> => {
    const answer = await fetch(new URL('/api/account', mailbag), { headers: { cookie } });
    return ((await answer.json()) as { account: unknown }).account !== null;
  };
  return createServer((request, response) => {
    const path = request.url ?? '/';
    // A path is a path: `//elsewhere` and `http://elsewhere/` are addresses of others.
    if (!/^\/(?!\/)/.test(path)) return void response.writeHead(400).end();
    const page = /^\/post-office(?=[/?]|$)\/?(?!\/)(.*)$/.exec(path);
    if (!page) return forward(request, response, new URL(path, mailbag), null);
    if (request.method !== 'GET') return void response.writeHead(405).end();
    void isSignedIn(request).then(
      (ok) => {
        if (!ok) return void response.writeHead(302, { location: '/' }).end();
        forward(request, response, new URL(`/${page[1]!}`, postOffice), {
          'content-security-policy': SHUT_IN,
          'x-content-type-options': 'nosniff',
          'cache-control': 'no-store',
        });
      },
      () => response.writeHead(502).end(),
    );
  });
}
