import type { Sql } from '../sql.js';
import type { Dialect } from './dialect.js';

const path = (keys: readonly (string | number)[]): string =>
  `'$${keys.map((key) => (typeof key === 'number' ? `[${key}]` : `.${key}`)).join('')}'`;

/** SQLite: its JSON functions, FTS5, and the collation NOCASE. */
export const sqlite: Dialect = {
  inList: 'IN (SELECT value FROM json_each(?))',
  inIds: 'IN (SELECT value FROM json_each(?))',
  items: (name) => `json_each(?) AS ${name}`,
  at: (json, ...keys) => `json_extract(${json}, ${path(keys)})`,
  withAt: (json, ...keys) => `json_set(${json}, ${path(keys)}, json(?))`,
  each: (json, name, ...keys) => `json_each(${json}, ${path(keys)}) AS ${name}`,
  gathered: (column) => `json_group_array(${column})`,
  lines: (column) => `group_concat(${column}, char(10))`,
  caseless: (column) => `${column} COLLATE NOCASE`,
  greater: (one, other) => `MAX(${one}, ${other})`,
  unindexed: (column) => `+${column}`,
  byIndex: (index) => `INDEXED BY ${index}`,
  matches: (words) => `${words} MATCH ?`,
  written: (text) => text,
};

/** Gives free pages of the file back and empties the log (PRAGMA incremental_vacuum and wal_checkpoint). */
export async function giveRoomBack(sql: Sql): Promise<void> {
  await sql.query('PRAGMA incremental_vacuum');
  await sql.query('PRAGMA wal_checkpoint(TRUNCATE)');
}

/** Carries the log into the database as far as nobody is held up by it, so that it begins anew (PRAGMA wal_checkpoint). */
export async function carryLogOver(sql: Sql): Promise<void> {
  await sql.query('PRAGMA wal_checkpoint(PASSIVE)');
}
