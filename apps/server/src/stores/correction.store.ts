import type { CorrectionAnswer } from '@mailbag/contract';
import type { Cell } from '@mailbag/core';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';
import type { Principal } from '../platform/principal.js';
import { principalKey } from '../platform/principal.js';

/** A correction as it is kept; `was` and `value` are cells as JSON. */
export interface CorrectionRow {
  id: number;
  sourceId: number;
  recordKey: string;
  row: number;
  columnName: string;
  was: string;
  value: string;
  state: CorrectionAnswer['state'];
  who: string;
  principal: string;
  at: string;
  step: string;
}

/** A correction before it is written down. */
export interface NewCorrection {
  recordKey: string;
  row: number;
  column: string;
  was: Cell;
  value: Cell;
}

export const correctionStore = {
  ofSource: (sql: Sql, sourceId: number) =>
    rows<CorrectionRow>(sql, "SELECT * FROM correction WHERE sourceId = ? AND state != 'undone' ORDER BY id DESC LIMIT 5000", [sourceId]),

  activeAt: (sql: Sql, sourceId: number, row: number, column: string) =>
    one<CorrectionRow>(sql, "SELECT * FROM correction WHERE sourceId = ? AND row = ? AND columnName = ? AND state = 'active'", [
      sourceId,
      row,
      column,
    ]),

  undo: (sql: Sql, ids: readonly number[]) =>
    run(sql, `UPDATE correction SET state = 'undone' WHERE id ${dialect.inIds}`, [JSON.stringify(ids)]),

  /** Writes the corrections of one step down. */
  add: (
    sql: Sql,
    sourceId: number,
    corrections: readonly NewCorrection[],
    { who, at, step }: { who: Principal; at: string; step: string },
  ) =>
    run(
      sql,
      `INSERT INTO correction (sourceId, recordKey, row, columnName, was, value, state, who, principal, at, step)
       SELECT CAST(? AS INTEGER), ${dialect.at('one.value', 0)}, CAST(${dialect.at('one.value', 1)} AS INTEGER), ${dialect.at('one.value', 2)},
         ${dialect.at('one.value', 3)}, ${dialect.at('one.value', 4)}, 'active', ?, ?, ?, ? FROM ${dialect.items('one')} ORDER BY one.key`,
      [
        sourceId,
        who.name,
        principalKey(who),
        at,
        step,
        JSON.stringify(corrections.map((one) => [one.recordKey, one.row, one.column, JSON.stringify(one.was), JSON.stringify(one.value)])),
      ],
    ),

  ofColumn: (sql: Sql, sourceId: number, column: string) =>
    rows<{ row: number; was: string }>(sql, "SELECT row, was FROM correction WHERE sourceId = ? AND columnName = ? AND state = 'active'", [
      sourceId,
      column,
    ]),

  activeCount: (sql: Sql, sourceId: number) =>
    one<{ count: number }>(sql, "SELECT COUNT(*) AS count FROM correction WHERE sourceId = ? AND state = 'active'", [sourceId]),

  ofRows: (sql: Sql, sourceId: number, places: readonly number[]) =>
    rows<CorrectionRow>(sql, `SELECT * FROM correction WHERE sourceId = ? AND state = 'active' AND row ${dialect.inIds}`, [
      sourceId,
      JSON.stringify(places),
    ]),

  renameColumn: (sql: Sql, to: string, sourceId: number, from: string) =>
    run(
      sql,
      "UPDATE correction SET columnName = ?, state = CASE state WHEN 'unfit' THEN 'active' ELSE state END WHERE sourceId = ? AND columnName = ?",
      [to, sourceId, from],
    ),

  dropOfSource: (sql: Sql, sourceId: number) => run(sql, 'DELETE FROM correction WHERE sourceId = ?', [sourceId]),

  /** Those that hold, one of them or all of a step. */
  active: (sql: Sql, sourceId: number, by: { id: number } | { step: string }) =>
    rows<CorrectionRow>(sql, `SELECT * FROM correction WHERE sourceId = ? AND state = 'active' AND ${'id' in by ? 'id = ?' : 'step = ?'}`, [
      sourceId,
      'id' in by ? by.id : by.step,
    ]),

  /** Those that hold, in the order in which they were made. */
  activeOf: (sql: Sql, sourceId: number) =>
    rows<CorrectionRow>(sql, "SELECT * FROM correction WHERE sourceId = ? AND state = 'active' ORDER BY id", [sourceId]),

  settle: (sql: Sql, id: number, state: CorrectionRow['state'], row: number) =>
    run(sql, 'UPDATE correction SET state = ?, row = ? WHERE id = ?', [state, row, id]),
};
