import type { CountedRecordsAnswer, PicksAnswer, SurveyAnswer } from '@mailbag/contract';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';

const mailbag = new RunningMailbag();
let base: string;
let template: number;
beforeAll(async () => {
  await (await mailbag.start()).setUp();
  const rows = Array.from({ length: 40 }, (_, at): [string, string, string, string] => [
    `P-${at + 1}`,
    at === 17 ? 'Ayumi Maximiliane Theodora Brandt' : `Tenant ${at + 1}`,
    `p${at + 1}@example.org`,
    at === 3 ? 'perhaps' : at % 4 === 0 ? 'no' : 'yes',
  ]);
  const made = await smallMailing(mailbag.client, rows);
  template = made.template;
  base = `/api/mailings/${made.mailing}`;
  await mailbag.client.until<{ current: boolean }>(`${base}/checks`, ({ current }) => current);
});
afterAll(() => mailbag.close());

const counted = (of: string, value = '') =>
  mailbag.client.get<CountedRecordsAnswer>(`${base}/survey/records?template=${template}&field=permit.shed&of=${of}&value=${value}`);

test('each field is counted over all records, and behind each number stands the list that it counts', async () => {
  const survey = await mailbag.client.get<SurveyAnswer>(`${base}/survey`);
  expect(survey.records).toBe(40);
  const shed = survey.fields.find(({ field }) => field === 'permit.shed')!;
  expect(shed).toMatchObject({ template, empty: 10, stopped: 1, values: [{ value: 'On', count: 29 }] });
  expect((await counted('value', 'On')).total).toBe(29);
  expect((await counted('empty')).items.map(({ index }) => index)).toEqual([0, 4, 8, 12, 16, 20, 24, 28, 32, 36]);
  expect((await counted('stopped')).items.map(({ record }) => record.cells[0]!.text)).toEqual(['P-4']);
  const name = survey.fields.find(({ field }) => field === 'permit.name')!;
  expect(name.longest).toMatchObject({ value: 'Ayumi Maximiliane Theodora Brandt', index: 17 });
});

test('records worth looking at are picked, each once with all its reasons, and the same for the same seed', async () => {
  const picks = (wish: string) => mailbag.client.get<PicksAnswer>(`${base}/picks?${wish}`);
  const { items } = await picks('why=first,last,longest,emptiest,flagged');
  expect(items.map(({ index, why }) => [index, why])).toEqual([
    [0, ['first', 'emptiest']],
    [3, ['flagged']],
    [17, ['longest']],
    [39, ['last']],
  ]);
  const values = await picks('why=value&column=Shed');
  expect(values.items.map(({ value, index }) => [value, index])).toEqual([['no', 0], ['yes', 1], ['perhaps', 3]]); // prettier-ignore
  const chance = (await picks('why=random&random=5&seed=3')).items.map(({ index }) => index);
  expect(new Set(chance).size).toBe(5);
  expect((await picks('why=random&random=5&seed=3')).items.map(({ index }) => index)).toEqual(chance);
  // Of more than fit on a sheet the first are told, and how many there are.
  const all = await picks('why=value&column=Plot');
  expect([all.items.length, all.total]).toEqual([40, 40]);
});

test('a record that is left out is counted nowhere', async () => {
  const { version, plan } = await mailbag.client.get<{ version: number; plan: object }>(base);
  await mailbag.client.send('PUT', base, { version, plan: { ...plan, leftOut: [2] } });
  expect((await mailbag.client.get<SurveyAnswer>(`${base}/survey`)).records).toBe(39);
  expect((await counted('empty')).total).toBe(9);
  const { items } = await mailbag.client.get<PicksAnswer>(`${base}/picks?why=first`);
  expect(items.map(({ index }) => index)).toEqual([1]);
});

test('without records there is nothing to count, and that is said', async () => {
  const { id } = await mailbag.client.send<{ id: number }>('POST', '/api/mailings', { name: 'Empty' });
  await expect(mailbag.client.get(`/api/mailings/${id}/survey`)).rejects.toThrow('mailing-no-template');
});
