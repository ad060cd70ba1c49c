import type { Request } from 'express';
import { config } from '../platform/config.js';

/** Where people reach Mailbag, for links: as it was said to be, or as whoever asks has it. */
export const ownAddress = (request: Request): string => config.address?.origin ?? `${request.protocol}://${request.host}`;

/** Whether a request says that it comes from a page of another place. What says nothing (a program, an older browser) is let by. */
export function isForeign(request: Request): boolean {
  const { origin } = request.headers;
  if (origin === undefined) return false;
  // `null` is what a browser says for a page that hides where it is from (Fetch standard, 3.2).
  if (!URL.canParse(origin)) return true;
  const { host } = new URL(origin);
  return host === '' || (host !== config.address?.host && host !== request.host);
}

/** Names under which only this machine reaches itself, as those do that look whether it is alive. */
const OWN_MACHINE = /^(localhost|127\.0\.0\.1|\[::1\])(:\d+)?$/;

/** Where people reach Mailbag, for links that are mailed to others: what was said it is, or this machine itself. A name that only the asker says could be anybody's. Null: neither. */
export const trustedAddress = (request: Request): string | null =>
  config.address?.origin ?? (OWN_MACHINE.test(request.headers.host ?? '') ? `${request.protocol}://${request.host}` : null);

/** Whether a request is for a name that is not Mailbag's, where it was said which one is. */
export const isForOther = (request: Request): boolean =>
  config.address !== null && request.host !== config.address.host && !OWN_MACHINE.test(request.headers.host ?? '');
