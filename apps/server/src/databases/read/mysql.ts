import type { Readable } from 'node:stream';
import type { DatabaseTable } from '@mailbag/contract';
import { DataSource } from 'typeorm';
import type { QueryRunner } from 'typeorm';
import { databaseFailure } from './failures.js';
import { prepareQuery } from './query.js';
import type { DatabaseAccess, DatabaseReader, DatabaseRow } from './reader.js';
import { BLOCK, CONNECT_TIME, briefly, rowsUntilGone } from './reader.js';

/** Every value as the text that the server sends, so that no digit is lost; bytes that are no text are not shown. */
const asText = (field: { type: string; string(encoding?: string): string | null; buffer(): Buffer | null }): string | null =>
  ['BLOB', 'TINY_BLOB', 'MEDIUM_BLOB', 'LONG_BLOB', 'GEOMETRY'].includes(field.type) ? field.string('utf8') : field.string();

async function inTransaction<T>(access: DatabaseAccess, time: number, work: (runner: QueryRunner) => Promise<T>): Promise<T> {
  const database = new DataSource({
    type: 'mysql',
    host: access.host,
    port: access.port,
    database: access.databaseName,
    username: access.user,
    password: access.password,
    charset: 'utf8mb4',
    connectTimeout: CONNECT_TIME,
    logging: false,
    poolSize: 1,
    ...(access.tls ? { ssl: { rejectUnauthorized: true } } : {}),
    extra: { multipleStatements: false, dateStrings: true, supportBigNumbers: true, bigNumberStrings: true, typeCast: asText },
  });
  try {
    await database.initialize();
    const runner = database.createQueryRunner();
    try {
      // MariaDB counts in seconds, MySQL in milliseconds; each refuses the other's name.
      await runner
        .query(`SET SESSION max_statement_time = ${time / 1000}`)
        .catch(() => runner.query(`SET SESSION max_execution_time = ${time}`));
      await runner.query('START TRANSACTION READ ONLY');
      return await work(runner);
    } finally {
      await briefly(runner.query('ROLLBACK').then(() => runner.release()));
    }
  } catch (error) {
    throw databaseFailure(error, access.host);
  } finally {
    if (database.isInitialized) await briefly(database.destroy());
  }
}

export const mysqlReader = (access: DatabaseAccess): DatabaseReader => ({
  tables: () =>
    inTransaction(access, CONNECT_TIME, async (runner) => {
      const rows = (await runner.query(
        `SELECT table_name AS name, column_name AS column_name, data_type AS type FROM information_schema.columns WHERE table_schema = DATABASE() ORDER BY table_name, ordinal_position LIMIT 20000`,
      )) as { name: string; column_name: string; type: string }[];
      const tables = new Map<string, DatabaseTable>();
      for (const { name, column_name: column, type } of rows) {
        const table = tables.get(name) ?? { schema: null, name, columns: [] };
        table.columns.push({ name: column, type });
        tables.set(name, table);
      }
      return [...tables.values()];
    }),
  read: (sql, parameters, limits, onNames, onRows) =>
    inTransaction(access, limits.time, async (runner) => {
      const { sql: text, values } = prepareQuery(sql, parameters, () => '?');
      let names: string[] | null = null;
      let block: DatabaseRow[] = [];
      let count = 0;
      const stream = await new Promise<Readable>(
        (resolve, reject) => void runner.stream(text, values, undefined, undefined).then((one) => resolve(one as Readable), reject),
      );
      const rows = rowsUntilGone(stream as AsyncIterable<Record<string, string | null>>, await runner.connect());
      stream.once('fields', (fields: { name: string }[]) => onNames((names = fields.map(({ name }) => name))));
      for await (const row of rows) {
        if (!names) onNames((names = Object.keys(row)));
        if (++count > limits.rows) {
          onRows(block);
          stream.destroy();
          return false;
        }
        block.push(names.map((name) => row[name] ?? null));
        if (block.length >= BLOCK) onRows(block.splice(0));
      }
      if (!names) onNames([]);
      if (block.length > 0) onRows(block);
      block = [];
      return true;
    }),
});
