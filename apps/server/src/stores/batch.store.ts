import type { BatchState, BatchSummary } from '@mailbag/contract';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { changed, one, rows, run } from '../persistence/sql.js';
import type { RecordRow } from './record.store.js';

export interface PlannedBatch {
  id: number;
  number: number;
  mailingId: number;
  mailingName: string;
  state: BatchState;
  records: number;
  plannedThrough: number;
  characters: string;
}
export type BatchProgress = Pick<PlannedBatch, 'id' | 'state' | 'plannedThrough'>;

/** Records of a batch whose copies are there or coming: withdrawn ones are neither. */
const WITH_COPIES = `batchId = ? AND ((? AND ordinal >= ?) OR EXISTS
  (SELECT 1 FROM copy WHERE copy.batchId = batch_record.batchId AND copy.recordOrdinal = batch_record.ordinal AND copy.state <> 'withdrawn'))`;

/** What a batch runs over, as its row keeps it. */
export interface FrozenRow {
  number: number;
  /** The day of its start, where the office is. */
  today: string;
  /** How many it runs over. */
  records: number;
  /** As JSON; never written again. */
  frozen: string;
  /** What its reminders say, as JSON; null: what is frozen. */
  reminder: string | null;
}

/** A batch that is done or paused, and whom that is told by mail. */
export interface EndedBatch {
  number: number;
  mailingName: string;
  state: 'done' | 'paused';
  /** As JSON; null: nothing went wrong. */
  error: string | null;
  startedAt: string;
  finishedAt: string | null;
  toldState: string;
  /** Of whoever started it. */
  email: string;
  /** In which they are spoken to (ISO 639-1); empty: as their browser asks. */
  language: string;
}

