import { createReadStream, existsSync } from 'node:fs';
import { MailbagError } from '@mailbag/core';
import { StreamableFile } from '@nestjs/common';
import type { Response } from 'express';
import { attachment } from './content-disposition.js';

/** A file for the person who asked. */
export interface Download {
  name: string;
  type: string;
  bytes: Uint8Array;
}

export const XLSX_TYPE = 'application/vnd.openxmlformats-officedocument.spreadsheetml.sheet';

export function send(response: Response, { name, type, bytes }: Download): void {
  response.setHeader('content-type', type);
  response.setHeader('content-disposition', attachment(name));
  response.setHeader('x-content-type-options', 'nosniff');
  response.end(Buffer.from(bytes.buffer, bytes.byteOffset, bytes.length));
}

/** A file of the data folder as an answer. @param name as people call it @throws MailbagError file-gone */
export function streamed(path: string, name: string, options: ConstructorParameters<typeof StreamableFile>[1]): StreamableFile {
  if (!existsSync(path)) throw new MailbagError('file-gone', { name });
  // What goes wrong later breaks the answer off; where it lies is told to nobody.
  return new StreamableFile(createReadStream(path), options).setErrorHandler((_error, response) => response.destroy?.());
}
