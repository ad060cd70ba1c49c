import { open } from 'node:fs/promises';
import { MailbagError } from '@mailbag/core';
import { StreamableFile } from '@nestjs/common';
import type { Response } from 'express';
import { attachment } from '../platform/content-disposition.js';
import type { FileKey } from './file-key.js';
import { pathOf } from './file-key.js';
import { ifThere } from './files.js';

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

type StreamOptions = ConstructorParameters<typeof StreamableFile>[1];

/** A kept file as an answer. @param name as people call it @throws MailbagError file-gone */
export const streamed = (key: FileKey, name: string, options: StreamOptions): Promise<StreamableFile> =>
  streamedFrom(pathOf(key), name, options);

/** The same for a file that comes with Mailbag. */
export async function streamedFrom(path: string, name: string, options: StreamOptions): Promise<StreamableFile> {
  const file = await ifThere(open(path, 'r'));
  if (!file) throw new MailbagError('file-gone', { name });
  // What goes wrong later breaks the answer off; where it lies is told to nobody.
  return new StreamableFile(file.createReadStream(), options).setErrorHandler((_error, response) => response.destroy?.());
}
