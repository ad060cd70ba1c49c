import type { IncomingMessage } from 'node:http';

/** Whether a request says that it comes from a page of another place. What says nothing (a program, an older browser) is let by. */
export function isForeign({ headers }: IncomingMessage): boolean {
  const { origin, host } = headers;
  if (origin === undefined) return false;
  // `null` is what a browser says for a page that hides where it is from (Fetch standard, 3.2).
  const place = URL.canParse(origin) ? new URL(origin).host : '';
  return place === '' || place !== host;
}
