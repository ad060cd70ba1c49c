import 'reflect-metadata';
import { existsSync } from 'node:fs';
import { join } from 'node:path';
import { ValidationPipe } from '@nestjs/common';
import { NestFactory } from '@nestjs/core';
import type { NestExpressApplication } from '@nestjs/platform-express';
import type { NextFunction, Request, Response } from 'express';
import helmet from 'helmet';
import { AccountsService } from './accounts/accounts.service.js';
import { sessionToken } from './accounts/session-cookie.js';
import { AppModule } from './app.module.js';
import { config, dataPath } from './platform/config.js';
import { postOffice } from './platform/post-office.js';

dataPath('');
const app = await NestFactory.create<NestExpressApplication>(AppModule, {
  logger: ['error', 'warn'],
  abortOnError: false,
  // Bodies are read by the guard, once it knows who sends them.
  bodyParser: false,
});
app.enableShutdownHooks();
app.set('query parser', 'simple');
app.useGlobalPipes(new ValidationPipe({ transform: true, whitelist: true, forbidUnknownValues: true }));
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
    strictTransportSecurity: false,
    crossOriginOpenerPolicy: false,
    originAgentCluster: false,
  }),
);
if (config.postOffice) {
  const accounts = app.get(AccountsService);
  app.use(postOffice(config.postOffice, async (request) => (await accounts.accountOf(sessionToken(request))) !== null));
}
if (existsSync(config.webFolder)) {
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
try {
  await app.listen(config.port, config.host);
} catch (error) {
  const code = (error as NodeJS.ErrnoException).code;
  const why = code === 'EADDRINUSE' ? 'is taken by another program' : code === 'EACCES' ? 'is not allowed to this user' : String(error);
  console.error(`Port ${config.port} of ${config.host} ${why}. Choose another one with --port.`);
  process.exit(1);
}
// A client that was busy for some seconds must not write into a connection that was closed meanwhile.
app.getHttpServer().keepAliveTimeout = 65_000;
const address = app.getHttpServer().address() as { port: number };
if (process.send) {
  process.send({ port: address.port });
  // Whoever started the server is gone, so nobody could end it any more.
  process.once('disconnect', () => process.kill(process.pid, 'SIGTERM'));
} else console.log(`Mailbag listens on http://${config.host}:${address.port}`);
