import mysql from 'mysql2/promise';
import pg from 'pg';
import { waitingList } from '../../../../demo/src/waiting-list.js';
import type { MailingDetail, SourceSummary } from '@mailbag/contract';
import { DatabaseServer } from '../../../../testing/database-servers.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';
import { parameterNames } from '@mailbag/core';
import { prepareQuery } from '../readers/query.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

const mailbag = new RunningMailbag();
let postgres: DatabaseServer;
let mariadb: DatabaseServer;
beforeAll(async () => {
  [postgres, mariadb] = await Promise.all([DatabaseServer.postgres(), DatabaseServer.mariadb()]);
  await mailbag.start();
  await mailbag.setUp();
  const client = new pg.Client({ host: '127.0.0.1', port: postgres.port, user: 'office', password: 'plots', database: 'postgres' });
  await client.connect();
  await client.query(
    'CREATE TABLE tenant (id bigint PRIMARY KEY, name text, rent numeric(20,2), born date, active boolean, account text, seen timestamptz); CREATE SCHEMA old; CREATE TABLE old.note (id int)',
  );
  await client.query(
    "INSERT INTO tenant VALUES (9007199254740993, 'Łucja', 164.50, '1961-03-14', true, '0049', '2027-01-02 03:04:05+00'), (2, 'O''Derry; DROP', 12345678901234567.89, NULL, false, NULL, NULL)",
  );
  await client.end();
  const connection = await mysql.createConnection({ host: '127.0.0.1', port: mariadb.port, user: 'root' });
  await connection.query('CREATE DATABASE office CHARACTER SET utf8mb4');
  await connection.query("CREATE USER 'reader'@'%' IDENTIFIED BY 'plots'");
  await connection.query("GRANT ALL ON office.* TO 'reader'@'%'");
  await connection.query('CREATE TABLE office.tenant (id BIGINT PRIMARY KEY, name VARCHAR(100), rent DECIMAL(20,2), born DATE)');
  await connection.query(
    "INSERT INTO office.tenant VALUES (9007199254740993, '李雷 😀', 12345678901234567.89, '1961-03-14'), (2, NULL, 1.50, NULL)",
  );
  await connection.end();
});
afterAll(async () => {
  await mailbag.close();
  await Promise.all([postgres?.close(), mariadb?.close()]);
});

type Connection = { id: number };
const connect = (more: object): Promise<Connection> =>
  mailbag.client.send('POST', '/api/connections', {
    name: 'Office',
    host: '127.0.0.1',
    tls: false,
    user: 'office',
    password: 'plots',
    databaseName: 'postgres',
    kind: 'postgres',
    port: postgres.port,
    ...more,
  });
const onMariadb = (): object => ({ kind: 'mysql', port: mariadb.port, user: 'reader', databaseName: 'office' });
type Excerpt = { columns: { name: string; kind: string }[]; rows: string[][]; count: number };
const ask = (id: number, sql: string, parameters = {}): Promise<Excerpt> =>
  mailbag.client.send('POST', `/api/connections/${id}/excerpt`, { sql, parameters });
const readSource = async (connectionId: number, sql: string) => {
  const { id } = await mailbag.client.send<{ id: number }>('POST', '/api/sources', {
    name: 'Tenants',
    query: { connectionId, sql, parameters: {} },
    reading: {},
  });
  return mailbag.client.until<{ id: number; state: string; count: number; error: { message: string } | null }>(
    `/api/sources/${id}`,
    ({ state }) => state !== 'reading',
  );
};

test('PostgreSQL: tables, an excerpt with no digit lost, parameters, the password never sent back', async () => {
  const { id } = await connect({});
  const tables = await mailbag.client.get<{ schema: string; name: string; columns: { name: string; type: string }[] }[]>(
    `/api/connections/${id}/tables`,
  );
  expect(tables.map(({ schema, name }) => `${schema}.${name}`)).toEqual(['old.note', 'public.tenant']);
  const { columns, rows, count } = await ask(id, 'SELECT * FROM tenant WHERE id > :least ORDER BY id', { least: '1' });
  expect(columns.map(({ name }) => name)).toEqual(['id', 'name', 'rent', 'born', 'active', 'account', 'seen']);
  expect(rows).toEqual([
    ['2', "O'Derry; DROP", '12345678901234567.89', '', 'false', '', ''],
    ['9007199254740993', 'Łucja', '164.50', '1961-03-14', 'true', '0049', expect.stringMatching(/^2027-01-02 /)],
  ]);
  expect(count).toBe(2);
  expect(JSON.stringify(await mailbag.client.get('/api/connections'))).not.toContain('plots');
});
test('MariaDB: tables, an excerpt with no digit and no character lost', async () => {
  const { id } = await connect(onMariadb());
  expect(await mailbag.client.get(`/api/connections/${id}/tables`)).toMatchObject([{ name: 'tenant' }]);
  const { rows } = await ask(id, 'SELECT id, name, rent, born FROM tenant WHERE rent > :least ORDER BY id', { least: '1' });
  expect(rows).toEqual([
    ['2', '', '1.50', ''],
    ['9007199254740993', '李雷 😀', '12345678901234567.89', '1961-03-14'],
  ]);
});
test('a SQLite file: tables, a query, records as a source', async () => {
  const { fileId } = await mailbag.client.upload<{ fileId: string }>('/api/connections/files', 'waiting.sqlite', waitingList());
  const { id } = await connect({ kind: 'sqlite', fileId, host: '', port: 0, databaseName: 'waiting.sqlite', user: '', password: '' });
  expect(await mailbag.client.get(`/api/connections/${id}/tables`)).toMatchObject([{ name: 'applicant' }, { name: 'offer' }]);
  const source = await readSource(id, 'SELECT * FROM applicant ORDER BY number');
  expect(source).toMatchObject({ state: 'ready', count: 64 });
});

