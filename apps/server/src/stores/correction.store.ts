import type { CorrectionAnswer } from '@mailbag/contract';
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

export const correctionStore = {
  ofSource: (sql: Sql, sourceId: number) =>
    rows<CorrectionRow>(sql, "SELECT * FROM correction WHERE sourceId = ? AND state != 'undone' ORDER BY id DESC LIMIT 5000", [sourceId]),

  activeAt: (sql: Sql, sourceId: number, row: number, column: string) =>
    one<CorrectionRow>(sql, "SELECT * FROM correction WHERE sourceId = ? AND row = ? AND columnName = ? AND state = 'active'", [
      sourceId,
      row,
      column,
    ]),

  undo: (sql: Sql, id: number) => run(sql, "UPDATE correction SET state = 'undone' WHERE id = ?", [id]),

  add: (
    sql: Sql,
    sourceId: number,
    recordKey: string,
    row: number,
    column: string,
    was: unknown,
    value: unknown,
    who: Principal,
    at: string,
    step: string,
  ) =>
    run(
      sql,
      "INSERT INTO correction (sourceId, recordKey, row, columnName, was, value, state, who, principal, at, step) VALUES (?, ?, ?, ?, ?, ?, 'active', ?, ?, ?, ?)",
      [sourceId, recordKey, row, column, JSON.stringify(was), JSON.stringify(value), who.name, principalKey(who), at, step],
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
