import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';

export const printerStore = {
  list: (sql: Sql) =>
    rows<{ id: number; name: string; uri: string }>(sql, `SELECT id, name, uri FROM printer ORDER BY ${dialect.caseless('name')}`),

  add: (sql: Sql, name: string, uri: string, now: string) =>
    run(sql, 'INSERT INTO printer (name, uri, createdAt) VALUES (?, ?, ?)', [name, uri, now]),

  drop: (sql: Sql, id: number) => run(sql, 'DELETE FROM printer WHERE id = ?', [id]),

  uri: (sql: Sql, id: number) => one<{ uri: string }>(sql, 'SELECT uri FROM printer WHERE id = ?', [id]),

  name: (sql: Sql, id: number) => one<{ name: string }>(sql, 'SELECT name FROM printer WHERE id = ?', [id]),
};
