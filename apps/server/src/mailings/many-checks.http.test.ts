import type { ChecksAnswer, FindingsAnswer } from '@mailbag/contract';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';

const mailbag = new RunningMailbag();
beforeAll(async () => void (await (await mailbag.start()).setUp()));
afterAll(() => mailbag.close());

// More than one thread looks at so many.
const MANY = 4200;

test('of many records each thread looks at a stretch, and what was found is as if one had looked at all', async () => {
  const rows = Array.from({ length: MANY }, (_, at): [string, string, string, string] => [
    // The first one and the last one share a key: no stretch holds both.
    at === MANY - 1 ? 'P-1' : `P-${at + 1}`,
    `Tenant ${at + 1}`,
    `p${at + 1}@example.org`,
    [99, 2099, 2100, 4100].includes(at) ? 'perhaps' : 'yes',
  ]);
  const { mailing } = await smallMailing(mailbag.client, rows);
  const base = `/api/mailings/${mailing}`;
  const settled = (): Promise<ChecksAnswer> => mailbag.client.until<ChecksAnswer>(`${base}/checks`, ({ current }) => current);
  const placesOf = async (code: string): Promise<number[]> =>
    (await mailbag.client.get<FindingsAnswer>(`${base}/findings?code=${code}&from=0&count=100`)).items.map(({ index }) => index);
  const checks = await settled();
  expect(checks).toMatchObject({ records: MANY, stopped: 6, error: null });
  const choice = checks.groups.find(({ records }) => records === 4)!;
  expect(await placesOf(choice.code)).toEqual([99, 2099, 2100, 4100]);
  expect(await placesOf('key-twice')).toEqual([0, MANY - 1]);

  // A second run replaces the findings of the first.
  const { version, plan } = await mailbag.client.get<{ version: number; plan: object }>(base);
  await mailbag.client.send('PUT', base, { version, plan: { ...plan, leftOut: [101, MANY + 1] } });
  expect(await settled()).toMatchObject({ stopped: 3, leftOut: 2 });
  expect(await placesOf(choice.code)).toEqual([2099, 2100, 4100]);
});
