import { randomUUID } from 'node:crypto';
import { fileKey } from '../files/file-key.js';
import { read, remove } from '../files/files.js';
import type { Pool } from '../work/pool.js';

export interface CombinedCopy {
  batchId: number;
  recordOrdinal: number;
  position: number;
  code: string;
  recipient: string;
}

/** The copies of one recipient as one file, a bookmark each. @throws MailbagError as the task `assemble` does */
export async function combinedCopies(pool: Pool, copies: readonly CombinedCopy[]): Promise<Buffer> {
  const key = fileKey('spool', `combined-${randomUUID()}.pdf`);
  try {
    await pool.run('assemble', {
      key,
      title: '',
      duplex: false,
      office: null,
      items: copies.map(({ batchId, recordOrdinal, position, code, recipient }) => ({
        batchId,
        recordOrdinal,
        position,
        code,
        bookmark: `${recipient} ${code}`.trim(),
        address: null,
      })),
    });
    return (await read(key))!;
  } finally {
    await remove(key);
  }
}
