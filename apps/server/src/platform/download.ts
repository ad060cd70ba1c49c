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
