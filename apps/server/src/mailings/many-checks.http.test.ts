import type { ChecksAnswer, FindingsAnswer } from '@mailbag/contract';
import ExcelJS from 'exceljs';
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

test('findings are searched by what stands in their records, put in order, and written into files as they are listed', async () => {
  const { mailing } = await smallMailing(mailbag.client, [
    ['P-1', 'Ada Quist', 'ada@example.org', 'perhaps'],
    ['P-2', 'Bea Brandt', 'bea@example.org', 'maybe'],
    ['P-3', '=Cleo', 'cleo@example.org', 'later'],
    ['P-4', 'Dirk', 'dirk@example.org', 'yes'],
  ]);
  const base = `/api/mailings/${mailing}`;
  await mailbag.client.until<ChecksAnswer>(`${base}/checks`, ({ current }) => current);
  const values = async (query: string): Promise<string[]> =>
    (await mailbag.client.get<FindingsAnswer>(`${base}/findings?from=0&count=100&severity=stop${query}`)).items.map(
      ({ finding }) => finding.value,
    );
  expect(await values('')).toEqual(['perhaps', 'maybe', 'later']);
  expect(await values('&sort=value')).toEqual(['later', 'maybe', 'perhaps']);
  expect(await values('&sort=row&down=yes')).toEqual(['later', 'maybe', 'perhaps']);
  expect(await values('&text=brandt')).toEqual(['maybe']);
  expect(await values('&text=nobody')).toEqual([]);
  const csv = Buffer.from(await mailbag.client.bytes(`${base}/findings.csv?severity=stop&sort=value`)).toString('utf8');
  const lines = csv.replace('\ufeff', '').trim().split('\r\n');
  expect(lines[0]).toMatch(/^Row,Plot,Weight,Kind,Column,Field,Value,/);
  expect(lines.slice(1).map((line) => line.split(',').slice(0, 3))).toEqual([['4', 'P-3', 'stop'], ['3', 'P-2', 'stop'], ['2', 'P-1', 'stop']]); // prettier-ignore
  const book = new ExcelJS.Workbook();
  await book.xlsx.load((await mailbag.client.bytes(`${base}/findings.xlsx?text=quist`)).buffer as ArrayBuffer);
  expect(book.worksheets[0]!.getRow(2).values).toEqual(expect.arrayContaining(['P-1', 'perhaps']));
  await expect(mailbag.client.get(`${base}/findings?from=0&count=10&sort=name`)).rejects.toThrow('400');
});
