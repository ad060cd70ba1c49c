import { randomBytes } from 'node:crypto';
import type { ArgumentsHost, ExceptionFilter } from '@nestjs/common';
import { BadRequestException, Catch, HttpException, Logger } from '@nestjs/common';
import type { ErrorCode } from '@mailbag/core';
import { MailbagError, isMailbagError } from '@mailbag/core';
import type { Request, Response } from 'express';
import { isDiskFull } from './persistence/failures.js';

const statusOf: Partial<Record<ErrorCode, number>> = {
  'not-found': 404,
  'account-signed-out': 401,
  'account-sign-in-refused': 401,
  'account-too-many-tries': 429,
  'request-not-ours': 403,
  'request-wrong': 400,
  'request-too-large': 413,
  'request-too-deep': 400,
  'request-type': 415,
  'file-too-large': 413,
  'work-too-many': 429,
  'server-stops': 503,
  'database-busy': 503,
  'disk-full': 507,
  'mailing-changed-elsewhere': 409,
  'account-exists': 409,
  'account-not-allowed': 403,
  'account-values-hidden': 403,
  'account-passwords-hidden': 403,
  'account-disabled': 403,
  'mail-server-in-use': 409,
  'sender-in-use': 409,
  'sender-exists': 409,
  'print-run-state': 409,
  'printer-in-use': 409,
  'template-in-use': 409,
  'source-in-use': 409,
  'batch-not-running': 409,
  'start-outdated': 409,
  'start-not-confirmed': 409,
  'copy-law': 409,
  'copy-in-print-run': 409,
  'record-over-time': 409,
  'print-record-gone': 409,
  'secret-asked-again': 409,
  'batch-file-gone': 404,
  'file-gone': 404,
  unexpected: 500,
};

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
    response.status(statusOf[told.code] ?? 422).json(told.toJSON());
  }

  private told(error: unknown): MailbagError {
    if (isMailbagError(error)) return error;
    if (isDiskFull(error)) return new MailbagError('disk-full', {}, { cause: error });
    if (error instanceof BadRequestException) {
      const body = error.getResponse() as { message?: string | string[] };
      return new MailbagError('request-wrong', { why: [body.message ?? error.message].flat().join(' ') });
    }
    if (error instanceof HttpException) {
      if (error.getStatus() === 404) return new MailbagError('not-found', { what: 'page' });
      return new MailbagError('request-wrong', { why: error.message });
    }
    const trace = randomBytes(4).toString('hex');
    this.logger.error(`${trace} ${error instanceof Error ? error.stack : String(error)}`);
    return new MailbagError('unexpected', { trace });
  }
}
