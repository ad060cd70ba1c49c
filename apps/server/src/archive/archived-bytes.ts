import { MailbagError } from '@mailbag/core';
import { fileKey } from '../files/file-key.js';
import { read, sha256 as sha256Of } from '../files/files.js';

/** A copy in the archive, as the ledger knows it. */
export interface ArchivedCopy {
  code: string;
  path: string;
  /** In hexadecimal. */
  sha256: string | null;
}

/** The bytes of a copy in the archive, compared with the digest that the ledger has of it. @throws MailbagError batch-file-gone, copy-changed */
export async function archivedBytes({ code, path, sha256: digest }: ArchivedCopy): Promise<Buffer> {
  const bytes = await read(fileKey('archive', path));
  if (!bytes) throw new MailbagError('batch-file-gone', { path });
  if ((await sha256Of(bytes)) !== digest) throw new MailbagError('copy-changed', { copy: code, path });
  return bytes;
}
