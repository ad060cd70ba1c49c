import { webcrypto } from 'node:crypto';
import { readFile } from 'node:fs/promises';
import { MailbagError } from '@mailbag/core';
import { dataPath } from '../platform/config.js';

/** A copy in the archive, as the ledger knows it. */
export interface ArchivedCopy {
  code: string;
  path: string;
  /** In hexadecimal. */
  sha256: string | null;
}

/** SHA-256 in hexadecimal, computed beside the event loop. */
export const sha256 = async (bytes: Uint8Array): Promise<string> =>
  Buffer.from(await webcrypto.subtle.digest('SHA-256', bytes)).toString('hex');

/** What a file on disk holds; null: there is none. */
export const bytesOf = (path: string): Promise<Buffer | null> =>
  readFile(path).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT' || error.code === 'EISDIR' || error.code === 'ENOTDIR') return null;
    throw error;
  });

/** The bytes of a copy in the archive, compared with the digest that the ledger has of it. @throws MailbagError batch-file-gone, copy-changed */
export async function archivedBytes({ code, path, sha256: digest }: ArchivedCopy): Promise<Buffer> {
  const bytes = await bytesOf(dataPath('archive', path));
  if (!bytes) throw new MailbagError('batch-file-gone', { path });
  if ((await sha256(bytes)) !== digest) throw new MailbagError('copy-changed', { copy: code, path });
  return bytes;
}
