import { mysqlReader } from './mysql.js';
import { postgresReader } from './postgres.js';
import type { DatabaseAccess, DatabaseReader } from './reader.js';
import { quoted } from './reader.js';
import { sqliteReader } from './sqlite.js';

const readers: Record<DatabaseAccess['kind'], (access: DatabaseAccess) => DatabaseReader> = {
  sqlite: sqliteReader,
  postgres: postgresReader,
  mysql: mysqlReader,
};

export const openDatabase = (access: DatabaseAccess): DatabaseReader => readers[access.kind](access);

/** The query that reads a whole table. */
export const tableQuery = (kind: DatabaseAccess['kind'], schema: string | null, name: string): string =>
  `SELECT * FROM ${quoted(kind === 'mysql' ? '`' : '"', ...(schema === null ? [] : [schema]), name)}`;