export const batchStore = {
  setStarter: (sql: Sql, id: number, accountId: number) => run(sql, 'UPDATE batch SET startedBy = ? WHERE id = ?', [accountId, id]),

  /** If it is done, or paused by what went wrong, and whoever started it wishes to be told and can still sign in. */
  ended: (sql: Sql, id: number) =>
    one<EndedBatch>(
      sql,
      `SELECT number, mailingName, state, error, startedAt, finishedAt, toldState, email, language FROM batch JOIN account ON account.id = batch.startedBy
       WHERE batch.id = ? AND account.mailsBatches = 1 AND account.disabledAt IS NULL AND (state = 'done' OR (state = 'paused' AND error IS NOT NULL))`,
      [id],
    ),
  endedSince: (sql: Sql, since: string) =>
    rows<{ id: number }>(sql, 'SELECT id FROM batch WHERE startedBy IS NOT NULL AND finishedAt >= ? AND toldState <> state', [since]),

  /** @returns whether nobody else was quicker */
  setTold: async (sql: Sql, id: number, from: string, to: string): Promise<boolean> =>
    (await changed(sql, 'UPDATE batch SET toldState = ? WHERE id = ? AND toldState = ?', [to, id, from])) === 1,

  /** Nobody is to be told of what it has come to, neither now nor by a later wish. */
  setNotTold: (sql: Sql, id: number) =>
    run(sql, "UPDATE batch SET toldState = state WHERE id = ? AND (state = 'done' OR (state = 'paused' AND error IS NOT NULL))", [id]),

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

  /** Whether a batch of a mailing begins, whose copies are not all in the table yet. */
  isPlanning: async (sql: Sql, mailingId: number) =>
    (await one(sql, "SELECT 1 AS isThere FROM batch WHERE mailingId = ? AND state = 'planning' LIMIT 1", [mailingId])) !== undefined,

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

  frozen: (sql: Sql, id: number) => one<FrozenRow>(sql, 'SELECT number, today, records, frozen, reminder FROM batch WHERE id = ?', [id]),

  record: (sql: Sql, batchId: number, ordinal: number) =>
    one<{ row: number; cells: string }>(sql, 'SELECT row, cells FROM batch_record WHERE batchId = ? AND ordinal = ?', [batchId, ordinal]),

  ofMailing: (sql: Sql, mailingId: number) =>
    rows<{ id: number; number: number; state: BatchState }>(
      sql,
      'SELECT id, number, state FROM batch WHERE mailingId = ? ORDER BY number DESC',
      [mailingId],
    ),

  forgetHadCopies: (sql: Sql, mailingId: number) => run(sql, 'DELETE FROM had_copy WHERE mailingId = ?', [mailingId]),

  /** What its reminders say from now on. */
  setReminder: (sql: Sql, reminder: unknown, id: number) =>
    run(sql, 'UPDATE batch SET reminder = ? WHERE id = ?', [JSON.stringify(reminder), id]),

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
      `INSERT INTO had_copy (mailingId, keyDigest) SELECT batch.mailingId, batch_record.keyDigest FROM batch_record JOIN batch ON batch.id = batch_record.batchId
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

  /** The batch that a request began; undefined: it has begun none. */
  begunBy: (sql: Sql, startKey: string) =>
    one<{ id: number; mailingId: number }>(sql, 'SELECT id, mailingId FROM batch WHERE startKey = ?', [startKey]),

  /** @returns the id of a new one, which is about to be planned */
  add: async (
    sql: Sql,
    batch: {
      number: number;
      mailingId: number;
      mailingName: string;
      frozen: unknown;
      records: number;
      mailed: boolean;
      startedAt: string;
      startKey: string;
      usedColumns: readonly string[];
      today: string;
    },
  ) =>
    (await one<{ id: number }>(
      sql,
      `INSERT INTO batch (number, mailingId, mailingName, state, resumeTo, frozen, characters, records, plannedThrough, copies, mailed, error, startedAt, finishedAt, startKey, usedColumns, today)
       VALUES (?, ?, ?, 'planning', NULL, ?, '', ?, 0, 0, ?, NULL, ?, NULL, ?, ?, ?) RETURNING id`,
      [
        batch.number,
        batch.mailingId,
        batch.mailingName,
        JSON.stringify(batch.frozen),
        batch.records,
        batch.mailed ? 1 : 0,
        batch.startedAt,
        batch.startKey,
        JSON.stringify(batch.usedColumns),
        batch.today,
      ],
    ))!.id,

  /** Freezes records of a reading with a batch, in the order of the list. */
  addRecords: (sql: Sql, id: number, records: readonly { ordinal: number; key: string; values: string }[], readingId: number | null) =>
    run(
      sql,
      `INSERT INTO batch_record (batchId, ordinal, row, cells, keyDigest, valuesDigest)
       SELECT ?, one.key, record.row, record.cells, ${dialect.at('one.value', 1)}, ${dialect.at('one.value', 2)} FROM ${dialect.items('one')}
       CROSS JOIN source_record AS record ON record.readingId = ? AND record.ordinal = ${dialect.at('one.value', 0)}`,
      [id, JSON.stringify(records.map(({ ordinal, key, values }) => [ordinal, key, values])), readingId],
    ),

  /** What is frozen, with the words that its copies are drawn with. */
  frozenWithCharacters: (sql: Sql, id: number) =>
    one<FrozenRow & { characters: string }>(sql, 'SELECT number, today, records, frozen, reminder, characters FROM batch WHERE id = ?', [
      id,
    ]),

  /** Records of a stretch, from the first until before the second. */
  recordsBetween: (sql: Sql, batchId: number, from: number, to: number) =>
    rows<RecordRow>(sql, 'SELECT ordinal, row, cells FROM batch_record WHERE batchId = ? AND ordinal >= ? AND ordinal < ?', [
      batchId,
      from,
      to,
    ]),

  recordsFrom: (sql: Sql, batchId: number, from: number, limit: number) =>
    rows<RecordRow>(sql, 'SELECT ordinal, row, cells FROM batch_record WHERE batchId = ? AND ordinal >= ? ORDER BY ordinal LIMIT ?', [
      batchId,
      from,
      limit,
    ]),

  /** How far its planning is. */
  planning: (sql: Sql, id: number) =>
    one<PlannedBatch>(
      sql,
      'SELECT id, number, mailingId, mailingName, state, records, plannedThrough, characters FROM batch WHERE id = ?',
      [id],
    ),

  /** @param through records that are planned by now @param copies that were planned just now */
  setPlanned: (sql: Sql, id: number, through: number, characters: string, copies: number) =>
    run(sql, 'UPDATE batch SET plannedThrough = ?, characters = ?, copies = copies + ? WHERE id = ?', [through, characters, copies, id]),

  /** Digests of the keys of records that had a copy in batches whose records are gone. */
  hadCopies: (sql: Sql, mailingId: number) =>
    rows<{ keyDigest: string }>(sql, 'SELECT keyDigest FROM had_copy WHERE mailingId = ?', [mailingId]),

  /** The batches of a mailing; what is frozen is told of those alone whose key was another column than this one. */
  withKeyColumns: (sql: Sql, mailingId: number, keyColumn: string | null) =>
    rows<{ id: number; number: number; state: BatchState; plannedThrough: number; usedColumns: string | null; frozen: string }>(
      sql,
      `SELECT id, number, state, plannedThrough, usedColumns, CASE WHEN ${dialect.at('frozen', 'plan', 'keyColumn')} IS NOT DISTINCT FROM ? THEN '' ELSE frozen END AS frozen FROM batch WHERE mailingId = ? ORDER BY id`,
      [keyColumn, mailingId],
    ),

  /** Digests of the records whose copies are there or coming. */
  digestsWithCopies: (sql: Sql, { id, state, plannedThrough }: BatchProgress) =>
    rows<{ keyDigest: string | null; valuesDigest: string | null }>(
      sql,
      `SELECT keyDigest, valuesDigest FROM batch_record WHERE ${WITH_COPIES}`,
      [id, state === 'cancelled' ? 0 : 1, plannedThrough],
    ),

  recordsWithCopies: (sql: Sql, { id, state, plannedThrough }: BatchProgress) =>
    rows<{ row: number; cells: string; valuesDigest: string | null }>(
      sql,
      `SELECT row, cells, valuesDigest FROM batch_record WHERE ${WITH_COPIES} ORDER BY ordinal`,
      [id, state === 'cancelled' ? 0 : 1, plannedThrough],
    ),

  /** Id of the last batch of a mailing; null: there is none. */
  lastOf: async (sql: Sql, mailingId: number) =>
    (await one<{ last: number | null }>(sql, 'SELECT MAX(id) AS last FROM batch WHERE mailingId = ?', [mailingId]))!.last,

  /** Those that run by themselves. */
  running: (sql: Sql) => rows<{ id: number }>(sql, "SELECT id FROM batch WHERE state IN ('planning', 'making', 'sending')"),

  byId: (sql: Sql, id: number) =>
    one<{ number: number; mailingName: string; state: BatchState; mailed: number }>(
      sql,
      'SELECT number, mailingName, state, mailed FROM batch WHERE id = ?',
      [id],
    ),
};