test.each([
  ['INSERT INTO tenant (id) VALUES (77)', 'does not begin with SELECT'],
  ['SELECT 1; DELETE FROM tenant', 'more than one statement'],
  ['WITH gone AS (DELETE FROM tenant RETURNING *) SELECT * FROM gone', 'does more than read'],
  ['SELECT * FROM nowhere', 'nowhere'],
])('the query %p is refused on every server, and nothing is written', async (sql, sentence) => {
  for (const more of [{}, onMariadb()]) {
    const { id } = await connect(more);
    await expect(ask(id, sql)).rejects.toThrow(sentence);
    expect((await ask(id, 'SELECT id FROM tenant')).count).toBe(2);
  }
});
test('a function that writes is stopped by the transaction itself, which is read-only', async () => {
  const client = new pg.Client({ host: '127.0.0.1', port: postgres.port, user: 'office', password: 'plots', database: 'postgres' });
  await client.connect();
  await client.query(
    'CREATE OR REPLACE FUNCTION sly() RETURNS int LANGUAGE plpgsql AS $$ BEGIN INSERT INTO tenant (id) VALUES (99); RETURN 1; END $$',
  );
  await client.end();
  const { id } = await connect({});
  await expect(ask(id, 'SELECT sly()')).rejects.toThrow('it writes, and Mailbag only reads');
  expect((await ask(id, 'SELECT id FROM tenant')).count).toBe(2);
});
test('a query that never ends is ended when its time is over', async () => {
  const { fileId } = await mailbag.client.upload<{ fileId: string }>('/api/connections/files', 'waiting.sqlite', waitingList());
  const sqlite = await connect({ kind: 'sqlite', fileId, host: '', port: 0, databaseName: 'waiting.sqlite', user: '', password: '' });
  const onPostgres = await connect({});
  await Promise.all([
    expect(ask(onPostgres.id, 'SELECT pg_sleep(600)')).rejects.toThrow('took too long'),
    expect(ask(sqlite.id, 'WITH RECURSIVE n(i) AS (SELECT 1 UNION ALL SELECT i + 1 FROM n) SELECT COUNT(*) FROM n')).rejects.toThrow(
      'took too long',
    ),
  ]);
  const onMaria = await connect(onMariadb());
  const endless =
    'SELECT COUNT(*) FROM information_schema.columns a, information_schema.columns b, information_schema.columns c WHERE a.table_name <> b.column_name';
  await expect(ask(onMaria.id, endless)).rejects.toThrow('took too long');
});
test.each([
  ['a wrong password', { password: 'wrong' }, 'refused the user or the password'],
  ['a database that is not there', { databaseName: 'nowhere' }, 'has no such database'],
  ['a port where nobody listens', { port: 9 }, 'does not answer'],
  ['TLS that the server does not offer', { tls: true }, 'could not be secured'],
])('%s is told in a sentence', async (_, more, sentence) => {
  await expect(connect(more)).rejects.toThrow(sentence);
});
test('servers that are not on the list of those allowed are not reached', async () => {
  const strict = new RunningMailbag({ MAILBAG_DATABASE_HOSTS: 'db.larkmere.example' });
  await strict.start();
  await strict.setUp();
  try {
    await expect(
      strict.client.send('POST', '/api/connections/test', {
        name: 'x',
        kind: 'postgres',
        host: '127.0.0.1',
        port: postgres.port,
        databaseName: 'postgres',
        user: 'office',
        password: 'plots',
        tls: false,
      }),
    ).rejects.toThrow('is not among the database servers');
  } finally {
    await strict.close();
  }
});
test('a batch reads its database again first, runs over what is there now, and tells what changed', async () => {
  const client = new pg.Client({ host: '127.0.0.1', port: postgres.port, user: 'office', password: 'plots', database: 'postgres' });
  await client.connect();
  await client.query("CREATE TABLE plot (number text PRIMARY KEY, name text); INSERT INTO plot VALUES ('A-1', 'Ann'), ('A-2', 'Bo')");
  const { id } = await connect({});
  const source = await readSource(id, 'SELECT number, name FROM plot ORDER BY number');
  const { mailing, template } = await smallMailing(mailbag.client, [['X-1', 'Somebody', 'x@example.org', 'yes']], {
    mailed: false,
    folder: 'Database',
  });
  const { version, plan } = await mailbag.client.get<MailingDetail>(`/api/mailings/${mailing}`);
  await mailbag.client.send('PUT', `/api/mailings/${mailing}`, {
    version,
    plan: {
      ...plan,
      sourceId: source.id,
      keyColumn: 'number',
      maps: { [template]: { 'permit.plot': { kind: 'column', column: 'number' }, 'permit.name': { kind: 'column', column: 'name' } } },
      output: { folder: 'Database', file: '{{ number }}.pdf' },
      message: { ...plan.message, addressColumn: null, recipient: '{{ name }}', subject: '', body: '' },
    },
  });
  await client.query("INSERT INTO plot VALUES ('A-3', 'Cy'); UPDATE plot SET name = 'Bob' WHERE number = 'A-2'");
  await client.end();
  expect(await startBatch(mailbag.client, mailing)).toMatchObject({ records: 3 });
  const { changes } = await mailbag.client.get<SourceSummary>(`/api/sources/${source.id}`);
  expect(changes).toMatchObject({ added: 1, gone: 0, changed: 1, changedValues: [{ key: 'a-2', column: 'name', was: 'Bo', now: 'Bob' }] });
});
test('a database that goes away in the midst leaves the records of the reading before, and says so', async () => {
  const { id } = await connect(onMariadb());
  const source = await readSource(id, 'SELECT id, name FROM tenant ORDER BY id');
  expect(source.count).toBe(2);
  await mariadb.kill();
  await mailbag.client.send('PUT', `/api/sources/${source.id}/reading`, {});
  const after = await mailbag.client.until<{ state: string; count: number; error: { message: string } }>(
    `/api/sources/${source.id}`,
    ({ state }) => state !== 'reading',
  );
  expect(after).toMatchObject({ state: 'ready', count: 2 });
  expect(after.error.message).toMatch(/does not answer|was lost/);
  expect((await mailbag.client.get<{ records: unknown[] }>(`/api/sources/${source.id}/records?from=0&count=5`)).records).toHaveLength(2);
});

