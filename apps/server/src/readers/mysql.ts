import type { Readable } from 'node:stream';
import { DataSource } from 'typeorm';
import type { QueryRunner } from 'typeorm';
import { prepareQuery } from './query.js';
import type { DatabaseAccess, DatabaseReader } from './reader.js';
import { CONNECT_TIME } from './reader.js';
import { readOnlySession, streamRows, tablesOf } from './server-session.js';

/** Every value as the text that the server sends, so that no digit is lost. */
const asText = (field: { type: string; string(encoding?: string): string | null }): string | null =>
  ['BLOB', 'TINY_BLOB', 'MEDIUM_BLOB', 'LONG_BLOB', 'GEOMETRY'].includes(field.type) ? field.string('utf8') : field.string();

function inTransaction<T>(access: DatabaseAccess, time: number, work: (runner: QueryRunner) => Promise<T>): Promise<T> {
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
  const begin = async (runner: QueryRunner): Promise<void> => {
    // MariaDB counts in seconds, MySQL in milliseconds; each refuses the other's name.
    await runner
      .query(`SET SESSION max_statement_time = ${time / 1000}`)
      .catch(() => runner.query(`SET SESSION max_execution_time = ${time}`));
    await runner.query('START TRANSACTION READ ONLY');
  };
  return readOnlySession(database, access.host, begin, work);
}

/** The stream of mysql2 tells the columns in an event before the rows. */
const namesOf = (stream: Readable) => {
  let names: string[] | undefined;
  stream.once('fields', (fields: { name: string }[]) => (names = fields.map(({ name }) => name)));
  return (): string[] | undefined => names;
};

export const mysqlReader = (access: DatabaseAccess): DatabaseReader => ({
  tables: () =>
    inTransaction(access, CONNECT_TIME, async (runner) => {
      const rows = (await runner.query(
        `SELECT table_name AS name, column_name AS column_name, data_type AS type FROM information_schema.columns WHERE table_schema = DATABASE() ORDER BY table_name, ordinal_position LIMIT 20000`,
      )) as { name: string; column_name: string; type: string }[];
      return tablesOf(rows.map(({ name, column_name: column, type }) => ({ schema: null, name, column, type })));
    }),
  read: (sql, parameters, { rows, time }, onNames, onRows) =>
    inTransaction(access, time, (runner) =>
      streamRows(
        runner,
        prepareQuery(sql, parameters, () => '?'),
        rows,
        namesOf,
        onNames,
        onRows,
      ),
    ),
});
