import { readdirSync } from 'node:fs';
import { join } from 'node:path';
import type { CurrentTrialAnswer, LedgerCounts, TrialAnswer } from '@mailbag/contract';
import { readByOther } from '../../../../testing/other-reader.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';
import { unzip } from '../../../../packages/core/src/testing/unzip.js';

const mailbag = new RunningMailbag();
let base: string;
beforeAll(async () => {
  await (await mailbag.start()).setUp();
  const { mailing } = await smallMailing(mailbag.client, [
    ['P-1', 'Ada Quist', 'ada@example.org', 'yes'],
    ['P-2', 'Łucja Brandt', 'lucja@example.org', 'no'],
    ['P-2', 'Cleo Duyvis', 'cleo@example.org', 'yes'],
  ]);
  base = `/api/mailings/${mailing}/trial`;
});
afterAll(() => mailbag.close());
const spooled = (): string[] => readdirSync(join(mailbag.data, 'spool')).filter((name) => name.startsWith('trial-'));

test('copies are made as a batch would make them, to be opened and taken as a zip, and leave no trace but themselves', async () => {
  const made = await mailbag.client.send<TrialAnswer>('POST', base, { indexes: [0, 1, 2], mailed: false });
  expect(made).toMatchObject({ indexes: [0, 1, 2], faults: [], mail: null });
  expect(made.copies.map(({ file, index, number }) => [file, index, number])).toEqual([['P-1.pdf', 0, 0], ['P-2.pdf', 1, 1], ['P-2.pdf', 2, 2]]); // prettier-ignore
  const [page] = await readByOther(await mailbag.client.bytes(`${base}/copies/1`));
  expect(page!.text).toContain('Łucja Brandt');
  expect(page!.fields).toEqual([]);
  const zip = unzip(new Uint8Array(await mailbag.client.bytes(`${base}/copies.zip`)));
  expect(zip.parts.map(({ name }) => name)).toEqual(['P-1.pdf', 'P-2.pdf', 'P-2 (2).pdf']);
  expect((await mailbag.client.get<LedgerCounts>('/api/copies/counts')).total).toBe(0);
  expect(await mailbag.client.get('/api/batches')).toEqual([]);
  expect(spooled()).toHaveLength(3);
});

test('the next one takes its place, it comes back with the screen, and it goes with one request', async () => {
  await mailbag.client.send('POST', base, { indexes: [0], mailed: false });
  expect(spooled()).toHaveLength(1);
  expect((await mailbag.client.get<CurrentTrialAnswer>(base)).trial!.indexes).toEqual([0]);
  await mailbag.client.send('DELETE', base);
  expect(spooled()).toEqual([]);
  expect(await mailbag.client.get(base)).toEqual({ trial: null });
  await expect(mailbag.client.bytes(`${base}/copies/0`)).rejects.toThrow('404');
  await expect(mailbag.client.send('POST', base, { indexes: [99], mailed: false })).rejects.toThrow('404');
});

test('a record of which no copy can be made says why, and the others are made', async () => {
  const mailing = base.replace('/trial', '');
  const { version, plan } = await mailbag.client.get<{ version: number; plan: { output: object } }>(mailing);
  const openPassword = '{% if plot == "P-1" %}{% for i in (1..130) %}x{% endfor %}{% else %}{{ plot }}-{{ name }}{% endif %}';
  await mailbag.client.send('PUT', mailing, { version, plan: { ...plan, output: { ...plan.output, openPassword } } });
  const made = await mailbag.client.send<TrialAnswer>('POST', base, { indexes: [0, 2], mailed: false });
  expect(made.copies.map(({ index, openPassword: opens }) => [index, opens])).toEqual([[2, 'P-2-Cleo Duyvis']]);
  expect(made.faults).toEqual([{ index: 0, why: expect.stringMatching(/password/i) as string }]);
});
