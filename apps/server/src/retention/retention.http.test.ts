import { existsSync, readFileSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'libsql';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../../../../testing/small-mailing.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

/** Makes a batch look as if it had ended so many days ago. */
async function aged(folder: string, name: string, days: number): Promise<number> {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, [['K-1', name, '', 'yes']], { mailed: false, folder });
  const { id } = await client.send<Batch>('POST', `/api/mailings/${mailing}/batches`);
  await client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  const database = new Database(join(mailbag.data, 'mailbag.sqlite'));
  database.pragma('busy_timeout = 5000');
  database.prepare('UPDATE batch SET finishedAt = ? WHERE id = ?').run([new Date(Date.now() - days * 86_400_000).toISOString(), id]);
  database.close();
  return id;
}
/** Whether a text stands anywhere in the database or its log. */
const stands = (text: string): boolean =>
  readdirSync(mailbag.data).some((name) => name.startsWith('mailbag.sqlite') && readFileSync(join(mailbag.data, name)).includes(text));

test('what is over its time is gone: rows, words of the search, files, and what the database wrote over', async () => {
  const { client } = mailbag;
  const [name, kept] = ['Xanthippe Quagmire', 'Ysolde Kept'];
  const old = await aged('old', name, 40);
  const young = await aged('young', kept, 5);
  const [copy] = await copiesOf(client, old);
  expect((await client.get<{ rows: unknown[] }>('/api/copies?text=quagmire')).rows).toHaveLength(1);
  // The source stays: it is the office's own. What belongs to the batch alone, such as the code, must be nowhere.
  await client.send('PUT', '/api/retention', { recordDays: 30, copyDays: 30 });
  const { lastRun } = await client.send<{ lastRun: { copies: number } }>('POST', '/api/retention/run');
  expect(lastRun.copies).toBe(1);
  expect(await copiesOf(client, old)).toEqual([]);
  expect(await copiesOf(client, young)).toHaveLength(1);
  expect(existsSync(join(mailbag.data, 'archive', copy!.file))).toBe(false);
  expect(existsSync(join(mailbag.data, 'archive/old'))).toBe(false);
  expect((await client.get<{ rows: unknown[] }>('/api/copies?text=quagmire')).rows).toEqual([]);
  expect(stands(copy!.code)).toBe(false);
  expect(stands(kept)).toBe(true);
});

test('values can go earlier than the copies', async () => {
  const { client } = mailbag;
  const id = await aged('values', 'Zebedee Values', 12);
  await client.send('PUT', '/api/retention', { recordDays: 10, copyDays: 0 });
  await client.send('POST', '/api/retention/run');
  const [copy] = await copiesOf(client, id);
  const { record } = await client.get<{ record: { text: string }[] }>(`/api/copies/${copy!.id}`);
  expect(record.every(({ text }) => text === '')).toBe(true);
  expect(existsSync(join(mailbag.data, 'archive', copy!.file))).toBe(true);
});
