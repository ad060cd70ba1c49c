import { execFileSync, spawnSync } from 'node:child_process';
import { cpSync, mkdtempSync, readFileSync, readdirSync, renameSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { BackupsAnswer, DeskAnswer, HoldAnswer, SelfCheckAnswer } from '@mailbag/contract';
import type { Detail } from '@mailbag/core';
import { mailServer } from '../demo/src/mail-set-up.js';
import { signedInAs } from '../testing/accounts.js';
import { PATIENCE } from '../testing/patience.js';
import { PostOffice, RunningMailbag } from '../testing/running-mailbag.js';
import type { Batch } from '../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../testing/small-mailing.js';
import { startBatch } from '../demo/src/start-batch.js';

/** A folder that was restored, copied or put back sends nothing by itself: what waits in it may have gone out from where it comes from. */
const COUNT = 20;
const parent = mkdtempSync(join(tmpdir(), 'mailbag-put-back-'));
let office: PostOffice;
const first = new RunningMailbag({ MAILBAG_BACKUPS: join(parent, 'backups') });
let batch: number;
const cli = (...args: string[]): string =>
  execFileSync(process.execPath, ['apps/cli/bin/mailbag.mjs', ...args], { encoding: 'utf8', stdio: ['ignore', 'pipe', 'pipe'] });
const letters = async (): Promise<string[]> => (await office.letters()).map(({ to }) => to).filter((to) => to.startsWith('t'));

beforeAll(async () => {
  office = await PostOffice.open();
  await (await first.start()).setUp(office);
  await first.client.send('PUT', '/api/bounces', {
    address: '',
    host: '',
    port: 993,
    tls: true,
    checkCertificate: true,
    user: 'bounces',
    password: 'a secret',
    folder: 'INBOX',
    smtpPort: 0,
  });
  // One after the other, so that a good part still waits when the backup is taken.
  const [server] = await first.client.get<{ id: number }[]>('/api/mail-servers');
  await first.client.send('PUT', `/api/mail-servers/${server!.id}`, { ...mailServer(office.smtp), perMinute: COUNT / 2 });
  const rows = Array.from({ length: COUNT }, (_, at): [string, string, string, string] => [
    `B${at}`,
    `T ${at}`,
    `t${at}@example.org`,
    'no',
  ]);
  const { mailing } = await smallMailing(first.client, rows, { folder: 'back' });
  batch = (await startBatch<Batch>(first.client, mailing)).id;
  await first.client.until<Batch>(`/api/batches/${batch}`, ({ counts }) => counts.sent === COUNT / 2);
  cli('backup', '--data', first.data, '--to', join(parent, 'running.zip'));
  cpSync(first.data, join(parent, 'copied'), { recursive: true, filter: (path) => !path.endsWith('mailbag.pid') });
  cpSync(first.data, join(parent, 'earlier'), { recursive: true });
  // From here on everything goes out from the first folder.
  await first.client.send('PUT', `/api/mail-servers/${server!.id}`, mailServer(office.smtp));
  await first.client.until<Batch>(`/api/batches/${batch}`, ({ state }) => state === 'done');
});
afterAll(async () => {
  await first.close();
  await office.close();
  rmSync(parent, { recursive: true, force: true });
});

/** Starts on a folder that was put back, and gives it time to do what it must not. */
async function held(data: string): Promise<RunningMailbag> {
  const mailbag = new RunningMailbag({}, data);
  await mailbag.start();
  await mailbag.signIn();
  await new Promise((done) => setTimeout(done, 2500));
  expect((await letters()).length).toBe(new Set(await letters()).size);
  expect((await mailbag.client.get<DeskAnswer>('/api/desk')).needs[0]).toMatchObject({ kind: 'held', count: 1 });
  const { held: why, batches } = await mailbag.client.get<HoldAnswer>('/api/safety/hold');
  expect(why).not.toBeNull();
  expect(batches).toEqual([expect.objectContaining({ id: batch, messages: COUNT / 2, copies: COUNT / 2 })]);
  expect((await mailbag.client.get<{ waiting: Detail | null }>(`/api/batches/${batch}`)).waiting).toMatchObject({ code: 'folder-held' });
  return mailbag;
}

test('a backup that was taken while it was sent sends nothing again when it is restored; a person settles what may have gone out', async () => {
  const data = join(parent, 'restored');
  cli('restore', join(parent, 'running.zip'), '--data', data);
  const mailbag = await held(data);
  expect((await mailbag.client.get<HoldAnswer>('/api/safety/hold')).held).toMatchObject({ why: 'restored', from: 'running.zip' });
  const operator = await signedInAs(mailbag, { role: 'operator' });
  await expect(operator.send('POST', '/api/safety/hold/release')).rejects.toThrow('403');
  // It stays so after another start.
  await mailbag.kill();
  await mailbag.startAgain();
  await mailbag.client.send('POST', '/api/safety/hold/doubt', { batchIds: [batch] });
  expect((await mailbag.client.get<Batch>(`/api/batches/${batch}`)).counts).toEqual({ sent: COUNT / 2, unconfirmed: COUNT / 2 });
  await mailbag.client.send('POST', '/api/safety/hold/release');
  await new Promise((done) => setTimeout(done, 1500));
  expect(await letters()).toHaveLength(COUNT);
  const unconfirmed = (await copiesOf(mailbag.client, batch)).filter(({ state }) => state === 'unconfirmed').map(({ id }) => id);
  await mailbag.client.send('POST', '/api/copies/many', { action: 'confirm-sent', ids: unconfirmed });
  expect((await mailbag.client.get<Batch>(`/api/batches/${batch}`)).counts).toEqual({ sent: COUNT });
  await mailbag.kill();
});

test.each([
  ['a folder that was copied as it stood', 'copied', () => join(parent, 'copied')],
  [
    'a folder with an older database in it',
    'older database',
    () => {
      // As somebody does who puts back the database file alone.
      const data = join(parent, 'old database');
      cpSync(first.data, data, { recursive: true, filter: (path) => !/mailbag\.(sqlite|pid|stamp)/.test(path) });
      renameSync(join(first.data, 'mailbag.stamp'), join(data, 'mailbag.stamp'));
      for (const end of ['', '-wal', '-shm']) cpSync(join(parent, 'earlier', `mailbag.sqlite${end}`), join(data, `mailbag.sqlite${end}`));
      return data;
    },
  ],
])('%s sends nothing by itself', async (_, why, make) => {
  if (why === 'older database') await first.kill();
  const mailbag = await held(make());
  expect((await mailbag.client.get<HoldAnswer>('/api/safety/hold')).held).toMatchObject({ why });
  expect(await letters()).toHaveLength(COUNT);
  await mailbag.kill();
});

test('the folder that mailed goes on as before after a kill and a stop', async () => {
  const mailbag = new RunningMailbag({}, join(parent, 'restored'));
  for (const end of ['stop', 'kill'] as const) {
    await mailbag.start();
    await mailbag.signIn();
    expect((await mailbag.client.get<HoldAnswer>('/api/safety/hold')).held).toBeNull();
    await mailbag[end]();
  }
});

test('without its key, or with another one, the server does not start, says what to do, and forgets nothing silently', async () => {
  const data = join(parent, 'restored');
  const key = readFileSync(join(data, 'secret.key'));
  const start = (env: object = {}): { status: number | null; output: string } => {
    const { status, stderr } = spawnSync(process.execPath, ['apps/server/bin/server.mjs'], {
      env: { ...process.env, MAILBAG_DATA: data, MAILBAG_PORT: '0', ...env },
      encoding: 'utf8',
      timeout: PATIENCE,
    });
    return { status, output: stderr };
  };
  renameSync(join(data, 'secret.key'), join(data, 'away'));
  expect(start()).toEqual({
    status: 1,
    output: expect.stringMatching(/secret\.key is missing, which opens what is kept encrypted \(“bounce mailbox”.*MAILBAG_NEW_KEY=1/s),
  });
  expect(readdirSync(data)).not.toContain('secret.key');
  writeFileSync(join(data, 'secret.key'), Buffer.alloc(32, 1));
  expect(start()).toEqual({ status: 1, output: expect.stringMatching(/is not the key of this data folder/) });
  expect(readFileSync(join(data, 'secret.key')).equals(Buffer.alloc(32, 1))).toBe(true);
  writeFileSync(join(data, 'secret.key'), key);
  const right = new RunningMailbag({}, data);
  await right.start();
  await right.kill();
  // The administrator says that it is lost for good.
  rmSync(join(data, 'secret.key'));
  const mailbag = new RunningMailbag({ MAILBAG_NEW_KEY: '1' }, data);
  await mailbag.start();
  await mailbag.signIn();
  expect((await mailbag.client.get<DeskAnswer>('/api/desk')).needs).toContainEqual(
    expect.objectContaining({ kind: 'lost-secrets', detail: expect.stringContaining('bounce mailbox') }),
  );
  const {
    hasPassword,
    lastLook: _,
    listening: __,
    ...bounces
  } = await mailbag.client.get<{ hasPassword: boolean; lastLook: unknown; listening: unknown }>('/api/bounces');
  expect(hasPassword).toBe(false);
  await mailbag.client.send('PUT', '/api/bounces', { ...bounces, password: 'again' });
  expect((await mailbag.client.get<DeskAnswer>('/api/desk')).needs.map(({ kind }) => kind)).not.toContain('lost-secrets');
  await mailbag.kill();
});

test('backups are taken on demand and by schedule, so many are kept, and the self-check finds what is missing or changed', async () => {
  const mailbag = new RunningMailbag({ MAILBAG_BACKUPS: join(parent, 'kept') }, join(parent, 'restored'));
  await mailbag.start();
  await mailbag.signIn();
  const { client } = mailbag;
  await client.send('PUT', '/api/safety/backups', { isOn: true, everyHours: 24, keep: 2 });
  const answer = (): Promise<BackupsAnswer> => client.until<BackupsAnswer>('/api/safety/backups', ({ running }) => !running);
  expect((await answer()).backups).toHaveLength(1);
  for (let round = 0; round < 2; round++) {
    await new Promise((done) => setTimeout(done, 1100));
    await client.send('POST', '/api/safety/backups');
    await answer();
  }
  const { backups, failed } = await answer();
  expect(failed).toBeNull();
  expect(backups).toHaveLength(2);
  cli('restore', join(parent, 'kept', backups[0]!.name), '--data', join(parent, 'from schedule'));
  expect(JSON.parse(cli('check-folder', '--data', join(parent, 'from schedule'), '--json'))).toMatchObject({ copies: COUNT, faults: [] });
  await expect(client.send('DELETE', `/api/safety/backups/${encodeURIComponent('../mailbag.sqlite')}`)).rejects.toThrow('404');

  const [one, two] = await copiesOf(client, batch);
  rmSync(join(mailbag.data, 'archive', one!.file));
  writeFileSync(join(mailbag.data, 'archive', two!.file), Buffer.alloc(readFileSync(join(mailbag.data, 'archive', two!.file)).length, 'x'));
  await client.send('POST', '/api/safety/self-check');
  const { last } = await client.until<SelfCheckAnswer>('/api/safety/self-check', ({ running }) => !running);
  expect(last).toMatchObject({ thorough: true, copies: COUNT });
  expect(last!.faults).toEqual(
    expect.arrayContaining([
      { kind: 'copies-missing', count: 1, names: [`${one!.code} ${one!.file}`] },
      { kind: 'copies-changed', count: 1, names: [`${two!.code} ${two!.file}`] },
    ]),
  );
  expect((await client.get<DeskAnswer>('/api/desk')).needs).toContainEqual(expect.objectContaining({ kind: 'self-check', count: 2 }));
  await mailbag.kill();
});

test('a command line that is called wrongly, or cannot do it, says so', () => {
  const run = (...args: string[]): { status: number | null; output: string } => {
    const { status, stderr } = spawnSync(process.execPath, ['apps/cli/bin/mailbag.mjs', ...args], { encoding: 'utf8' });
    return { status, output: stderr };
  };
  expect(run('backup', '--data', first.data)).toEqual({ status: 2, output: expect.stringMatching(/--to is missing/) });
  expect(run('backup', '--data', parent, '--to', join(parent, 'x.zip'))).toEqual({
    status: 1,
    output: expect.stringMatching(/is not a data folder of Mailbag/),
  });
  expect(run('restore', join(parent, 'running.zip'), '--data', first.data)).toEqual({
    status: 1,
    output: expect.stringMatching(/is not empty/),
  });
});
