import Database from 'libsql';
import type { Connection } from 'mysql2/promise';
import { fileKey, placeFor } from '../files/file-key.js';
import type { RegisterLine, RegisterWriter } from './register-line.js';
import { registerColumns } from './register-line.js';

export interface RegisterAccess {
  host: string;
  port: number;
  databaseName: string;
  table: string;
  user: string;
  password: string;
  tls: boolean;
}

const TIMEOUT = 10_000;
const rest = registerColumns.filter((column) => column !== 'code');
const valuesOf = (line: RegisterLine): (string | number | null)[] => registerColumns.map((column) => line[column]);
const types = (text: string, key: string, number: string): string =>
  registerColumns
    .map(
      (column) =>
        `${column} ${column === 'code' ? `${key} NOT NULL PRIMARY KEY` : column === 'batch' || column === 'change_number' ? number : text}`,
    )
    .join(', ');

/** PostgreSQL: one row a copy, replaced by each later change. */
export async function postgresRegister({ host, port, databaseName, table, user, password, tls }: RegisterAccess): Promise<RegisterWriter> {
  const { default: pg } = await import('pg');
  const client = new pg.Client({
    host,
    port,
    database: databaseName,
    user,
    password,
    ssl: tls ? { rejectUnauthorized: true } : false,
    connectionTimeoutMillis: TIMEOUT,
    query_timeout: TIMEOUT,
    statement_timeout: TIMEOUT,
  });
  client.on('error', () => undefined);
  await client.connect();
  const name = `"${table}"`;
  await client.query(`CREATE TABLE IF NOT EXISTS ${name} (${types('TEXT', 'TEXT', 'BIGINT')})`);
  const sql = `INSERT INTO ${name} (${registerColumns.join(', ')}) VALUES (${registerColumns.map((_, index) => `$${index + 1}`).join(', ')})
    ON CONFLICT (code) DO UPDATE SET ${rest.map((column) => `${column} = EXCLUDED.${column}`).join(', ')} WHERE ${name}.change_number <= EXCLUDED.change_number`;
  return {
    async write(lines) {
      await client.query('BEGIN');
      for (const line of lines) await client.query(sql, valuesOf(line));
      await client.query('COMMIT');
    },
    close: () => client.end().catch(() => undefined),
  };
}

/** MySQL and MariaDB. */
export async function mysqlRegister({ host, port, databaseName, table, user, password, tls }: RegisterAccess): Promise<RegisterWriter> {
  const { createConnection } = await import('mysql2/promise');
  const client: Connection = await createConnection({
    host,
    port,
    database: databaseName,
    user,
    password,
    ...(tls ? { ssl: {} } : {}),
    connectTimeout: TIMEOUT,
    charset: 'utf8mb4',
  });
  client.on('error', () => undefined);
  await client.query(`CREATE TABLE IF NOT EXISTS \`${table}\` (${types('TEXT', 'VARCHAR(32)', 'BIGINT')}) CHARACTER SET utf8mb4`);
  // Each column keeps its value when the change is an older one; the number itself comes last, since the others look at it.
  const later = [...rest.filter((column) => column !== 'change_number'), 'change_number'];
  const sql = `INSERT INTO \`${table}\` (${registerColumns.map((column) => `\`${column}\``).join(', ')}) VALUES (${registerColumns.map(() => '?').join(', ')})
    ON DUPLICATE KEY UPDATE ${later.map((column) => `\`${column}\` = IF(\`change_number\` <= VALUES(\`change_number\`), VALUES(\`${column}\`), \`${column}\`)`).join(', ')}`;
  return {
    async write(lines) {
      await client.beginTransaction();
      for (const line of lines) await client.execute({ sql, timeout: TIMEOUT }, valuesOf(line));
      await client.commit();
    },
    close: () => client.end().catch(() => undefined),
  };
}

/** A SQLite file in the data folder, below `registers`. */
export function sqliteRegister({ table }: RegisterAccess): RegisterWriter {
  const database = new Database(placeFor(fileKey('registers', `${table}.sqlite`)));
  database.pragma('journal_mode = WAL');
  database.pragma('busy_timeout = 5000');
  database.exec(`CREATE TABLE IF NOT EXISTS copies (${types('TEXT', 'TEXT', 'INTEGER')})`);
  const insert = database.prepare(
    `INSERT INTO copies (${registerColumns.join(', ')}) VALUES (${registerColumns.map(() => '?').join(', ')})
     ON CONFLICT (code) DO UPDATE SET ${rest.map((column) => `${column} = excluded.${column}`).join(', ')} WHERE change_number <= excluded.change_number`,
  );
  return {
    write: (lines) => Promise.resolve(database.transaction(() => lines.forEach((line) => insert.run(valuesOf(line))))()),
    close: () => Promise.resolve(void database.close()),
  };
}
