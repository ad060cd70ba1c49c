import type { Readable } from 'node:stream';
import { DataSource } from 'typeorm';
import type { QueryRunner } from 'typeorm';
import { prepareQuery } from './query.js';
import type { DatabaseAccess, DatabaseReader } from './reader.js';
import { CONNECT_TIME } from './reader.js';
import { readOnlySession, streamRows, tablesOf } from './server-session.js';

/** OID of boolean and bytea (pg_type): written out as people do. Everything else is text as the database writes it, so that no digit is lost. */
const BOOL = 16;
const BYTEA = 17;
const parserFor = (oid: number) => (value: string | Buffer | null) =>
  value === null ? null : oid === BOOL ? (String(value) === 't' ? 'true' : 'false') : oid === BYTEA ? '(binary)' : String(value);

function inTransaction<T>(access: DatabaseAccess, time: number, work: (runner: QueryRunner) => Promise<T>): Promise<T> {
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
  const begin = async (runner: QueryRunner): Promise<void> => {
    await runner.query('BEGIN READ ONLY');
    await runner.query(`SET LOCAL statement_timeout = ${time}`);
    await runner.query(`SET LOCAL datestyle = 'ISO, YMD'`);
  };
  return readOnlySession(database, access.host, begin, work);
}

/** The cursor of pg-query-stream knows the columns of its rows. */
const namesOf = (stream: Readable) => (): string[] | undefined =>
  (stream as Readable & { cursor?: { _result?: { fields: { name: string }[] } } }).cursor?._result?.fields.map(({ name }) => name);

export const postgresReader = (access: DatabaseAccess): DatabaseReader => ({
  tables: () =>
    inTransaction(access, CONNECT_TIME, async (runner) =>
      tablesOf(
        (await runner.query(
          `SELECT table_schema AS schema, table_name AS name, column_name AS column, data_type AS type FROM information_schema.columns
           WHERE table_schema NOT IN ('pg_catalog', 'information_schema') ORDER BY table_schema, table_name, ordinal_position LIMIT 20000`,
        )) as Parameters<typeof tablesOf>[0],
      ),
    ),
  // The stream asks through a cursor in the extended protocol, in which there is one statement only.
  read: (sql, parameters, { rows, time }, onNames, onRows) =>
    inTransaction(access, time, (runner) =>
      streamRows(
        runner,
        prepareQuery(sql, parameters, (place) => `$${place}`),
        rows,
        namesOf,
        onNames,
        onRows,
      ),
    ),
});
