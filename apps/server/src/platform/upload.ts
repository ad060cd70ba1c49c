import { randomUUID } from 'node:crypto';
import { MailbagError } from '@mailbag/core';
import { FileInterceptor } from '@nestjs/platform-express';
import { diskStorage } from 'multer';
import { dataPath } from './config.js';

/** Takes one file named `file` into the spool, under a name of our own. */
export const uploadInto = (limit: number) =>
  FileInterceptor('file', {
    storage: diskStorage({
      destination: (_request, _file, done) => done(null, dataPath('spool')),
      filename: (_request, _file, done) => done(null, `upload-${randomUUID()}`),
    }),
    limits: { fileSize: limit, files: 1, fields: 5 },
  });

/** The name that the sender gave, which multipart carries as bytes of UTF-8 read as Latin-1. */
export function uploadedName(file: Express.Multer.File): string {
  const bytes = Buffer.from(file.originalname, 'latin1');
  const text = bytes.toString('utf8');
  return (text.includes('\ufffd') ? file.originalname : text).replace(/^.*[/\\]/, '').slice(0, 200) || 'file';
}

/** Where an uploaded file is kept. The name comes back from the browser, so only names of our own lead anywhere. @throws MailbagError not-found */
export function uploadedFile(fileId: string): string {
  if (!/^upload-[0-9a-f]{8}(-[0-9a-f]{4}){3}-[0-9a-f]{12}$/.test(fileId)) throw new MailbagError('not-found', { what: 'file' });
  return dataPath('sources', fileId);
}
