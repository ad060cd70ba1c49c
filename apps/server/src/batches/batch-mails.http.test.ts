import { cpSync, mkdtempSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { PostOffice, RunningMailbag, person } from '../../../../testing/running-mailbag.js';
import type { Batch } from '../../../../testing/small-mailing.js';
import { smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';
import { until } from '../../../../testing/until.js';

let office: PostOffice;
const mailbag = new RunningMailbag();
const rows: [string, string, string, string][] = [1, 2, 3].map((at) => [`B-${at}`, `T ${at}`, `b${at}@example.org`, 'no']);
const toldOf = async (): Promise<string[]> =>
  (await office.letters()).filter(({ to }) => to === person.email).map(({ subject }) => subject);
const wish = (mailsBatches: boolean): Promise<void> => mailbag.client.send('PUT', '/api/people/me/mails', { mailsBatches });

/** A batch that began so many seconds earlier than it did, and ends. Its mails wait until that is done. */
async function ended(folder: string, secondsAgo: number): Promise<number> {
  await office.behave('mood=busy');
  const { mailing } = await smallMailing(mailbag.client, rows, { folder });
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'sending');
  mailbag.change('UPDATE batch SET startedAt = ? WHERE id = ?', [new Date(Date.now() - secondsAgo * 1000).toISOString(), id]);
  await office.behave('mood=well');
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  return id;
}

/** The state of a batch that its starter was told of, or that was passed over. */
function toldState(of: RunningMailbag, id: number): string {
  const database = of.beside();
  const batch = database.prepare('SELECT toldState FROM batch WHERE id = ?').get(id) as { toldState: string };
  database.close();
  return batch.toldState;
}

beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

test('nobody is told who does not wish it, nor whoever waited before a short batch', async () => {
  const unwished = await ended('unwished', 600);
  // A wish counts from when a batch is passed over, which is a moment after it ended.
  await until(() => toldState(mailbag, unwished) === 'done', 'the batch that nobody wished to be told of was passed over');
  await wish(true);
  expect((await mailbag.client.get<{ account: { mailsBatches: boolean } }>('/api/account')).account.mailsBatches).toBe(true);
  await ended('short', 0);
  // What is told later comes after what would have been told before it.
  const long = await ended('long', 300);
  await until(async () => (await toldOf()).length > 0, 'whoever started a long batch was told');
  const { number } = await mailbag.client.get<{ number: number }>(`/api/batches/${long}`);
  expect(await toldOf()).toEqual([expect.stringMatching(new RegExp(`^Batch ${number} of .* is done$`))]);
});

test('the mail tells what became of the copies and how long it took', async () => {
  const [letter] = (await office.letters()).filter(({ to }) => to === person.email);
  const text = await office.raw(letter!.id);
  expect(text).toMatch(/It took 5 minutes\.\s+3 sent\.\s+You get this because/);
});

test('a server that falls and rises tells nobody twice, and nothing of what nobody wished to know when it ended', async () => {
  const before = (await toldOf()).length;
  await mailbag.kill();
  await mailbag.startAgain();
  const { jobs } = await mailbag.client.get<{ jobs: { kind: string; state: string }[] }>('/api/jobs');
  expect(jobs.filter(({ kind, state }) => kind === 'batch-mail' && state !== 'done')).toEqual([]);
  await ended('after a fall', 300);
  await until(async () => (await toldOf()).length > before, 'the next batch was told');
  expect((await toldOf()).length).toBe(before + 1);
});

test('what ended while the server was down is told at its start, and tried again while no mail server takes it', async () => {
  const before = (await toldOf()).length;
  const id = await ended('while down', 0);
  await mailbag.kill();
  mailbag.change("UPDATE batch SET startedAt = ?, toldState = '' WHERE id = ?", [new Date(Date.now() - 7_200_000).toISOString(), id]);
  await office.behave('mood=busy');
  await mailbag.startAgain();
  const jobs = (): Promise<{ jobs: { kind: string; attempts: number }[] }> => mailbag.client.get('/api/jobs');
  await until(async () => (await jobs()).jobs.some((one) => one.kind === 'batch-mail' && one.attempts > 0), 'the mail was tried in vain');
  expect((await toldOf()).length).toBe(before);
  await office.behave('mood=well');
  await until(async () => (await toldOf()).length > before, 'it was told when mail went again');
  expect((await toldOf()).length).toBe(before + 1);
});

test('a folder that was copied while a mail waited tells nobody: the one that it comes from does', async () => {
  const id = await ended('copied', 0);
  const before = (await toldOf()).length;
  await mailbag.kill();
  mailbag.change("UPDATE batch SET startedAt = ?, toldState = '' WHERE id = ?", [new Date(Date.now() - 7_200_000).toISOString(), id]);
  const data = mkdtempSync(join(tmpdir(), 'mailbag-copied-'));
  cpSync(mailbag.data, data, { recursive: true, filter: (path) => !path.endsWith('mailbag.pid') });
  const copied = new RunningMailbag({}, data);
  await copied.startAgain();
  expect((await copied.client.get<{ held: object | null }>('/api/safety/hold')).held).not.toBeNull();
  await until(() => toldState(copied, id) === 'done', 'the copied folder passed the batch over');
  expect((await toldOf()).length).toBe(before);
  await copied.close();
  await mailbag.startAgain();
  await until(async () => (await toldOf()).length > before, 'the folder itself told it');
  expect((await toldOf()).length).toBe(before + 1);
});
