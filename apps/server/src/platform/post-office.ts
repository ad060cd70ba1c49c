import { request as ask } from 'node:http';
import type { NextFunction, Request, Response } from 'express';

/** Shows the stand-in post office's page under /post-office to those who are signed in. */
export function postOffice(target: string, isSignedIn: (request: Request) => Promise<boolean>) {
  return (request: Request, response: Response, next: NextFunction): void => {
    if (request.method !== 'GET' || !/^\/post-office(\/|\?|$)/.test(request.url)) return next();
    void isSignedIn(request).then((ok) => {
      if (!ok) return void response.redirect('/');
      const url = new URL(request.url.replace(/^\/post-office\/?/, '/'), target);
      const forward = ask(url, (answer) => {
        response.status(answer.statusCode ?? 502);
        for (const name of ['content-type', 'content-disposition', 'content-length'] as const)
          if (answer.headers[name]) response.setHeader(name, answer.headers[name]);
        answer.pipe(response);
      });
      forward.on('error', () => response.status(502).send('The post office is closed.'));
      forward.end();
    }, next);
  };
}
