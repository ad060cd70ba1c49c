import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { validation } from './platform/validation.js';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, Response } from 'express';
import helmet from 'helmet';
import { MailbagError } from '@mailbag/core';
import { isForOther } from './accounts/origin.js';
import { config } from './platform/config.js';
import type { HelpPage } from './help/help-pages.js';
import { helpPages, languageFolder, manualLanguages } from './help/help-pages.js';
import { packedAssets } from './platform/packed-assets.js';
import { setUpPages } from './public/pages.js';

/** Sets up how requests are read, what browsers may do with the answers, and the screens themselves. */
export function setUpWeb(app: NestExpressApplication): void {
  app.set('query parser', 'simple');
  app.set('trust proxy', config.proxies);
  app.useGlobalPipes(validation);
  app.use(
    helmet({
      contentSecurityPolicy: {
        useDefaults: false,
        directives: {
          defaultSrc: ["'self'"],
          scriptSrc: ["'self'", "'wasm-unsafe-eval'"],
          workerSrc: ["'self'", 'blob:'],
          styleSrc: ["'self'", "'unsafe-inline'"],
          imgSrc: ["'self'", 'data:', 'blob:'],
          fontSrc: ["'self'", 'data:', 'blob:'],
          connectSrc: ["'self'"],
          frameAncestors: ["'self'"],
          objectSrc: ["'none'"],
          baseUri: ["'self'"],
          formAction: ["'self'"],
        },
      },
      strictTransportSecurity: config.address?.protocol === 'https:',
      crossOriginOpenerPolicy: false,
      originAgentCluster: false,
    }),
  );
  app.use((request: Request, response: Response, next: NextFunction) => {
    if (!isForOther(request)) return next();
    response.status(421).json(new MailbagError('host-other', { host: request.host, address: config.address!.origin }).toJSON());
  });
  // What the office holds is kept by no browser and no proxy.
  app.use('/api', (_: Request, response: Response, next: NextFunction) => void (response.setHeader('Cache-Control', 'no-store'), next()));
  const pages = join(config.pagesFolder, 'index.html');
  if (existsSync(pages)) setUpPages(app, readFileSync(pages, 'utf8'));
  if (existsSync(config.manualFolder)) setUpHelp(app);
  if (existsSync(config.webFolder)) {
    // Answers with what the office holds are not packed, since their length would tell of it.
    app.use('/assets', packedAssets(join(config.webFolder, 'assets')));
    app.useStaticAssets(config.webFolder, {
      index: 'index.html',
      maxAge: '1h',
      setHeaders: (response: Response, path: string) => void (path.endsWith('.html') && response.setHeader('Cache-Control', 'no-cache')),
    });
    // The screens have addresses of their own, which all lead to the one page.
    app.use((request: Request, response: Response, next: NextFunction) => {
      const isScreen =
        (request.method === 'GET' || request.method === 'HEAD') && !request.path.startsWith('/api/') && !/\.\w+$/.test(request.path);
      if (isScreen) response.setHeader('Cache-Control', 'no-cache').sendFile(join(config.webFolder, 'index.html'));
      else next();
    });
  }
}

/** The manual in its languages. */
function manualPages(): HelpPage[] {
  return manualLanguages.flatMap((language) => {
    const folder = join(config.manualFolder, languageFolder(language));
    const files = readdirSync(folder)
      .filter((name) => name.endsWith('.md'))
      .sort();
    return helpPages(
      files.map((name) => ({ name, text: readFileSync(join(folder, name), 'utf8') })),
      language,
    );
  });
}

/** Serves the manual, which needs neither a network nor an account. */
function setUpHelp(app: NestExpressApplication): void {
  let pages: HelpPage[] | null = null;
  app.useStaticAssets(config.picturesFolder, { prefix: '/help/pictures', index: false, maxAge: '1h', fallthrough: false });
  app.use('/help', (request: Request, response: Response) => {
    const path = request.path.replace(/^\/|\/$/g, '');
    const isFirst = manualLanguages.some((language) => languageFolder(language) === path);
    pages ??= manualPages();
    const page = pages.find((one) => (isFirst ? one.path === [path, 'start'].filter(Boolean).join('/') : one.path === path));
    if (page) response.type('html').send(page.html);
    else response.status(404).json(new MailbagError('not-found', { what: 'page' }).toJSON());
  });
}
