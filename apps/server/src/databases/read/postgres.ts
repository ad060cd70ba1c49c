import type { Readable } from 'node:stream';
import type { DatabaseTable } from '@mailbag/contract';
import { DataSource } from 'typeorm';
import type { QueryRunner } from 'typeorm';
import { databaseFailure } from './failures.js';
import { prepareQuery } from './query.js';
import type { DatabaseAccess, DatabaseReader, DatabaseRow, QueryLimits } from './reader.js';
import { BLOCK, CONNECT_TIME, briefly, rowsUntilGone } from './reader.js';

/** OID of boolean (pg_type): written out as people do. Everything else is text as the database writes it, so that no digit is lost. */
const BOOL = 16;
const BYTEA = 17;
const parserFor = (oid: number) => (value: string | Buffer | null) =>
  value === null ? null : oid === BOOL ? (String(value) === 't' ? 'true' : 'false') : oid === BYTEA ? '(binary)' : String(value);

async function inTransaction<T>(access: DatabaseAccess, time: number, work: (runner: QueryRunner) => Promise<T>): Promise<T> {
  const database = new DataSource({
    type: 'postgres',
    host: access.host,
    port: access.port,
    database: access.databaseName,
    username: access.user,
    password: access.password,
    ssl: access.tls ? { rejectUnauthorized: true } : false,
    connectTimeoutMS: CONNECT_TIME,
    installExtensions: false,
    logging: false,
    poolSize: 1,
    applicationName: 'Mailbag',
    // The pool tells of connections that broke while idle; whoever reads is told by the reading itself.
    poolErrorHandler: () => undefined,
    extra: { types: { getTypeParser: parserFor }, query_timeout: time + 5000, keepAlive: true },
  });
  try {
    await database.initialize();
    const runner = database.createQueryRunner();
    try {
      await runner.query('BEGIN READ ONLY');
      await runner.query(`SET LOCAL statement_timeout = ${time}`);
      await runner.query(`SET LOCAL datestyle = 'ISO, YMD'`);
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

export const postgresReader = (access: DatabaseAccess): DatabaseReader => ({
  tables: () =>
    inTransaction(access, CONNECT_TIME, async (runner) => {
      const rows = (await runner.query(
        `SELECT table_schema AS schema, table_name AS name, column_name AS column, data_type AS type FROM information_schema.columns
         WHERE table_schema NOT IN ('pg_catalog', 'information_schema') ORDER BY table_schema, table_name, ordinal_position LIMIT 20000`,
      )) as { schema: string; name: string; column: string; type: string }[];
      const tables = new Map<string, DatabaseTable>();
      for (const { schema, name, column, type } of rows) {
        const key = `${schema}.${name}`;
        const table = tables.get(key) ?? { schema, name, columns: [] };
        table.columns.push({ name: column, type });
        tables.set(key, table);
      }
      return [...tables.values()];
    }),
  read: (sql, parameters, limits: QueryLimits, onNames, onRows) =>
    inTransaction(access, limits.time, async (runner) => {
      const { sql: text, values } = prepareQuery(sql, parameters, (place) => `$${place}`);
      // The stream asks through a cursor in the extended protocol, in which there is one statement only.
      const stream = (await runner.stream(text, values)) as Readable & { cursor?: { _result?: { fields: { name: string }[] } } };
      const rows = rowsUntilGone(stream as AsyncIterable<Record<string, string | null>>, await runner.connect());
      let names: string[] | null = null;
      let block: DatabaseRow[] = [];
      let count = 0;
      const head = (): string[] => {
        if (!names) onNames((names = (stream.cursor?._result?.fields ?? []).map(({ name }) => name)));
        return names;
      };
      for await (const row of rows) {
        const columns = head();
        if (++count > limits.rows) {
          onRows(block);
          stream.destroy();
          return false;
        }
        block.push(columns.map((name) => row[name] ?? null));
        if (block.length >= BLOCK) onRows(block.splice(0));
      }
      head();
      if (block.length > 0) onRows(block);
      block = [];
      return true;
    }),
});
