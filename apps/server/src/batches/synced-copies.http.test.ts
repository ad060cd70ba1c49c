import { mkdtempSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join, resolve } from 'node:path';
import { startBatch } from '../../../../demo/src/start-batch.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';

const aside = mkdtempSync(join(tmpdir(), 'mailbag-watched-'));
const [list, full] = [join(aside, 'synced.jsonl'), join(aside, 'full')];
const mailbag = new RunningMailbag({
  NODE_OPTIONS: `--require ${resolve('testing/watched-disk.cjs')}`,
  WATCHED_DISK: list,
  WATCHED_DISK_FULL: full,
});
beforeAll(async () => {
  await (await mailbag.start()).setUp();
});
afterAll(async () => {
  await mailbag.close();
  rmSync(aside, { recursive: true, force: true });
});
const rows = (count: number, folder: string): [string, string, string, string][] =>
  Array.from({ length: count }, (_, at) => [`${folder}${at}`, `T ${at}`, `t${at}@example.org`, 'no']);
const synced = (): Map<string, string> =>
  new Map(
    readFileSync(list, 'utf8')
      .trim()
      .split('\n')
      .map((line) => JSON.parse(line) as { path: string; at: string })
      .map(({ path, at }) => [path, at]),
  );

test('every copy and its folder are on the disk before the ledger says that it was made', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows(450, 'one'), { mailed: false, folder: 'one' });
  const { id } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  const copies = await copiesOf(client, id);
  expect(copies).toHaveLength(450);
  const times = synced();
  for (const { id: copyId } of copies.slice(0, 40)) {
    const copy = await client.get<{ file: string; since: string; state: string }>(`/api/copies/${copyId}`);
    expect(copy.state).toBe('made');
    const path = join(mailbag.data, 'archive', copy.file);
    for (const there of [path, dirname(path)]) {
      const at = times.get(there);
      if (at === undefined) throw new Error(`${there} was never written through to the disk`);
    }
    expect(times.get(path)! <= copy.since).toBe(true);
  }
});

test('a disk that is full when copies are written through makes the batch wait, in words, and then go on', async () => {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows(60, 'two'), { mailed: false, folder: 'two' });
  writeFileSync(full, '');
  const { id } = await startBatch<Batch>(client, mailing);
  const waiting = await client.until<Batch>(`/api/batches/${id}`, ({ error }) => error !== null);
  expect(waiting.error).toMatchObject({ code: 'batch-disk-full' });
  expect(waiting.counts).toEqual({ planned: 60 });
  rmSync(full);
  const done = await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  expect(done.counts).toEqual({ made: 60 });
});
