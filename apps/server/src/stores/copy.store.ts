import type { CopyState, Detail } from '@mailbag/core';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { changed, one, rows, run } from '../persistence/sql.js';
import type { AddressedCopy, BesideCopy, CopiesOfMailing, CopyOfRecord, ManifestRow, PlannedCopy } from './copy-rows.js';
import { withRemarks } from './stored-remarks.js';
import type { LedgerRow } from './ledger.store.js';
import { LEDGER_COLUMNS } from './ledger.store.js';
import type { PlannedBatch } from './batch.store.js';

/** Copies with the others of the same template, and of the same items, for the same record. A record without a key is not known again. */
const BESIDE = `copy JOIN copy beside ON beside.mailingId = copy.mailingId AND beside.recordKey = copy.recordKey AND beside.templateId = copy.templateId AND beside.part = copy.part
  JOIN batch ON batch.id = beside.batchId WHERE copy.recordKey <> '' AND beside.state <> 'planned'`;

export const copyStore = {
  /** Copies of a batch that were made, for its manifest, a page after the id. */
  manifestPage: (sql: Sql, batchId: number, after: number, limit: number) =>
    rows<ManifestRow>(
      sql,
      `SELECT id, code, row, recipient, address, templateName, path, size, sha256, state, since, metadata FROM copy WHERE batchId = ? AND id > ? AND sha256 IS NOT NULL ORDER BY id LIMIT ?`,
      [batchId, after, limit],
    ),

  /** The metadata of any copy of a batch. */
  metadataOfOne: (sql: Sql, batchId: number) =>
    one<{ metadata: string | null }>(sql, 'SELECT metadata FROM copy WHERE batchId = ? LIMIT 1', [batchId]),

  /** Copies of a batch that were made, by record and position. */
  madeOfBatch: (sql: Sql, batchId: number) =>
    rows<{
      recordOrdinal: number;
      position: number;
      code: string;
      recipient: string;
      templateName: string;
    }>(
      sql,
      'SELECT recordOrdinal, position, code, recipient, templateName FROM copy WHERE batchId = ? AND sha256 IS NOT NULL ORDER BY recordOrdinal, position',
      [batchId],
    ),

  /** The first record with a copy that is still planned; null: none is. */
  firstPlanned: (sql: Sql, batchId: number) =>
    one<{ ordinal: number | null }>(sql, "SELECT MIN(recordOrdinal) AS ordinal FROM copy WHERE batchId = ? AND state = 'planned'", [
      batchId,
    ]),

  /** Sizes and hashes of copies that lie in the archive. @param made JSON list of id, size, sha256 */
  setMade: (sql: Sql, made: unknown) =>
    run(
      sql,
      `UPDATE copy SET size = ${dialect.at('one.value', 'size')}, sha256 = ${dialect.at('one.value', 'sha256')} FROM ${dialect.items('one')} WHERE copy.id = ${dialect.at('one.value', 'id')} AND ${dialect.unindexed('copy.state')} = 'planned'`,
      [JSON.stringify(made)],
    ),

  /** Copies of a stretch of records that were made and are mailed. */
  toMail: (sql: Sql, batchId: number, from: number, to: number) =>
    rows<{
      id: number;
      recordOrdinal: number;
      address: string;
    }>(
      sql,
      "SELECT id, recordOrdinal, address FROM copy WHERE batchId = ? AND recordOrdinal >= ? AND recordOrdinal < ? AND state = 'made' AND wantsPaper = 0 ORDER BY recordOrdinal, position",
      [batchId, from, to],
    ),

  /** Copies of a batch that have not gone out. */
  openOfBatch: (sql: Sql, batchId: number) =>
    rows<{
      id: number;
    }>(sql, "SELECT id FROM copy WHERE batchId = ? AND state IN ('planned', 'queued', 'retrying')", [batchId]),

  /** Which record of which batch it was made of. */
  place: (sql: Sql, id: number) =>
    one<{
      batchId: number;
      recordOrdinal: number;
      code: string;
      templateName: string;
    }>(sql, 'SELECT batchId, recordOrdinal, code, templateName FROM copy WHERE id = ?', [id]),

  path: (sql: Sql, id: number) => one<{ path: string }>(sql, 'SELECT path FROM copy WHERE id = ?', [id]),

  codeAndState: (sql: Sql, id: number) => one<{ code: string; state: CopyState }>(sql, 'SELECT code, state FROM copy WHERE id = ?', [id]),

  ofDelivery: (sql: Sql, deliveryId: number) =>
    rows<{ id: number }>(sql, 'SELECT id FROM copy WHERE deliveryId = ? ORDER BY position', [deliveryId]),

  addressed: (sql: Sql, id: number) =>
    one<AddressedCopy>(sql, 'SELECT id, batchId, recordOrdinal, deliveryId, address, state FROM copy WHERE id = ?', [id]),

  whosePaperChanges: (sql: Sql, ids: readonly number[], wantsPaper: number, printable: readonly CopyState[]) =>
    rows<{ id: number }>(
      sql,
      `SELECT id FROM copy WHERE id ${dialect.inIds} AND state IN ('made', 'bounced', 'unconfirmed') AND wantsPaper = ? AND state ${dialect.inList}`,
      [JSON.stringify(ids), wantsPaper, JSON.stringify(printable)],
    ),

  setWantsPaper: (sql: Sql, wantsPaper: boolean, ids: readonly number[]) =>
    run(sql, `UPDATE copy SET wantsPaper = ? WHERE id ${dialect.inIds}`, [wantsPaper ? 1 : 0, JSON.stringify(ids)]),

  addressedAll: (sql: Sql, ids: readonly number[]) =>
    rows<AddressedCopy>(sql, `SELECT id, batchId, recordOrdinal, deliveryId, address, state FROM copy WHERE id ${dialect.inIds}`, [
      JSON.stringify(ids),
    ]),

  lastOf: async (sql: Sql, mailingId: number, state: string) =>
    (
      await withRemarks<{ mailingName: string; detail: Detail | null }>(
        rows(
          sql,
          'SELECT copy.mailingName, (SELECT detail FROM delivery WHERE delivery.id = copy.deliveryId) AS detail FROM copy WHERE copy.mailingId = ? AND copy.state = ? ORDER BY copy.id DESC LIMIT 1',
          [mailingId, state],
        ),
      )
    )[0],

  heldByOurSide: (sql: Sql) =>
    withRemarks<CopiesOfMailing>(
      rows(
        sql,
        `SELECT aside.mailingId, aside.mailingName, aside.count, delivery.detail FROM
         (SELECT mailingId, MAX(mailingName) AS mailingName, COUNT(*) AS count, MAX(deliveryId) AS deliveryId
          FROM copy WHERE trouble = 'our side' AND state = 'made' GROUP BY mailingId) AS aside
       LEFT JOIN delivery ON delivery.id = aside.deliveryId ORDER BY aside.count DESC`,
      ),
    ),

  waitingForPaper: (sql: Sql) => one<{ count: number }>(sql, 'SELECT COUNT(*) AS count FROM copy WHERE wantsPaper = 1'),

  noPaper: (sql: Sql, ids: readonly number[]) =>
    run(sql, `UPDATE copy SET wantsPaper = 0 WHERE id ${dialect.inIds}`, [JSON.stringify(ids)]),

  /** The copy that one replaces, with the day of its batch: the nearest before it of the same template for the same record. */
  replacedBy: (sql: Sql, code: string) =>
    one<{ code: string; on: string }>(
      sql,
      `SELECT beside.code, batch.today AS "on" FROM ${BESIDE} AND copy.code = ? AND beside.batchId < copy.batchId ORDER BY beside.id DESC LIMIT 1`,
      [code],
    ),
  /** All copies of a record, in the order of the packet. */
  ofRecord: (sql: Sql, mailingId: number, recordKey: string) =>
    rows<CopyOfRecord>(
      sql,
      'SELECT id, code, path, templateName, pages, state, sha256, batchId, recordOrdinal, position, recipient FROM copy WHERE mailingId = ? AND recordKey = ? ORDER BY batchId, position, part',
      [mailingId, recordKey],
    ),
  /** The last copy that a record got from a mailing. */
  lastOfRecord: (sql: Sql, mailingId: number, recordKey: string) =>
    one<{ id: number; code: string; batchId: number; batchNumber: number; recordOrdinal: number; since: string; on: string }>(
      sql,
      'SELECT id, code, batchId, batchNumber, recordOrdinal, since, (SELECT today FROM batch WHERE batch.id = copy.batchId) AS "on" FROM copy WHERE mailingId = ? AND recordKey = ? AND state <> \'planned\' ORDER BY id DESC LIMIT 1',
      [mailingId, recordKey],
    ),

  /** The copies of the same template for the same record that were made before and after a copy, the nearest ones. A record without a key is not known again. */
  async besides(sql: Sql, id: number): Promise<{ earlier: BesideCopy | null; later: BesideCopy | null }> {
    const beside = (than: string, order: string): Promise<BesideCopy | undefined> =>
      one<BesideCopy>(
        sql,
        `SELECT beside.id, beside.code, beside.batchId, beside.recordOrdinal, batch.startedAt AS at
         FROM ${BESIDE} AND copy.id = ? AND beside.batchId ${than} copy.batchId ORDER BY beside.id ${order} LIMIT 1`,
        [id],
      );
    return { earlier: (await beside('<', 'DESC')) ?? null, later: (await beside('>', 'ASC')) ?? null };
  },

  clearValues: (sql: Sql, batchId: number) => run(sql, "UPDATE copy SET metadata = NULL, recordKey = '' WHERE batchId = ?", [batchId]),

  pathsOfBatch: (sql: Sql, batchId: number, maximum: number) =>
    rows<{ id: number; path: string }>(sql, 'SELECT id, path FROM copy WHERE batchId = ? LIMIT ?', [batchId, maximum]),

  ofDeliveries: (sql: Sql, ids: readonly number[]) =>
    rows<{
      id: number;
    }>(sql, `SELECT id FROM copy WHERE deliveryId ${dialect.inIds}`, [JSON.stringify(ids)]),

  /** @returns how many changed */
  setState: (sql: Sql, ids: readonly number[], from: readonly CopyState[], to: CopyState, at: string) =>
    changed(sql, `UPDATE copy SET state = ?, since = ? WHERE id ${dialect.inIds} AND ${dialect.unindexed('state')} ${dialect.inList}`, [
      to,
      at,
      JSON.stringify(ids),
      JSON.stringify(from),
    ]),

  /** Where the trouble of copies sits; null: there is none any more. */
  setTrouble: (sql: Sql, ids: readonly number[], trouble: string | null, code: string | null) =>
    run(
      sql,
      `UPDATE copy SET trouble = ?, troubleCode = ? WHERE id ${dialect.inIds} AND (trouble IS DISTINCT FROM ? OR troubleCode IS DISTINCT FROM ?)`,
      [trouble, code, JSON.stringify(ids), trouble, code],
    ),

  /** Puts copies into an envelope. */
  setDelivery: (sql: Sql, ids: readonly number[], deliveryId: number, address: string) =>
    run(sql, `UPDATE copy SET deliveryId = ?, address = ?, wantsPaper = 0, trouble = NULL, troubleCode = NULL WHERE id ${dialect.inIds}`, [
      deliveryId,
      address,
      JSON.stringify(ids),
    ]),

  /** Copies that go in an envelope, or were in it: those that it took along as a reminder, too. */
  everIn: (sql: Sql, deliveryId: number) =>
    rows<{ id: number }>(
      sql,
      'SELECT id, position FROM copy WHERE deliveryId = ? UNION SELECT copy.id, copy.position FROM delivery_copy JOIN copy ON copy.id = delivery_copy.copyId WHERE delivery_copy.deliveryId = ? ORDER BY 2',
      [deliveryId, deliveryId],
    ),

  /** The files that go along with a delivery. @param onlySending those that are on their way now */
  filesOf: (sql: Sql, deliveryId: number, kind: 'copies' | 'reminder', onlySending: boolean) =>
    rows<{ code: string; path: string; sha256: string; recipient: string; position: number }>(
      sql,
      kind === 'reminder'
        ? 'SELECT copy.code, copy.path, copy.sha256, copy.recipient, copy.position FROM delivery_copy JOIN copy ON copy.id = delivery_copy.copyId WHERE delivery_copy.deliveryId = ? ORDER BY copy.position'
        : `SELECT code, path, sha256, recipient, position FROM copy WHERE deliveryId = ? ${onlySending ? "AND state = 'sending'" : ''} ORDER BY position`,
      [deliveryId],
    ),

  /** The copies that go in one envelope with this one and are in the same state. */
  together: (sql: Sql, copy: AddressedCopy) =>
    rows<{ id: number }>(
      sql,
      `SELECT id FROM copy WHERE batchId = ? AND recordOrdinal = ? AND state = ? AND deliveryId IS NOT DISTINCT FROM ? ORDER BY position`,
      [copy.batchId, copy.recordOrdinal, copy.state, copy.deliveryId],
    ),

  /** Records of a mailing with copies that were sent and are still out. All copies of one recipient must be out: who sent one back has answered. */
  out: (sql: Sql, mailingId: number) =>
    rows<{ batchId: number; recordOrdinal: number; address: string; copies: string; reminders: number; lastAt: string }>(
      sql,
      `SELECT copy.batchId, copy.recordOrdinal, MAX(copy.address) AS address, ${dialect.gathered('copy.id')} FILTER (WHERE copy.state = 'sent') AS copies,
         (SELECT COUNT(DISTINCT delivery_copy.deliveryId) FROM delivery_copy JOIN delivery ON delivery.id = delivery_copy.deliveryId WHERE delivery_copy.copyId = MIN(copy.id) AND delivery.kind = 'reminder') AS reminders,
         COALESCE((SELECT MAX(delivery.createdAt) FROM delivery_copy JOIN delivery ON delivery.id = delivery_copy.deliveryId WHERE delivery_copy.copyId = MIN(copy.id) AND delivery.kind = 'reminder'), MAX(copy.since)) AS lastAt
       FROM copy WHERE copy.mailingId = ? GROUP BY copy.batchId, copy.recordOrdinal HAVING COUNT(*) FILTER (WHERE copy.state = 'sent') > 0 AND COUNT(*) FILTER (WHERE copy.state IN ('returned', 'complete')) = 0 ORDER BY copy.batchId, copy.recordOrdinal`,
      [mailingId],
    ),

  /** Forgets copies with all that hangs on them. */
  async drop(sql: Sql, ids: readonly number[]): Promise<void> {
    for (const [table, column] of [
      ['copy_words', 'rowid'],
      ['copy_event', 'copyId'],
      ['delivery_copy', 'copyId'],
      ['print_run_copy', 'copyId'],
      ['copy', 'id'],
    ])
      await run(sql, `DELETE FROM ${table} WHERE ${column} ${dialect.inIds}`, [JSON.stringify(ids)]);
  },

  /** All of a copy that a person may look at. */
  detail: (sql: Sql, id: number) =>
    one<
      LedgerRow & {
        size: number;
        pages: number;
        sha256: string | null;
        row: number;
        recordOrdinal: number;
        deliveryId: number | null;
        metadata: string | null;
        isProtected: number;
      }
    >(
      sql,
      `SELECT ${LEDGER_COLUMNS}, copy.size, copy.pages, copy.sha256, copy.row, copy.recordOrdinal, copy.deliveryId, copy.metadata, copy.isProtected FROM copy WHERE copy.id = ?`,
      [id],
    ),

  /** Which of some places in the archive are taken. */
  takenPlaces: (sql: Sql, pathKeys: readonly string[]) =>
    rows<{ pathKey: string }>(sql, `SELECT pathKey FROM copy WHERE pathKey ${dialect.inList}`, [JSON.stringify(pathKeys)]),

  isTaken: async (sql: Sql, pathKey: string) => (await rows(sql, 'SELECT 1 FROM copy WHERE pathKey = ?', [pathKey])).length > 0,

  /** Writes down copies that are planned, and what the search finds them by: in two statements, since a call for each copy takes longer than writing it. */
  async addPlanned(
    sql: Sql,
    { id, number, mailingId, mailingName }: PlannedBatch,
    copies: readonly PlannedCopy[],
    now: string,
  ): Promise<void> {
    const values = copies.map((one) => [
      one.code,
      one.recordOrdinal,
      one.row,
      one.position,
      one.templateId,
      one.templateName,
      one.pages,
      one.recipient,
      one.address,
      one.path,
      one.pathKey,
      one.wantsPaper ? 1 : 0,
      one.isProtected ? 1 : 0,
      one.metadata,
      one.recordKey,
      one.part,
    ]);
    const places = Array.from({ length: 15 }, (_, index) => dialect.at('value', index + 1)).join(', ');
    await run(
      sql,
      `INSERT INTO copy (code, batchId, batchNumber, mailingId, mailingName, state, since, size, recordOrdinal, row, position, templateId, templateName, pages, recipient, address, path, pathKey, wantsPaper, isProtected, metadata, recordKey, part)
       SELECT ${dialect.at('value', 0)}, ?, ?, ?, ?, 'planned', ?, 0, ${places} FROM ${dialect.items('item')}`,
      [id, number, mailingId, mailingName, now, JSON.stringify(values)],
    );
    await run(
      sql,
      `INSERT INTO copy_words (rowid, text) SELECT copy.id, ${dialect.at('one.value', 1)} FROM ${dialect.items('one')} CROSS JOIN copy ON copy.code = ${dialect.at('one.value', 0)}`,
      [JSON.stringify(copies.map(({ code, search }) => [code, search]))],
    );
  },

  byCode: (sql: Sql, code: string) =>
    one<{ path: string; sha256: string | null; isProtected: number; part: number }>(
      sql,
      'SELECT path, sha256, isProtected, part FROM copy WHERE code = ?',
      [code],
    ),

  /** Copies of a stretch of records that are still to be made. */
  plannedBetween: (sql: Sql, batchId: number, from: number, to: number) =>
    rows<{ id: number; code: string; recordOrdinal: number; position: number; part: number; path: string }>(
      sql,
      "SELECT id, code, recordOrdinal, position, part, path FROM copy WHERE batchId = ? AND recordOrdinal >= ? AND recordOrdinal < ? AND state = 'planned' ORDER BY recordOrdinal, position, id",
      [batchId, from, to],
    ),
};
