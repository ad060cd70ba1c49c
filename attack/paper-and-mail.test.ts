import { join } from 'node:path';
import { startBatch } from '../demo/src/start-batch.js';
import { readByOther } from '../testing/other-reader.js';
import { PostOffice, RunningMailbag } from '../testing/running-mailbag.js';
import type { Batch, CopyRow } from '../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../testing/small-mailing.js';

/** Nobody gets a copy twice, by post and by mail, and nobody gets a blank one. */
const mailbag = new RunningMailbag();
let office: PostOffice;
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  await mailbag.client.send('PUT', '/api/settings/office', { returnLine: 'Office · 1 Mill Lane · 04200 Larkmere', country: 'DE' });
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

const paper = {
  name: '{{ name }}',
  street: 'Reed Lane 1',
  postalCode: '99084',
  town: 'Larkmere',
  region: '',
  country: '',
  wantsColumn: null,
  wantsValues: [],
};
type Rows = Parameters<typeof smallMailing>[1];
async function posted(folder: string, rows: Rows, output: object = {}): Promise<{ batch: number; copies: CopyRow[] }> {
  const { client } = mailbag;
  const { mailing } = await smallMailing(client, rows, { folder });
  const { version, plan } = await client.get<{ version: number; plan: { output: object } }>(`/api/mailings/${mailing}`);
  await client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, paper, output: { ...plan.output, ...output } } });
  const { id: batch } = await startBatch<Batch>(client, mailing);
  await client.until<Batch>(`/api/batches/${batch}`, ({ state }) => state === 'done');
  return { batch, copies: await copiesOf(client, batch) };
}
interface Run {
  id: number;
  number: number;
  state: string;
  detail: string | null;
  copies: number;
  sheets: number;
}
const gather = (body: object): Promise<Run> =>
  mailbag.client.send('POST', '/api/print-runs', {
    reasons: ['no-address', 'bounced', 'asked'],
    duplex: false,
    addressSheets: true,
    ...body,
  });
const refusal = (asked: Promise<unknown>): Promise<string> =>
  asked.then(
    (answer) => JSON.stringify(answer),
    (error: Error) => error.message,
  );
/** Makes every record of a batch look as if its time were over, as the rules of retention do it. */
async function expire(batch: number): Promise<void> {
  mailbag.change('UPDATE batch SET finishedAt = ? WHERE id = ?', [new Date(Date.now() - 40 * 86_400_000).toISOString(), batch]);
  await mailbag.client.send('PUT', '/api/retention', { recordDays: 30, copyDays: 0, sourceDays: 0 });
  await mailbag.client.send('POST', '/api/retention/run');
  await mailbag.client.send('PUT', '/api/retention', { recordDays: 0, copyDays: 0, sourceDays: 0 });
}

test('a copy that lies in a print run is not mailed until the run is over', async () => {
  const { batch, copies } = await posted('twice', [['P-1', 'Bae', 'unknown.bae@example.org', 'no']]);
  const [copy] = copies;
  const run = await gather({ batch });
  expect(run).toMatchObject({ state: 'ready', copies: 1 });
  const again = (): Promise<unknown> => mailbag.client.send('POST', `/api/copies/${copy!.id}/send-again`, { address: 'bae@example.org' });
  expect(await refusal(again())).toMatch(/409.*copy-in-print-run.*print run \d/);
  expect(await mailbag.client.send('POST', '/api/copies/many', { action: 'send-again', ids: [copy!.id] })).toMatchObject({ done: 0 });
  await mailbag.client.send('POST', `/api/print-runs/${run.id}/cancel`);
  await again();
  await mailbag.client.until<{ state: string }>(`/api/copies/${copy!.id}`, ({ state }) => state === 'sent');
  // And the other way round: what is on its way by mail is gathered by no run.
  expect(await refusal(gather({ ids: [copy!.id] }))).toContain('print-nothing');
});

test('copies whose record is over are printed as they were made, and not sent with an empty message', async () => {
  const { batch, copies } = await posted('over', [
    ['P-11', 'Expired Ed', 'unknown.ed@example.org', 'yes'],
    ['P-12', 'Expired Ida', '', 'yes'],
  ]);
  const whole = await Promise.all(
    copies.map(async ({ id }) => (await readByOther(await mailbag.client.bytes(`/api/copies/${id}/pdf`)))[0]!.text),
  );
  await expire(batch);
  expect(await refusal(mailbag.client.send('POST', `/api/copies/${copies[0]!.id}/send-again`, { address: 'x@example.org' }))).toContain(
    'record-over-time',
  );
  const run = await gather({ ids: copies.map(({ id }) => id), addressSheets: false });
  expect(run).toMatchObject({ state: 'ready', copies: 2 });
  const pages = (await readByOther(await mailbag.client.bytes(`/api/print-runs/${run.id}/pdf`))).map(({ text }) => text);
  expect([...pages].sort()).toEqual([...whole].sort());
  expect(pages.join()).toContain('Expired Ed');
});

test('a copy that only a password opens is never printed blank: it is said that it cannot be made without', async () => {
  const { batch, copies } = await posted('sealed', [['P-21', 'Sealed Sam', '', 'yes']], { openPassword: '{{ plot }}-{{ name }}' });
  const run = await gather({ ids: [copies[0]!.id], addressSheets: false });
  const pages = await readByOther(await mailbag.client.bytes(`/api/print-runs/${run.id}/pdf`));
  expect(pages[0]!.text).toContain('Sealed Sam');
  await mailbag.client.send('POST', `/api/print-runs/${run.id}/cancel`);
  await expire(batch);
  expect(await refusal(gather({ ids: [copies[0]!.id], addressSheets: false }))).toContain('print-record-gone');
  const runs = await mailbag.client.get<Run[]>('/api/print-runs');
  expect(runs[0]).toMatchObject({ state: 'failed' });
  expect(runs[0]!.detail).toContain('opens with a password only');
});

test('what is printed is what the archive holds: a copy that was changed on the disk stops the run', async () => {
  const { copies } = await posted('changed', [['P-31', 'Changed Cho', '', 'yes']]);
  const { writeFileSync } = await import('node:fs');
  writeFileSync(join(mailbag.data, 'archive', copies[0]!.file), '%PDF-1.7 somebody else');
  expect(await refusal(gather({ ids: [copies[0]!.id] }))).toContain('copy-changed');
});

test('a run that was being put together when the server died is put together by the next start', async () => {
  const rows = Array.from({ length: 300 }, (_, index) => [`R-${index}`, `Reader ${index}`, '', 'yes'] as const);
  const { batch } = await posted('resumed', rows);
  const asked = gather({ batch, addressSheets: false }).catch(() => null);
  await mailbag.client.until<Run[]>('/api/print-runs', ([run]) => run!.copies === 300);
  await mailbag.kill();
  await asked;
  await mailbag.startAgain();
  const [run] = await mailbag.client.until<Run[]>('/api/print-runs', ([one]) => one!.state === 'ready');
  expect(run).toMatchObject({ copies: 300, sheets: 300 });
  const pages = await readByOther(await mailbag.client.bytes(`/api/print-runs/${run!.id}/pdf`));
  for (const [index, { text }] of pages.entries()) expect([index, /Reader \d+/.test(text)]).toEqual([index, true]);
});
