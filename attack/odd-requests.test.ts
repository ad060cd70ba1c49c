import { existsSync, rmSync } from 'node:fs';
import { join } from 'node:path';
import { startBatch } from '../demo/src/start-batch.js';
import { RunningMailbag } from '../testing/running-mailbag.js';
import type { Batch } from '../testing/small-mailing.js';
import { copiesOf, smallMailing } from '../testing/small-mailing.js';

/** What nobody's screen sends, and what nobody's sheet should hold, is answered by a sentence. */
const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());
const refusal = (asked: Promise<unknown>): Promise<string> =>
  asked.then(
    (answer) => JSON.stringify(answer),
    (error: Error) => error.message,
  );
interface Detail {
  version: number;
  plan: Record<string, object> & { maps: Record<string, Record<string, object>>; sourceId: number };
}

test('a plan with a rule or a check that there is none of is not saved', async () => {
  const { mailing, template } = await smallMailing(mailbag.client, [['P-1', 'Ann', '', 'no']], { mailed: false });
  const { version, plan } = await mailbag.client.get<Detail>(`/api/mailings/${mailing}`);
  const save = (change: object): Promise<string> =>
    refusal(mailbag.client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, ...change } }));
  for (const rule of [
    { kind: 'formula', text: 'x' },
    { kind: 'column' },
    { kind: 'translate', column: 'Shed', table: 'all' },
    'column',
    null,
    { kind: 'compose', parts: [{}] },
  ])
    expect(await save({ maps: { [template]: { 'permit.plot': rule } } })).toMatch(/ 422 .*rule-unknown.*permit\.plot/);
  expect(await save({ checks: { columns: { Plot: { loud: true } } } })).toContain('check-unknown');
  expect(await mailbag.client.get<Detail>(`/api/mailings/${mailing}`)).toMatchObject({ version, plan });
});

test('copies never lie among the files that the archive keeps itself', async () => {
  const { mailing } = await smallMailing(
    mailbag.client,
    [
      ['R-1', 'Manifests', '', 'no'],
      ['R-2', 'combined', '', 'no'],
    ],
    { mailed: false, folder: '{{ name }}' },
  );
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  expect((await copiesOf(mailbag.client, id)).map(({ file }) => file).sort()).toEqual([
    'Manifests copies/R-1.pdf',
    'combined copies/R-2.pdf',
  ]);
});

/** ATTACK=whole in the environment: forty thousand findings. */
const MANY = process.env.ATTACK === 'whole' ? 20_000 : 8000;
test('an import with findings by the ten thousand is listed and reported', async () => {
  const rows = Array.from({ length: MANY }, (_, index) => [`far-too-long-a-plot-${index}`, ' Odd  Name', 'no address', 'maybe'] as const);
  const { mailing } = await smallMailing(mailbag.client, rows, { mailed: false, folder: 'many' });
  await mailbag.client.until<{ current: boolean }>(`/api/mailings/${mailing}/checks`, ({ current }) => current);
  const { plan } = await mailbag.client.get<Detail>(`/api/mailings/${mailing}`);
  const { total } = await mailbag.client.get<{ total: number }>(`/api/mailings/${mailing}/findings?from=0&count=500`);
  expect(total).toBeGreaterThan(2 * MANY);
  expect((await mailbag.client.bytes(`/api/sources/${plan.sourceId}/report.xlsx`)).length).toBeGreaterThan(100_000);
});

test('a file that is gone from the data folder is a sentence, and says nothing of where it lay', async () => {
  const { mailing, template } = await smallMailing(mailbag.client, [['G-1', 'Gone', '', 'no']], { mailed: false, folder: 'gone' });
  const { id } = await startBatch<Batch>(mailbag.client, mailing);
  await mailbag.client.until<Batch>(`/api/batches/${id}`, ({ state }) => state === 'done');
  const [copy] = await copiesOf(mailbag.client, id);
  rmSync(join(mailbag.data, 'archive', copy!.file));
  rmSync(join(mailbag.data, 'templates'), { recursive: true });
  for (const path of [`/api/copies/${copy!.id}/pdf`, `/api/templates/${template}/pdf`]) {
    const answer = await refusal(mailbag.client.bytes(path));
    expect(answer).toMatch(/: 404 /);
    expect(answer).not.toContain(mailbag.data);
  }
  expect(existsSync(mailbag.data)).toBe(true);
});