test('a database that breaks off in the middle of reading leaves the records of the reading before', async () => {
  const client = new pg.Client({ host: '127.0.0.1', port: postgres.port, user: 'office', password: 'plots', database: 'postgres' });
  await client.connect();
  await client.query('CREATE TABLE pace (delay float8, many int); INSERT INTO pace VALUES (0, 3)');
  const { id } = await connect({});
  const source = await readSource(id, "SELECT n, 'Tenant ' || n AS name, pg_sleep(delay) FROM pace, generate_series(1, many) AS n");
  expect(source.count).toBe(3);
  await client.query('UPDATE pace SET delay = 0.002, many = 100000');
  await client.end();
  await mailbag.client.send('PUT', `/api/sources/${source.id}/reading`, {});
  await new Promise((done) => setTimeout(done, 2500));
  expect(await mailbag.client.get(`/api/sources/${source.id}`)).toMatchObject({ state: 'reading' });
  await postgres.kill();
  const after = await mailbag.client.until<{ state: string; count: number; error: { message: string } }>(
    `/api/sources/${source.id}`,
    ({ state }) => state !== 'reading',
  );
  expect(after).toMatchObject({ state: 'ready', count: 3 });
  expect(after.error.message).toContain('was lost');
  expect((await mailbag.client.get<{ records: unknown[] }>(`/api/sources/${source.id}/records?from=0&count=5`)).records).toHaveLength(3);
});

test('parameters are found outside of strings, comments and casts only', () => {
  const sql = "SELECT ':no', x::text, :yes -- :no\n FROM t WHERE a = :also AND b = :yes";
  expect(parameterNames(sql)).toEqual(['yes', 'also']);
  expect(prepareQuery(sql, { yes: '1', also: '2' }, (place) => `$${place}`)).toEqual({
    sql: "SELECT ':no', x::text, $1 -- :no\n FROM t WHERE a = $2 AND b = $3",
    values: ['1', '2', '1'],
  });
  expect(() => prepareQuery('SELECT :x', {}, () => '?')).toThrow('asks for :x');
  expect(() => prepareQuery('PRAGMA journal_mode = DELETE', {}, () => '?')).toThrow('SELECT');
  expect(() => prepareQuery("SELECT 1 FROM x; ATTACH 'y' AS y", {}, () => '?')).toThrow('more than one');
});
