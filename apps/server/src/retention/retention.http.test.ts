import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

const daysAgo = (days: number): string => new Date(Date.now() - days * 86_400_000).toISOString();

/** Makes a batch look as if it had ended so many days ago. */
async function aged(folder: string, name: string, days: number, output: object = {}): Promise<number> {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, [['K-1', name, '', 'yes']], { mailed: false, folder });
  const { version, plan } = await client.get<{ version: number; plan: { output: object } }>(`/api/mailings/${mailing}`);
  await client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, output: { ...plan.output, ...output } } });
  const { id } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  mailbag.change('UPDATE batch SET finishedAt = ? WHERE id = ?', [daysAgo(days), id]);
  return id;
}
/** Whether a text stands anywhere in the database or its log. */
const stands = (text: string): boolean =>
  readdirSync(mailbag.data).some((name) => name.startsWith('mailbag.sqlite') && readFileSync(join(mailbag.data, name)).includes(text));
/** Files of the data folder, at any depth, that a text stands in. Copies are packed and not read. */
const filesWith = (folder: string, text: string): string[] =>
  readdirSync(join(mailbag.data, folder), { recursive: true, withFileTypes: true })
    .filter((entry) => entry.isFile() && readFileSync(join(entry.parentPath, entry.name)).includes(text))
    .map(({ name }) => name);

test('what is over its time is gone: rows, words of the search, files, and what the database wrote over', async () => {
  const { client } = mailbag;
  const [name, other] = ['Xanthippe Quagmire', 'Ysolde Kept'];
  const old = await aged('old', name, 40, { combined: 'batch' });
  const young = await aged('young', other, 5);
  const [copy] = await copiesOf(client, old);
  expect((await client.get<{ rows: unknown[] }>('/api/copies?text=quagmire')).rows).toHaveLength(1);
  expect(readdirSync(join(mailbag.data, 'archive/Combined'))).toEqual(['Batch 1 Permits.pdf']);
  // The source stays, as no time is set for it. What belongs to the batch alone, such as the code, must be nowhere.
  await client.send('PUT', '/api/retention', { recordDays: 30, copyDays: 30, sourceDays: 0 });
  const { lastRun } = await client.send<{ lastRun: { copies: number } }>('POST', '/api/retention/run');
  expect(lastRun.copies).toBe(1);
  expect(await copiesOf(client, old)).toEqual([]);
  expect(await copiesOf(client, young)).toHaveLength(1);
  expect(existsSync(join(mailbag.data, 'archive', copy!.file))).toBe(false);
  expect(existsSync(join(mailbag.data, 'archive/old'))).toBe(false);
  expect((await client.get<{ rows: unknown[] }>('/api/copies?text=quagmire')).rows).toEqual([]);
  expect(stands(copy!.code)).toBe(false);
  // A folder that is empty goes with the last file in it.
  expect(existsSync(join(mailbag.data, 'archive/Combined'))).toBe(false);
  expect(filesWith('archive', copy!.code)).toEqual([]);
  expect(stands(other)).toBe(true);
});

test('values can go earlier than the copies', async () => {
  const { client } = mailbag;
  const id = await aged('values', 'Zebedee Values', 12, { metadata: ['Shed', 'Name'] });
  expect(filesWith('archive/Manifests', 'Zebedee Values')).toHaveLength(2);
  // What names the copy in the ledger stays with it; what was a value only, such as metadata, goes.
  const manifest = (): string => readFileSync(join(mailbag.data, 'archive/Manifests/Batch 3 Permits.csv'), 'utf8');
  expect(manifest()).toContain('Shed');
  await client.send('PUT', '/api/retention', { recordDays: 10, copyDays: 0, sourceDays: 0 });
  await client.send('POST', '/api/retention/run');
  const [copy] = await copiesOf(client, id);
  const { record } = await client.get<{ record: { text: string }[] }>(`/api/copies/${copy!.id}`);
  expect(record.every(({ text }) => text === '')).toBe(true);
  expect(manifest()).not.toContain('Shed');
  expect(existsSync(join(mailbag.data, 'archive', copy!.file))).toBe(true);
});

test('a source goes when no batch has used it for its time: file, records and findings; the mailing keeps its map', async () => {
  const { client } = mailbag;
  const name = 'Philomena Sourcewell';
  const batch = await aged('source', name, 50);
  const { mailingId } = await client.get<{ mailingId: number }>(`/api/batches/${batch}`);
  interface Mailing {
    plan: { sourceId: number | null; maps: Record<string, object> };
  }
  const before = await client.get<Mailing>(`/api/mailings/${mailingId}`);
  const { sourceId } = before.plan;
  const keep = { recordDays: 0, copyDays: 40, sourceDays: 30 };
  await client.send('PUT', '/api/retention', keep);
  await client.send('POST', '/api/retention/run');
  // Read today: its time is not over yet.
  expect(await client.get(`/api/sources/${sourceId}`)).toMatchObject({ name: 'rows.csv' });
  mailbag.change('UPDATE source SET readAt = ? WHERE id = ?', [daysAgo(31), sourceId]);
  const { lastRun } = await client.send<{ lastRun: { sources: number } }>('POST', '/api/retention/run');
  expect(lastRun.sources).toBe(1);
  await expect(client.get(`/api/sources/${sourceId}`)).rejects.toThrow('404');
  expect(stands(name)).toBe(false);
  expect(filesWith('.', name)).toEqual([]);
  const after = await client.get<Mailing>(`/api/mailings/${mailingId}`);
  expect(after.plan).toMatchObject({ sourceId: null, maps: before.plan.maps });
});
