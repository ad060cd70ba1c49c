import type { BatchSummary, MailingPlan, StartEstimate, StartList, StartPreview } from '@mailbag/contract';
import { startBatch } from '../../../../demo/src/start-batch.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

type Row = [plot: string, name: string, mail: string, shed: string];
const rows = (letter: string, count: number): Row[] =>
  Array.from({ length: count }, (_, at) => [`${letter}${at + 1}`, `T ${letter}${at + 1}`, '', 'yes']);
let folders = 0;
const mailingOf = async (list: Row[]): Promise<number> =>
  (await smallMailing(mailbag.client, list, { mailed: false, folder: `start ${++folders}` })).mailing;
const look = (mailing: number, who: string, more: object = {}): Promise<StartPreview> =>
  mailbag.client.send('POST', `/api/mailings/${mailing}/start`, { who, ...more });
const done = async (batch: { id: number }): Promise<BatchSummary> =>
  mailbag.client.until<BatchSummary>(`/api/batches/${batch.id}`, ({ state }) => state === 'done');
const start = (mailing: number, shown: StartPreview, startKey: string, more: object = {}): Promise<BatchSummary> =>
  mailbag.client.send('POST', `/api/mailings/${mailing}/batches`, {
    who: shown.who,
    digest: shown.digest,
    version: shown.version,
    startKey,
    ...more,
  });
const key = (): string => `wish-${Math.random().toString(36).slice(2).padEnd(16, '0')}`;
interface Saved {
  version: number;
  plan: MailingPlan;
}
const change = async (mailing: number, update: (plan: MailingPlan) => MailingPlan): Promise<void> => {
  const { version, plan } = await mailbag.client.get<Saved>(`/api/mailings/${mailing}`);
  await mailbag.client.send('PUT', `/api/mailings/${mailing}`, { version, plan: update(plan) });
};
const sourceOf = async (mailing: number): Promise<number> => (await mailbag.client.get<Saved>(`/api/mailings/${mailing}`)).plan.sourceId!;

test('those who have a copy are told from those who have none, over all batches, whatever row they stand in now', async () => {
  const mailing = await mailingOf(rows('A', 5));
  expect(await look(mailing, 'new')).toMatchObject({ records: 5, sizes: { new: 5, changed: 0, everybody: 5 }, counts: { 'has-one': 0 } });
  await done(await startBatch(mailbag.client, mailing, 'selection', [2, 3]));
  const shown = await look(mailing, 'new');
  expect(shown).toMatchObject({ records: 3, counts: { 'has-one': 2 } });
  const list = await mailbag.client.get<StartList>(`/api/mailings/${mailing}/start/${shown.digest}/has-one?from=0&count=10`);
  expect(list.rows.map(({ key: plot, row }) => [plot, row])).toEqual([
    ['A1', 2],
    ['A2', 3],
  ]);
  // The sheet comes again with another order and somebody new.
  const csv = `Plot,Name,Mail,Shed\r\n${[...rows('A', 5).reverse(), ['A9', 'New', '', 'no']].map((row) => row.join(',')).join('\r\n')}\r\n`;
  const { fileId } = await mailbag.client.upload<{ fileId: string }>('/api/sources/files', 'rows.csv', new TextEncoder().encode(csv));
  const source = await sourceOf(mailing);
  await mailbag.client.send('PUT', `/api/sources/${source}/reading`, { fileIds: [fileId] });
  await mailbag.client.until<{ state: string; count: number }>(
    `/api/sources/${source}`,
    ({ state, count }) => state === 'ready' && count === 6,
  );
  expect(await look(mailing, 'new')).toMatchObject({ records: 4, counts: { 'has-one': 2 } });
});

test('whose values changed since their copy is found by what stands in the copy, and by nothing else', async () => {
  const mailing = await mailingOf(rows('B', 4));
  await done(await startBatch(mailbag.client, mailing));
  const source = await sourceOf(mailing);
  const correct = (row: number, column: string, value: string): Promise<unknown> =>
    mailbag.client.send('POST', `/api/sources/${source}/corrections`, { row, column, value });
  await correct(2, 'Name', 'Another name');
  // The address stands in no field of the copy.
  await correct(3, 'Mail', 'new@example.org');
  expect(await look(mailing, 'changed')).toMatchObject({
    records: 1,
    counts: { unchanged: 3, 'none-yet': 0 },
    sizes: { new: 0, changed: 1 },
  });
  await done(await startBatch(mailbag.client, mailing, 'changed'));
  expect(await look(mailing, 'changed')).toMatchObject({ records: 0, counts: { unchanged: 4 } });
});

test('a copy that was withdrawn, and a batch that was cancelled, leave somebody without one', async () => {
  const mailing = await mailingOf(rows('C', 3));
  const { id } = await done(await startBatch(mailbag.client, mailing));
  expect((await look(mailing, 'new')).records).toBe(0);
  const { rows: copies } = await mailbag.client.get<{ rows: { id: number }[] }>(`/api/copies?batch=${id}`);
  await mailbag.client.send('POST', `/api/copies/${copies[0]!.id}/withdraw`);
  expect((await look(mailing, 'new')).records).toBe(1);
});

test('copies that were deleted when their time was over are known on, without a word of whose they were', async () => {
  const mailing = await mailingOf(rows('D', 3));
  const { id } = await done(await startBatch(mailbag.client, mailing));
  await mailbag.client.send('PUT', '/api/retention', { recordDays: 0, copyDays: 1, sourceDays: 0 });
  const database = mailbag.beside();
  database.prepare("UPDATE batch SET finishedAt = '2020-01-01' WHERE id = ?").run([id]);
  await mailbag.client.send('POST', '/api/retention/run');
  await mailbag.client.send('PUT', '/api/retention', { recordDays: 0, copyDays: 0, sourceDays: 0 });
  expect(database.prepare('SELECT COUNT(*) AS count FROM batch_record WHERE batchId = ?').all([id])).toEqual([{ count: 0 }]);
  database.close();
  expect(await look(mailing, 'new')).toMatchObject({ records: 0, counts: { 'has-one': 3 } });
});

