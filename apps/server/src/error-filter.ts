import { randomBytes } from 'node:crypto';
import type { ArgumentsHost, ExceptionFilter } from '@nestjs/common';
import { BadRequestException, Catch, HttpException, Logger } from '@nestjs/common';
import { MailbagError, isMailbagError } from '@mailbag/core';
import type { Request, Response } from 'express';
import { isDiskFull } from './persistence/failures.js';

/** Sentences within a sentence, whose own full stop follows. */
const withoutFullStop = (text: string): string => text.replace(/\.$/, '');

/** Every error leaves as `{ code, fields, message }`; what is not of the catalogue is logged under a trace and told as unexpected. */
@Catch()
export class ErrorFilter implements ExceptionFilter {
  private readonly logger = new Logger('http');

  catch(error: unknown, host: ArgumentsHost): void {
    const http = host.switchToHttp();
    const response = http.getResponse<Response>();
    if (response.headersSent) {
      response.end();
      return;
    }
    const told = this.told(error);
    // What was not read of a refused body is not waited for.
    if (!http.getRequest<Request>().complete) response.setHeader('connection', 'close');
    response.status(told.status).json(told.toJSON());
  }

  private told(error: unknown): MailbagError {
    if (isMailbagError(error)) return error;
    if (isDiskFull(error)) return new MailbagError('disk-full', {}, { cause: error });
    if (error instanceof BadRequestException) {
      const body = error.getResponse() as { message?: string | string[] };
      return new MailbagError('request-wrong', { why: withoutFullStop([body.message ?? error.message].flat().join(' ')) });
    }
    if (error instanceof HttpException) {
      if (error.getStatus() === 404) return new MailbagError('not-found', { what: 'page' });
      return new MailbagError('request-wrong', { why: withoutFullStop(error.message) });
    }
    const trace = randomBytes(4).toString('hex');
    this.logger.error(`${trace} ${error instanceof Error ? error.stack : String(error)}`);
    return new MailbagError('unexpected', { trace });
  }
}
