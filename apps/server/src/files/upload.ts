import { randomUUID } from 'node:crypto';
import { dirname } from 'node:path';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import type { CallHandler, ExecutionContext, NestInterceptor, Type } from '@nestjs/common';
import { PayloadTooLargeException } from '@nestjs/common';
import { FileInterceptor } from '@nestjs/platform-express';
import { diskStorage } from 'multer';
import type { Observable } from 'rxjs';
import type { FileKey } from './file-key.js';
import { fileKey, placeFor } from './file-key.js';

/**
 * Takes one file named `file` into the spool, under a name of our own.
 * @param limit bytes
 * @throws MailbagError file-too-large
 */
export function uploadInto(limit: number): Type<NestInterceptor> {
  const Takes = FileInterceptor('file', {
    storage: diskStorage({
      destination: (_request, _file, done) => done(null, dirname(placeFor(fileKey('spool', 'upload')))),
      filename: (_request, _file, done) => done(null, `upload-${randomUUID()}`),
    }),
    limits: { fileSize: limit, files: 1, fields: 5 },
  });
  return class extends Takes {
    override async intercept(context: ExecutionContext, next: CallHandler): Promise<Observable<unknown>> {
      try {
        return (await super.intercept(context, next)) as Observable<unknown>;
      } catch (error) {
        if (error instanceof PayloadTooLargeException) throw new MailbagError('file-too-large', { limitMb: limit / 1048576 });
        throw error;
      }
    }
  };
}

/** The name that the sender gave, which multipart carries as bytes of UTF-8 read as Latin-1. */
function uploadedName(file: Express.Multer.File): string {
  const bytes = Buffer.from(file.originalname, 'latin1');
  const text = bytes.toString('utf8');
  return (text.includes('\ufffd') ? file.originalname : text).replace(/^.*[/\\]/, '').slice(0, 200) || 'file';
}

/** What an uploaded file is called until it is put where it belongs, and what its sender called it. @throws MailbagError request-wrong */
export function uploaded(file: Express.Multer.File | undefined): [key: FileKey, name: string] {
  if (!file) throw new MailbagError('request-wrong', { why: t`no file came with it` });
  return [fileKey('spool', file.filename), uploadedName(file)];
}

/** What an uploaded file of records is called where it is kept. The name comes back from the browser, so only names of our own lead anywhere. @throws MailbagError not-found */
export function uploadedFile(fileId: string): FileKey {
  if (!/^upload-[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(fileId)) throw new MailbagError('not-found', { what: t`file` });
  return fileKey('sources', fileId);
}