test('another record key knows everybody again, as long as the records are kept', async () => {
  const mailing = await mailingOf(rows('E', 3));
  await done(await startBatch(mailbag.client, mailing));
  await change(mailing, (plan) => ({ ...plan, keyColumn: 'Name' }));
  expect(await look(mailing, 'new')).toMatchObject({ records: 0, counts: { 'has-one': 3 }, unknownBatches: [] });
});

test('the same wish twice begins one batch, two wishes at once one as well, and the second is told why', async () => {
  const mailing = await mailingOf(rows('F', 4));
  const shown = await look(mailing, 'new');
  const wish = key();
  const [one, two] = await Promise.all([start(mailing, shown, wish), start(mailing, shown, wish)]);
  expect(one.id).toBe(two.id);
  const other = await mailingOf(rows('G', 4));
  const seen = await look(other, 'new');
  const outcomes = await Promise.all(
    [key(), key(), key()].map((own) =>
      start(other, seen, own).then(
        ({ id }) => String(id),
        (error: Error) => error.message,
      ),
    ),
  );
  expect(outcomes.filter((outcome) => /^\d+$/.test(outcome))).toHaveLength(1);
  expect(outcomes.filter((outcome) => /start-outdated/.test(outcome))).toHaveLength(2);
});

test('everybody again needs the number, and counts for what was shown', async () => {
  const mailing = await mailingOf(rows('H', 3));
  await done(await startBatch(mailbag.client, mailing));
  const shown = await look(mailing, 'everybody');
  expect(shown).toMatchObject({ records: 3, counts: { again: 3 } });
  await expect(start(mailing, shown, key())).rejects.toThrow('start-not-confirmed');
  await expect(start(mailing, shown, key(), { confirmation: 2 })).rejects.toThrow('start-not-confirmed');
  expect(await start(mailing, shown, key(), { confirmation: 3 })).toMatchObject({ records: 3 });
  // What was shown before that batch holds no more.
  await expect(start(mailing, shown, key(), { confirmation: 3 })).rejects.toThrow('start-outdated');
});

test.each<[string, (mailing: number) => Promise<unknown>]>([
  ['the plan', (mailing) => change(mailing, (plan) => ({ ...plan, output: { ...plan.output, file: '{{ name }}.pdf' } }))],
  [
    'a value',
    async (mailing) =>
      mailbag.client.send('POST', `/api/sources/${await sourceOf(mailing)}/corrections`, { row: 2, column: 'Name', value: 'Other' }),
  ],
  ['who is left out', (mailing) => change(mailing, (plan) => ({ ...plan, leftOut: [3] }))],
])('when %s changes after somebody has looked, nothing begins', async (_, happens) => {
  const mailing = await mailingOf(rows('I', 3));
  const shown = await look(mailing, 'new');
  await happens(mailing);
  await expect(start(mailing, shown, key())).rejects.toThrow('start-outdated');
  expect((await mailbag.client.get<{ batches: unknown[] }>(`/api/mailings/${mailing}`)).batches).toEqual([]);
});

test('a map that fills nothing does not run, and fields without a rule are told', async () => {
  const mailing = await mailingOf(rows('J', 2));
  expect((await look(mailing, 'new')).unmapped.length).toBeGreaterThan(0);
  await change(mailing, (plan) => ({ ...plan, maps: {} }));
  await expect(look(mailing, 'new')).rejects.toThrow('mailing-map-empty');
  await expect(startBatch(mailbag.client, mailing)).rejects.toThrow('mailing-map-empty');
});

test('records to choose from are found by what they hold and by what became of them', async () => {
  const mailing = await mailingOf(rows('K', 12));
  const find = (query: string): Promise<{ rows: number[] }> => mailbag.client.get(`/api/mailings/${mailing}/records?${query}`);
  expect((await find('text=t+k1')).rows).toEqual([2, 11, 12, 13]);
  await mailbag.client.send('POST', `/api/sources/${await sourceOf(mailing)}/corrections`, { row: 5, column: 'Name', value: 'Mended' });
  expect((await find('only=corrected')).rows).toEqual([5]);
});

test('how much the copies weigh is told before they are made, as it turns out to be', async () => {
  // The faces for one name lie in every copy.
  const mailing = await mailingOf([...rows('W', 29), ['W30', 'Łucja Świętochłowska', '', 'no']]);
  const shown = await look(mailing, 'everybody');
  const estimate = await mailbag.client.get<StartEstimate>(`/api/mailings/${mailing}/estimate/${shown.digest}`);
  expect(estimate).toMatchObject({ server: null, sendingSeconds: null });
  expect(estimate.makingSeconds).toBeGreaterThan(0);
  const batch = await done(await start(mailing, shown, key()));
  const { rows: copies } = await mailbag.client.get<{ rows: { id: number }[] }>(`/api/copies?batch=${batch.id}&count=200`);
  const sizes = await Promise.all(copies.map(async ({ id }) => (await mailbag.client.bytes(`/api/copies/${id}/pdf`)).byteLength));
  const whole = sizes.reduce((sum, size) => sum + size, 0);
  expect(Math.abs(estimate.bytes - whole) / whole).toBeLessThan(0.05);
  await expect(mailbag.client.get(`/api/mailings/${mailing}/estimate/${'0'.repeat(64)}`)).rejects.toThrow('start-outdated');
});
