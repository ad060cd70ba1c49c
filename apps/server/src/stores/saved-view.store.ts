import type { SavedView } from '@mailbag/contract';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { rows, run } from '../persistence/sql.js';

export const savedViewStore = {
  ofAccount: (sql: Sql, accountId: number) =>
    rows<SavedView>(
      sql,
      `SELECT id, name, filter FROM saved_view WHERE accountId = ? AND deletedAt IS NULL ORDER BY ${dialect.caseless('name')}`,
      [accountId],
    ),

  dropNamed: (sql: Sql, accountId: number, name: string) =>
    run(sql, 'DELETE FROM saved_view WHERE accountId = ? AND name = ? AND deletedAt IS NULL', [accountId, name]),

  add: (sql: Sql, accountId: number, name: string, filter: string, now: string) =>
    run(sql, 'INSERT INTO saved_view (accountId, name, filter, createdAt) VALUES (?, ?, ?, ?)', [accountId, name, filter, now]),

  rename: (sql: Sql, id: number, accountId: number, name: string) =>
    run(sql, 'UPDATE saved_view SET name = ? WHERE id = ? AND accountId = ?', [name, id, accountId]),

  drop: (sql: Sql, id: number) => run(sql, 'DELETE FROM saved_view WHERE id = ?', [id]),
};
