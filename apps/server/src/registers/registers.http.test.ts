import { createServer } from 'node:http';
import type { Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'libsql';
import mysql from 'mysql2/promise';
import pg from 'pg';
import { DatabaseServer } from '../../../../testing/database-servers.js';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

let office: PostOffice;
const mailbag = new RunningMailbag();
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

interface Register {
  id: number;
  name: string;
  waiting: number;
  failure: string | null;
}
const blank = { host: '', port: 0, databaseName: '', table: 'mailbag_copies', user: '', tls: false, mailings: [] };
const add = async (name: string, more: object): Promise<number> =>
  (await mailbag.client.send<Register[]>('POST', '/api/registers', { ...blank, name, ...more })).find((one) => one.name === name)!.id;
const upToDate = (id: number): Promise<Register[]> =>
  mailbag.client.until<Register[]>('/api/registers', (list) => list.find((one) => one.id === id)!.waiting === 0);

async function mailed(folder: string): Promise<number> {
  const { mailing } = await smallMailing(
    mailbag.client,
    [
      ['R-1', 'Zoë Łąkowska', 'zoe@example.org', 'yes'],
      ['R-2', 'Bae', 'unknown.bae@example.org', 'no'],
    ],
    { folder },
  );
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  return id;
}
const told = async (batch: number): Promise<[code: string, state: string, recipient: string][]> =>
  (await copiesOf(mailbag.client, batch)).map(({ code, state, recipient }): [string, string, string] => [code, state, recipient]).sort();

test('a SQLite register and a folder hold every copy with its last state', async () => {
  const sqlite = await add('SQLite', { kind: 'sqlite', table: 'town' });
  const folder = await add('Folder', { kind: 'folder', table: 'reported' });
  const batch = await mailed('files');
  await upToDate(sqlite);
  await upToDate(folder);
  const database = new Database(join(mailbag.data, 'registers/town.sqlite'), { readonly: true });
  const rows = database.prepare('SELECT code, state, recipient FROM copies ORDER BY code').raw().all() as [string, string, string][];
  database.close();
  expect(rows).toEqual(await told(batch));
  const files = readdirSync(join(mailbag.data, 'registers/reported'));
  expect(files.sort()).toEqual((await told(batch)).map(([code]) => `${code}.json`));
  const one = JSON.parse(readFileSync(join(mailbag.data, 'registers/reported', files[0]!), 'utf8')) as Record<string, unknown>;
  expect(one).toMatchObject({ code: files[0]!.replace('.json', ''), mailing: 'Permits', sha256: expect.stringMatching(/^[0-9a-f]{64}$/) });
  // A later change is reported too.
  const [copy] = await copiesOf(mailbag.client, batch);
  await mailbag.client.send('POST', `/api/copies/${copy!.id}/withdraw`);
  await upToDate(folder);
  expect(JSON.parse(readFileSync(join(mailbag.data, 'registers/reported', `${copy!.code}.json`), 'utf8'))).toMatchObject({
    state: 'withdrawn',
    event: 'withdraw',
    who: 'Test Person',
  });
});

/** As much of WebDAV (RFC 4918) as a register needs, in memory; answers 503 while it is `away`. */
class WebDav {
  readonly files = new Map<string, string>();
  away = false;
  puts = 0;
  private readonly folders = new Set(['/']);
  readonly server: Server = createServer((request, response) => {
    const chunks: Buffer[] = [];
    request.on('data', (chunk: Buffer) => chunks.push(chunk));
    request.on('end', () => {
      const path = decodeURIComponent(request.url ?? '/').replace(/(.)\/$/, '$1');
      if (this.away) return void response.writeHead(503).end();
      if (request.method === 'MKCOL') {
        this.folders.add(path);
        return void response.writeHead(201).end();
      }
      if (request.method === 'PUT') {
        this.puts++;
        this.files.set(path, Buffer.concat(chunks).toString('utf8'));
        return void response.writeHead(201).end();
      }
      if (request.method === 'PROPFIND' && this.folders.has(path))
        return void response
          .writeHead(207, { 'content-type': 'application/xml' })
          .end(
            `<?xml version="1.0"?><d:multistatus xmlns:d="DAV:"><d:response><d:href>${path}</d:href><d:propstat><d:prop><d:resourcetype><d:collection/></d:resourcetype></d:prop><d:status>HTTP/1.1 200 OK</d:status></d:propstat></d:response></d:multistatus>`,
          );
      response.writeHead(404).end();
    });
  });
}

test('a WebDAV folder that goes away for a while misses nothing', async () => {
  const dav = new WebDav();
  await new Promise<void>((done) => dav.server.listen(0, '127.0.0.1', done));
  const id = await add('WebDAV', {
    kind: 'webdav',
    host: `http://127.0.0.1:${(dav.server.address() as AddressInfo).port}`,
    table: 'copies',
  });
  await upToDate(id);
  dav.away = true;
  const batch = await mailed('dav');
  const failing = await mailbag.client.until<Register[]>('/api/registers', (list) => list.find((one) => one.id === id)!.failure !== null);
  expect(failing.find((one) => one.id === id)!.failure).toMatch(/503/);
  dav.away = false;
  await upToDate(id);
  for (const [code, state] of await told(batch)) expect(JSON.parse(dav.files.get(`/copies/${code}.json`)!)).toMatchObject({ code, state });
  await mailbag.client.send('DELETE', `/api/registers/${id}`);
  await new Promise((done) => dav.server.close(done));
});

test('PostgreSQL gets one row a copy, however often it is told', async () => {
  const server = await DatabaseServer.postgres();
  try {
    const access = { host: '127.0.0.1', port: server.port, databaseName: 'postgres', user: 'office', password: 'plots' };
    const id = await add('PostgreSQL', { kind: 'postgres', ...access });
    const batch = await mailed('postgres');
    await upToDate(id);
    const client = new pg.Client({
      host: access.host,
      port: access.port,
      database: access.databaseName,
      user: access.user,
      password: access.password,
    });
    await client.connect();
    const { rows } = await client.query<{ code: string; state: string; recipient: string }>(
      'SELECT code, state, recipient FROM mailbag_copies',
    );
    await client.end();
    const found = new Map(rows.map((row) => [row.code, row]));
    expect(found.size).toBe(rows.length);
    for (const [code, state, recipient] of await told(batch)) expect(found.get(code)).toEqual({ code, state, recipient });
    await mailbag.client.send('DELETE', `/api/registers/${id}`);
  } finally {
    await server.close();
  }
});

test('MariaDB gets one row a copy', async () => {
  const server = await DatabaseServer.mariadb();
  try {
    const root = await mysql.createConnection({ host: '127.0.0.1', port: server.port, user: 'root' });
    await root.query('CREATE DATABASE office');
    await root.end();
    const access = { host: '127.0.0.1', port: server.port, databaseName: 'office', user: 'root', password: '' };
    const id = await add('MariaDB', { kind: 'mysql', ...access });
    const batch = await mailed('mariadb');
    await upToDate(id);
    const client = await mysql.createConnection({
      host: access.host,
      port: access.port,
      database: access.databaseName,
      user: access.user,
      password: access.password,
    });
    const [rows] = await client.query('SELECT code, state, recipient FROM mailbag_copies');
    await client.end();
    const found = new Map((rows as { code: string; state: string; recipient: string }[]).map((row) => [row.code, row]));
    for (const [code, state, recipient] of await told(batch)) expect({ ...found.get(code) }).toEqual({ code, state, recipient });
    await mailbag.client.send('DELETE', `/api/registers/${id}`);
  } finally {
    await server.close();
  }
});

test('a register that cannot be opened is not kept, and says why', async () => {
  await expect(add('Nowhere', { kind: 'postgres', host: '127.0.0.1', port: 9, databaseName: 'x', user: 'x' })).rejects.toThrow(
    'register-failed',
  );
  await expect(add('Climbing', { kind: 'folder', table: '../out' })).rejects.toThrow('letters, digits');
  expect(existsSync(join(mailbag.data, 'out'))).toBe(false);
});
