import type { IncomingMessage } from 'node:http';
import type { Response } from 'express';
import { config } from '../platform/config.js';

const NAME = 'mailbag_session';
const options = (secure: boolean) => ({ httpOnly: true, sameSite: 'strict' as const, path: '/', secure });

/** Whether people reach Mailbag by https: as it was said to be, or as the proxy says that may be believed. */
const isSecure = ({ req }: Response): boolean => (config.address ? config.address.protocol === 'https:' : req.secure);

export function sessionToken(request: IncomingMessage): string | undefined {
  for (const part of (request.headers.cookie ?? '').split(';')) {
    const [name, value] = part.trim().split('=');
    if (name === NAME) return value;
  }
  return undefined;
}

export const setSessionCookie = (response: Response, token: string): void =>
  void response.cookie(NAME, token, { ...options(isSecure(response)), maxAge: 14 * 86_400_000 });
export const clearSessionCookie = (response: Response): void => void response.clearCookie(NAME, options(isSecure(response)));
