import type { CopyState } from '@mailbag/core';
import type { Sql } from '../persistence/sql.js';
import { one, rows } from '../persistence/sql.js';

/** A copy whose personal link somebody opens. */
export interface LinkedCopy {
  id: number;
  code: string;
  mailingId: number;
  batchId: number;
  recordOrdinal: number;
  /** Of its record in the source, when the batch began. */
  row: number;
  recordKey: string;
  state: CopyState;
}

/** Copies as their personal links know them. */
export const personalStore = {
  copy: (sql: Sql, code: string) =>
    one<LinkedCopy>(sql, 'SELECT id, code, mailingId, batchId, recordOrdinal, "row", recordKey, state FROM copy WHERE code = ?', [code]),

  /** Ids of all copies of the same record in the same batch: who answers for one answers for all. */
  together: async (sql: Sql, { batchId, recordOrdinal }: Pick<LinkedCopy, 'batchId' | 'recordOrdinal'>): Promise<number[]> =>
    (
      await rows<{ id: number }>(sql, 'SELECT id FROM copy WHERE batchId = ? AND recordOrdinal = ? ORDER BY id', [batchId, recordOrdinal])
    ).map(({ id }) => id),
};
