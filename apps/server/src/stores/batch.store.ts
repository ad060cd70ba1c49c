import type { BatchState, BatchSummary } from '@mailbag/contract';
import type { Sql } from '../persistence/sql.js';
import { changed, one, rows, run } from '../persistence/sql.js';

export const batchStore = {
  /** Why it does not get on; null: it does. */
  say: (sql: Sql, text: string | null, id: number) =>
    run(sql, "UPDATE batch SET error = ? WHERE id = ? AND state IN ('planning', 'making')", [text, id]),

  /** Paused by what went wrong. */
  pauseFor: (sql: Sql, error: unknown, id: number) =>
    run(sql, "UPDATE batch SET resumeTo = state, state = 'paused', error = ? WHERE id = ? AND state IN ('planning', 'making')", [
      JSON.stringify(error),
      id,
    ]),

  progress: (sql: Sql, id: number) =>
    one<{ state: BatchState; records: number; plannedThrough: number }>(
      sql,
      'SELECT state, records, plannedThrough FROM batch WHERE id = ?',
      [id],
    ),

  /** From one state to the next, when it still is in the first. @returns how many moved */
  move: (sql: Sql, to: string, finishedAt: string | null, id: number, from: string) =>
    changed(sql, 'UPDATE batch SET state = ?, finishedAt = ?, error = NULL WHERE id = ? AND state = ?', [to, finishedAt, id, from]),

  state: (sql: Sql, id: number) => one<{ state: BatchState }>(sql, 'SELECT state FROM batch WHERE id = ?', [id]),

  mailedAndState: (sql: Sql, id: number) =>
    one<{
      mailed: number;
      state: BatchState;
    }>(sql, 'SELECT mailed, state FROM batch WHERE id = ?', [id]),

  pause: (sql: Sql, id: number) => run(sql, "UPDATE batch SET resumeTo = state, state = 'paused' WHERE id = ?", [id]),

  resume: (sql: Sql, id: number) =>
    run(sql, "UPDATE batch SET state = COALESCE(resumeTo, 'planning'), resumeTo = NULL, error = NULL WHERE id = ?", [id]),

  cancel: (sql: Sql, now: string, id: number) =>
    run(sql, "UPDATE batch SET state = 'cancelled', resumeTo = NULL, error = NULL, finishedAt = ? WHERE id = ?", [now, id]),

  summary: (sql: Sql, id: number) =>
    one<
      Omit<BatchSummary, 'mailed' | 'error' | 'counts' | 'pace' | 'planned' | 'waiting' | 'combined'> & {
        mailed: number;
        error: string | null;
        plannedThrough: number;
      }
    >(
      sql,
      'SELECT id, number, mailingId, mailingName, state, records, copies, mailed, error, plannedThrough, startedAt, finishedAt FROM batch WHERE id = ?',
      [id],
    ),

  nextNumber: (sql: Sql) => one<{ number: number }>(sql, 'SELECT COALESCE(MAX(number), 0) + 1 AS number FROM batch'),

  frozen: (sql: Sql, id: number) =>
    one<{ number: number; today: string; frozen: string }>(sql, 'SELECT number, today, frozen FROM batch WHERE id = ?', [id]),

  record: (sql: Sql, batchId: number, ordinal: number) =>
    one<{ row: number; cells: string }>(sql, 'SELECT row, cells FROM batch_record WHERE batchId = ? AND ordinal = ?', [batchId, ordinal]),

  ofMailing: (sql: Sql, mailingId: number) =>
    rows<{ id: number; number: number; state: BatchState }>(
      sql,
      'SELECT id, number, state FROM batch WHERE mailingId = ? ORDER BY number DESC',
      [mailingId],
    ),

  forgetHadCopies: (sql: Sql, mailingId: number) => run(sql, 'DELETE FROM had_copy WHERE mailingId = ?', [mailingId]),

  setReminder: (sql: Sql, reminder: unknown, id: number) =>
    run(sql, "UPDATE batch SET frozen = json_set(frozen, '$.plan.message.reminder', json(?)) WHERE id = ?", [JSON.stringify(reminder), id]),

  finishedBefore: (sql: Sql, before: string) =>
    rows<{ id: number }>(sql, "SELECT id FROM batch WHERE state IN ('done', 'cancelled') AND finishedAt < ?", [before]),

  recordsWithCells: (sql: Sql, batchId: number) =>
    one<{
      count: number;
    }>(sql, "SELECT COUNT(*) AS count FROM batch_record WHERE batchId = ? AND cells <> '[]'", [batchId]),

  clearCells: (sql: Sql, batchId: number) => run(sql, "UPDATE batch_record SET cells = '[]' WHERE batchId = ?", [batchId]),

  clearCharacters: (sql: Sql, id: number) => run(sql, "UPDATE batch SET characters = '' WHERE id = ?", [id]),

  name: (sql: Sql, id: number) =>
    one<{ number: number; mailingName: string }>(sql, 'SELECT number, mailingName FROM batch WHERE id = ?', [id]),

  rememberWhoHad: (sql: Sql, batchId: number) =>
    run(
      sql,
      `INSERT OR IGNORE INTO had_copy (mailingId, keyDigest) SELECT batch.mailingId, batch_record.keyDigest FROM batch_record JOIN batch ON batch.id = batch_record.batchId
         WHERE batch.id = ? AND batch_record.keyDigest IS NOT NULL AND EXISTS
           (SELECT 1 FROM copy WHERE copy.batchId = batch.id AND copy.recordOrdinal = batch_record.ordinal AND copy.state <> 'withdrawn')`,
      [batchId],
    ),

  dropRecords: (sql: Sql, batchId: number) => run(sql, 'DELETE FROM batch_record WHERE batchId = ?', [batchId]),

  /** The latest, or those that still run. */
  latest: (sql: Sql, which: 'all' | 'running') =>
    rows<{ id: number }>(
      sql,
      `SELECT id FROM batch ${which === 'running' ? "WHERE state IN ('planning', 'making', 'sending', 'paused')" : ''} ORDER BY number DESC LIMIT 100`,
    ),

  /** Whether the values of a record are still there. */
  hasValues: async (sql: Sql, batchId: number, ordinal: number) =>
    (await rows(sql, "SELECT 1 FROM batch_record WHERE batchId = ? AND ordinal = ? AND cells <> '[]'", [batchId, ordinal])).length > 0,

  /** Those whose output keeps a password in clear, as earlier versions did. @param names of the passwords @returns `output` as JSON */
  withClearPasswords: (sql: Sql, names: readonly string[]) =>
    rows<{ id: number; output: string }>(
      sql,
      `SELECT id, json_extract(frozen, '$.plan.output') AS output FROM batch WHERE EXISTS
         (SELECT 1 FROM json_each(frozen, '$.plan.output') AS kept WHERE kept.key IN (SELECT value FROM json_each(?)) AND kept.value <> '' AND kept.value NOT LIKE 'sealed:%')`,
      [JSON.stringify(names)],
    ),

  setOutput: (sql: Sql, id: number, output: unknown) =>
    run(sql, "UPDATE batch SET frozen = json_set(frozen, '$.plan.output', json(?)) WHERE id = ?", [JSON.stringify(output), id]),
};
