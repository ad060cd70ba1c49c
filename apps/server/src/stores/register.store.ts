import type { RegisterKind } from '@mailbag/contract';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';

export interface RegisterRow {
  id: number;
  name: string;
  kind: RegisterKind;
  /** As JSON. */
  settings: string;
  sealed: string;
  /** Ids of the mailings that it is told of, as JSON; null: of all. */
  mailings: string | null;
  /** The last event that it was told. */
  position: number;
  tries: number;
  nextTryAt: string;
  failure: string | null;
  reportedAt: string | null;
  paused: number;
}
type RegisterValues = Pick<RegisterRow, 'name' | 'kind' | 'settings' | 'sealed' | 'mailings'> & { paused: boolean };

export const registerStore = {
  inTrouble: (sql: Sql) =>
    rows<{ name: string; failure: string }>(
      sql,
      'SELECT name, failure FROM register WHERE failure IS NOT NULL AND paused = 0 AND deletedAt IS NULL',
    ),

  due: (sql: Sql, now: string, far: string) =>
    rows<RegisterRow>(sql, 'SELECT * FROM register WHERE paused = 0 AND deletedAt IS NULL AND (nextTryAt <= ? OR nextTryAt > ?)', [
      now,
      far,
    ]),

  reported: (sql: Sql, position: number, now: string, id: number) =>
    run(sql, 'UPDATE register SET position = ?, tries = 0, failure = NULL, reportedAt = ? WHERE id = ?', [position, now, id]),

  failed: (sql: Sql, tries: number, failure: string, next: string, id: number) =>
    run(sql, 'UPDATE register SET tries = ?, failure = ?, nextTryAt = ? WHERE id = ?', [tries, failure, next, id]),

  list: (sql: Sql) => rows<RegisterRow>(sql, `SELECT * FROM register WHERE deletedAt IS NULL ORDER BY ${dialect.caseless('name')}`),

  byId: (sql: Sql, id: number) => one<RegisterRow>(sql, 'SELECT * FROM register WHERE id = ? AND deletedAt IS NULL', [id]),

  drop: (sql: Sql, id: number) => run(sql, 'DELETE FROM register WHERE id = ?', [id]),

  add: (sql: Sql, { name, kind, settings, sealed, mailings, paused }: RegisterValues, now: string) =>
    run(
      sql,
      'INSERT INTO register (name, kind, settings, sealed, mailings, paused, position, tries, nextTryAt, createdAt) VALUES (?, ?, ?, ?, ?, ?, 0, 0, ?, ?)',
      [name, kind, settings, sealed, mailings, paused ? 1 : 0, now, now],
    ),

  set: (sql: Sql, id: number, { name, kind, settings, sealed, mailings, paused }: RegisterValues, now: string) =>
    run(
      sql,
      'UPDATE register SET name = ?, kind = ?, settings = ?, sealed = ?, mailings = ?, paused = ?, tries = 0, failure = NULL, nextTryAt = ? WHERE id = ?',
      [name, kind, settings, sealed, mailings, paused ? 1 : 0, now, id],
    ),
};
