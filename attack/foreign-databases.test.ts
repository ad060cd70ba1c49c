import { execFileSync } from 'node:child_process';
import { createHash } from 'node:crypto';
import { mkdtempSync, readFileSync, readdirSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import Database from 'libsql';
import type { ServerClient } from '../demo/src/server-client.js';
import { waitingList } from '../demo/src/waiting-list.js';
import { signedInAs } from '../testing/accounts.js';
import { RunningMailbag } from '../testing/running-mailbag.js';
import { residentMegabytes } from '../testing/watching.js';

/** A SQLite file is foreign, and so is the query over it: neither reaches a file of the server or more memory than is its share. */
const mailbag = new RunningMailbag();
let operator: ServerClient;
let connection: number;
const connect = (client: ServerClient, fileId: string): Promise<{ id: number }> =>
  client.send('POST', '/api/connections', {
    name: 'Waiting list',
    kind: 'sqlite',
    host: '',
    port: 0,
    databaseName: 'waiting.sqlite',
    user: '',
    tls: false,
    fileId,
  });
const upload = async (bytes: Uint8Array, name = 'waiting.sqlite'): Promise<string> =>
  (await operator.upload<{ fileId: string }>('/api/connections/files', name, bytes)).fileId;
const ask = (sql: string, id = connection): Promise<{ rows: string[][] }> =>
  operator.send('POST', `/api/connections/${id}/excerpt`, { sql, parameters: {} });

beforeAll(async () => {
  await (await mailbag.start()).setUp();
  operator = await signedInAs(mailbag, { role: 'operator' });
  connection = (await connect(operator, await upload(waitingList()))).id;
});
afterAll(() => mailbag.close());

test.each([
  ['reads the key of all passwords', (path: string) => `SELECT readfile('${path}')`],
  ['reads the key through a table of the engine', (path: string) => `SELECT data FROM fsdir('${path}')`],
  ['overwrites it', (path: string) => `SELECT writefile('${path}', 'mine')`],
  ['loads code', (path: string) => `SELECT load_extension('${path}')`],
  ['edits a file', (path: string) => `SELECT edit('x', '${path}')`],
  ['opens another database', () => `SELECT * FROM pragma_database_list`],
  ['looks at raw pages', () => 'SELECT hex(data) FROM sqlite_dbpage'],
  ['asks for what is not a value', () => 'SELECT sqlite_compileoption_get(1)'],
])('a query that %s is refused, and the file stays as it was', async (_, sql) => {
  const path = join(mailbag.data, 'secret.key');
  writeFileSync(join(mailbag.data, 'bait'), 'bait');
  const before = createHash('sha256')
    .update(readFileSync(join(mailbag.data, 'bait')))
    .digest('hex');
  for (const target of [path, join(mailbag.data, 'bait')]) {
    const answer = await ask(sql(target)).catch((error: Error) => error.message);
    expect(answer).toMatch(/was not run|no such (function|table)/);
  }
  expect(
    createHash('sha256')
      .update(readFileSync(join(mailbag.data, 'bait')))
      .digest('hex'),
  ).toBe(before);
});

test('a view in the file itself has no more rights than the query', async () => {
  const folder = mkdtempSync(join(tmpdir(), 'mailbag-view-'));
  const path = join(folder, 'view.sqlite');
  const database = new Database(path);
  database.exec(`CREATE TABLE t (a); CREATE VIEW v AS SELECT readfile('${join(mailbag.data, 'secret.key')}') AS key`);
  database.close();
  const { id } = await connect(operator, await upload(readFileSync(path)));
  await expect(ask('SELECT * FROM v', id)).rejects.toThrow(/no such function|not allowed/);
  rmSync(folder, { recursive: true });
});

test.each([
  ['a text of a thousand million letters', "SELECT printf('%1000000000s', 'x')"],
  ['a text that doubles itself', "WITH RECURSIVE n(t) AS (SELECT 'xxxxxxxx' UNION ALL SELECT t || t FROM n) SELECT length(t) FROM n"],
])('%s ends in a sentence and takes no memory of the server', async (_, sql) => {
  await expect(ask(sql)).rejects.toThrow(/more memory than a query may take|took too long/);
  expect(residentMegabytes(mailbag.pid)).toBeLessThan(500);
});

test('a name that climbs out of the uploads is no file, whichever door it comes through', async () => {
  const database = readdirSync(mailbag.data).find((name) => name.endsWith('.sqlite'))!;
  for (const fileId of [`../${database}`, `../../${database}`, `upload-../${database}`, '/etc/passwd', '..', 'secret.key'])
    for (const path of ['/api/connections/test', '/api/connections'])
      await expect(
        operator.send('POST', path, { name: 'x', kind: 'sqlite', host: '', port: 0, databaseName: 'x', user: '', tls: false, fileId }),
      ).rejects.toThrow('404');
  await expect(operator.send('POST', '/api/sources', { fileIds: [`../${database}`], name: 'x', reading: {} })).rejects.toThrow('404');
  await expect(operator.get(`/api/sources/files/${encodeURIComponent(`../${database}`)}/excerpt`)).rejects.toThrow('404');
});

test('the process that reads a foreign file can read nothing else, write nothing, start nothing and knows no environment', () => {
  // The same rights and surroundings, but with code that tries what the engine cannot.
  const sqlite = pathToFileURL(join(process.cwd(), 'apps/server/dist/readers/sqlite.js')).href;
  const rights = JSON.parse(
    execFileSync(
      process.execPath,
      ['--input-type=module', '-e', `import { sqliteRights } from ${JSON.stringify(sqlite)}; console.log(JSON.stringify(sqliteRights))`],
      {
        encoding: 'utf8',
      },
    ),
  ) as string[];
  const tries = `
    const said = [];
    const attempt = (what, work) => { try { said.push(what + ' ' + JSON.stringify(work())); } catch (error) { said.push(what + ' ' + error.code); } };
    const { readFileSync, writeFileSync } = process.getBuiltinModule('node:fs');
    attempt('read', () => readFileSync(${JSON.stringify(join(mailbag.data, 'secret.key'))}).length);
    attempt('write', () => writeFileSync(${JSON.stringify(join(mailbag.data, 'sources', 'x'))}, 'x'));
    attempt('start', () => process.getBuiltinModule('node:child_process').execFileSync('id').length);
    attempt('environment', () => Object.keys(process.env).length);
    console.log(said.join('; '));`;
  const output = execFileSync(process.execPath, [...rights, '-e', tries], { encoding: 'utf8', env: {} });
  expect(output.trim()).toBe('read ERR_ACCESS_DENIED; write ERR_ACCESS_DENIED; start ERR_ACCESS_DENIED; environment 0');
});
