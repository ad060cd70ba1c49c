import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DataSource } from 'typeorm';
import { dataSourceOptions } from '../apps/server/src/data-source.js';
import { overPostgres } from '../apps/server/src/persistence/dialect/postgres.js';
import type { Sql } from '../apps/server/src/persistence/sql.js';
import { DatabaseServer } from './database-servers.js';

/** The server's database with all its tables, in a folder of its own. */
export async function ownDatabase(): Promise<{ database: DataSource; close: () => Promise<void> }> {
  const folder = mkdtempSync(join(tmpdir(), 'mailbag-database-'));
  const database = await new DataSource({ ...dataSourceOptions(), database: join(folder, 'mailbag.sqlite') } as ReturnType<
    typeof dataSourceOptions
  >).initialize();
  return {
    database,
    close: async () => {
      await database.destroy();
      rmSync(folder, { recursive: true, force: true });
    },
  };
}

/** Tables of the server on a PostgreSQL server: those that are named, with the columns that they have in SQLite. */
export async function ownPostgres(tables: readonly string[]): Promise<{ sql: Sql; close: () => Promise<void> }> {
  const server = await DatabaseServer.postgres();
  // COUNT gives 64 bits, which come as text.
  (await import('pg')).types.setTypeParser(20, Number);
  const { port } = server;
  const database = await new DataSource({
    type: 'postgres',
    host: '127.0.0.1',
    port,
    username: 'office',
    password: 'plots',
    database: 'postgres',
  }).initialize();
  const { database: like, close } = await ownDatabase();
  for (const table of tables) {
    const columns = (await like.query('SELECT name, type, "notnull" AS filled, pk FROM pragma_table_info(?)', [table])) as {
      name: string;
      type: string;
      filled: number;
      pk: number;
    }[];
    const unique = (await like.query(
      "SELECT group_concat(info.name) AS names FROM pragma_index_list(?) AS list, pragma_index_info(list.name) AS info WHERE list.origin = 'u' GROUP BY list.name",
      [table],
    )) as { names: string }[];
    const lines = columns.map(({ name, type, filled, pk }) =>
      pk === 1 && name === 'id'
        ? '"id" SERIAL PRIMARY KEY'
        : `"${name}" ${type === 'INTEGER' ? 'BIGINT' : type}${filled ? ' NOT NULL' : ''}`,
    );
    const keys = unique.map(
      ({ names }) =>
        `UNIQUE (${names
          .split(',')
          .map((name) => `"${name}"`)
          .join(', ')})`,
    );
    await database.query(`CREATE TABLE "${table}" (${[...lines, ...keys].join(', ')})`);
  }
  await close();
  return {
    sql: overPostgres(database),
    close: async () => {
      await database.destroy();
      await server.close();
    },
  };
}
