import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { Request, Response } from 'express';
import { Editions } from '../intakes/editions.service.js';
import { config } from '../platform/config.js';
import { packedAssets } from '../platform/packed-assets.js';

/** Where the page's own styles say that they are its own (W3C, Content Security Policy Level 3, 6.1.13). */
const NONCE = '%PAGE_NONCE%';

/** What a page of an intake may do: less than the screens may. @param sites that may show it within theirs */
const policy = (nonce: string, sites: readonly string[]): string =>
  [
    "default-src 'none'",
    "script-src 'self'",
    "worker-src 'self'",
    `style-src 'self' 'nonce-${nonce}'`,
    // Places that scripts have worked out, such as the width of a picture.
    "style-src-attr 'unsafe-inline'",
    "img-src 'self' data: blob:",
    "font-src 'self' data: blob:",
    "connect-src 'self'",
    "form-action 'none'",
    "base-uri 'none'",
    "object-src 'none'",
    ['frame-ancestors', "'self'", ...sites].join(' '),
  ].join('; ');

/** The pages of intakes: one small program for all of them, whose word stands in the address. @param html of the program */
export function setUpPages(app: NestExpressApplication, html: string): void {
  app.use('/in/assets', packedAssets(join(config.pagesFolder, 'assets')));
  const editions = app.get(Editions);
  const sitesOf = (word: string): Promise<readonly string[]> =>
    editions.ofWord(word).then(
      ({ plan }) => plan.opening.sites,
      () => [],
    );
  app.use('/in', async (request: Request, response: Response, next: () => void) => {
    if ((request.method !== 'GET' && request.method !== 'HEAD') || /\.\w+$/.test(request.path) || request.path.startsWith('/assets/'))
      return next();
    const nonce = randomBytes(16).toString('base64');
    const sites = await sitesOf(request.path.slice(1));
    // An older header, which knows no list of sites: where there is one, the policy alone says who may.
    if (sites.length > 0) response.removeHeader('X-Frame-Options');
    response
      .setHeader('Content-Security-Policy', policy(nonce, sites))
      .setHeader('Cache-Control', 'no-store')
      .setHeader('Referrer-Policy', 'no-referrer')
      .type('html')
      .send(html.replace(NONCE, nonce));
  });
}
