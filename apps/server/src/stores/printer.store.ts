import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';

export const printerStore = {
  list: (sql: Sql) =>
    rows<{ id: number; name: string; uri: string }>(
      sql,
      `SELECT id, name, uri FROM printer WHERE deletedAt IS NULL ORDER BY ${dialect.caseless('name')}`,
    ),

  add: (sql: Sql, name: string, uri: string, now: string) =>
    run(sql, 'INSERT INTO printer (name, uri, createdAt) VALUES (?, ?, ?)', [name, uri, now]),

  set: (sql: Sql, id: number, name: string, uri: string) => run(sql, 'UPDATE printer SET name = ?, uri = ? WHERE id = ?', [name, uri, id]),

  drop: (sql: Sql, id: number) => run(sql, 'DELETE FROM printer WHERE id = ?', [id]),

  uri: (sql: Sql, id: number) => one<{ uri: string }>(sql, 'SELECT uri FROM printer WHERE id = ? AND deletedAt IS NULL', [id]),

  /** Of one in the wastebasket too: print runs tell where they went. */
  name: (sql: Sql, id: number) => one<{ name: string }>(sql, 'SELECT name FROM printer WHERE id = ?', [id]),
};
