import { spawn } from 'node:child_process';
import { createServer } from 'node:net';
import { join } from 'node:path';
import { mkdtempSync, readdirSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import type { CopyDetail } from '@mailbag/contract';
import { detailText } from '@mailbag/core';
import { PATIENCE } from '../testing/patience.js';
import { freePort } from '../testing/ports.js';
import { PostOffice, RunningMailbag } from '../testing/running-mailbag.js';
import type { Batch, CopyRow } from '../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../testing/small-mailing.js';
import { startBatch } from '../demo/src/start-batch.js';

/** Whoever starts a second time over the same folder is told so before anything is touched, and an outcome counts for its own claim only. */
let office: PostOffice;
const mailbag = new RunningMailbag({ MAILBAG_MAIL_TIMEOUT: '8000' });
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

/** Starts a server that is expected to end by itself. */
async function startAgain(data: string, port: number): Promise<{ code: number | null; output: string }> {
  const child = spawn(process.execPath, ['apps/server/bin/server.mjs'], {
    env: { ...process.env, MAILBAG_DATA: data, MAILBAG_PORT: String(port), MAILBAG_INBOUND_PORT: '0' },
  });
  let output = '';
  for (const stream of [child.stdout, child.stderr]) stream.on('data', (chunk: Buffer) => (output += chunk.toString()));
  const timer = setTimeout(() => child.kill('SIGKILL'), PATIENCE);
  const code = await new Promise<number | null>((resolve) => child.once('exit', resolve));
  clearTimeout(timer);
  return { code, output };
}
const sending = async (count: number, folder: string): Promise<number> => {
  const rows = Array.from({ length: count }, (_, at): [string, string, string, string] => [
    `${folder}-${at}`,
    `T ${at}`,
    `slow.${folder}${at}@example.org`,
    'no',
  ]);
  const { mailing } = await smallMailing(mailbag.client, rows, { folder });
  return (await startBatch<Batch>(mailbag.client, mailing)).id;
};

test.each(['another port', 'the same port'])(
  'a second start over the same folder on %s ends with a sentence, and nobody is mailed twice',
  async (where) => {
    const folder = where === 'the same port' ? 'same' : 'other';
    const id = await sending(12, folder);
    await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ counts }) => (counts.sending ?? 0) >= 5);
    const { code, output } = await startAgain(
      mailbag.data,
      where === 'the same port' ? Number(new URL(mailbag.address).port) : await freePort(),
    );
    expect(code).toBe(1);
    expect(output).toMatch(
      where === 'the same port' ? /Port \d+ of 127\.0\.0\.1 is taken by another program/ : /is in use by another Mailbag \(process \d+\)/,
    );
    const { counts } = await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
    expect(counts).toEqual({ sent: 12 });
    const letters = (await office.letters()).filter(({ to }) => to.startsWith(`slow.${folder}`));
    expect(letters.map(({ to }) => to).sort()).toEqual([...new Set(letters.map(({ to }) => to))].sort());
    expect(letters).toHaveLength(12);
  },
);

test('a port that is taken is told before the folder is made', async () => {
  const parent = mkdtempSync(join(tmpdir(), 'mailbag-taken-'));
  const taken = createServer().listen(0, '127.0.0.1');
  await new Promise((done) => taken.once('listening', done));
  const { code } = await startAgain(join(parent, 'data'), (taken.address() as { port: number }).port);
  expect(code).toBe(1);
  expect(readdirSync(parent)).toEqual([]);
  taken.close();
  rmSync(parent, { recursive: true });
});

test('what Mailbag writes is readable by nobody else', () => {
  const open = readdirSync(mailbag.data, { recursive: true, encoding: 'utf8' })
    .map((name) => join(mailbag.data, name))
    .filter((path) => (statSync(path).mode & 0o077) !== 0);
  expect(open).toEqual([]);
});

test('an outcome whose claim has gone to somebody else writes nothing but a line in the log', async () => {
  const database = mailbag.beside();
  // While the message is on its way, somebody else takes the delivery.
  database.exec(
    "CREATE TRIGGER taker AFTER UPDATE OF handedAt ON delivery WHEN NEW.handedAt IS NOT NULL BEGIN UPDATE delivery SET claim = 'somebody else' WHERE id = NEW.id; END",
  );
  const id = await sending(1, 'lost');
  await until(() => /The claim of delivery \d+ was lost; its outcome is not written: accepted/.test(mailbag.log()));
  expect(database.prepare('SELECT state, claim, sentAt FROM delivery WHERE batchId = ?').all([id])).toEqual([
    expect.objectContaining({ state: 'sending', claim: 'somebody else', sentAt: null }),
  ]);
  const [copy] = await copiesOf(mailbag.client, id);
  expect((await mailbag.client.get<CopyRow>(`/api/copies/${copy!.id}`)).state).toBe('sending');
  database.exec('DROP TRIGGER taker');
  database.close();
});

test('a message whose claim is lost before its first byte does not leave', async () => {
  await office.behave('mood=busy');
  const id = await sending(1, 'before');
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ counts }) => counts.retrying === 1);
  const before = (await office.letters()).length;
  const database = mailbag.beside();
  // Whoever wants to hand it over finds that it is not theirs any more.
  database.exec(
    'CREATE TRIGGER robber BEFORE UPDATE OF handedAt ON delivery WHEN NEW.handedAt IS NOT NULL BEGIN SELECT RAISE(IGNORE); END',
  );
  await office.behave('mood=well');
  const [copy] = await copiesOf(mailbag.client, id);
  await mailbag.client.until<CopyDetail>(`/api/copies/${copy!.id}`, ({ events }) =>
    events.some(({ detail }) => /lost before it was handed over/.test(detailText(detail ?? ''))),
  );
  expect((await office.letters()).length).toBe(before);
  database.exec('DROP TRIGGER robber');
  database.close();
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ counts }) => counts.sent === 1);
});

async function until(isTrue: () => boolean, seconds = PATIENCE / 1000): Promise<void> {
  for (const end = Date.now() + seconds * 1000; !isTrue();) {
    if (Date.now() > end) throw new Error(`Did not happen within ${seconds} s. The server said: ${mailbag.log().slice(-2000)}`);
    await new Promise((done) => setTimeout(done, 100));
  }
}
