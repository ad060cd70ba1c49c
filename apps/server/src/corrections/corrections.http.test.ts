import type {
  ChecksAnswer,
  CorrectionAnswer,
  FindingsAnswer,
  ImportReport,
  MailingDetail,
  RecordsAnswer,
  SourceSummary,
} from '@mailbag/contract';
import ExcelJS from 'exceljs';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import { smallMailing } from '../../../../testing/small-mailing.js';

const mailbag = new RunningMailbag();
let office: PostOffice;
beforeAll(async () => {
  office = await PostOffice.open();
  await mailbag.start();
  await mailbag.setUp(office);
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

const codes = Array.from({ length: 40 }, (_, index) => String(4471 + index * 7));
const csv = (rows: string[][], headings = ['Plot', 'Name', 'Mail', 'Shed', 'Postal code']): Uint8Array =>
  new TextEncoder().encode(`${[headings, ...rows].map((row) => row.join(',')).join('\r\n')}\r\n`);
const plot = (index: number): string => `A-${String(index).padStart(2, '0')}`;
/** 40 tenants; the codes of the first five have lost their zero. */
const tenants = (): string[][] =>
  codes.map((code, index) => [
    plot(index),
    `Tenant ${'abcdefghij'[index % 10]}`,
    `tenant${index}@example.org`,
    'yes',
    index < 5 ? code : `1${code}`,
  ]);
const upload = async (bytes: Uint8Array): Promise<string> =>
  (await mailbag.client.upload<{ fileId: string }>('/api/sources/files', 'tenants.csv', bytes)).fileId;
const ready = (id: number): Promise<SourceSummary> =>
  mailbag.client.until(`/api/sources/${id}`, ({ state }: SourceSummary) => state !== 'reading');

async function mailingOver(bytes: Uint8Array): Promise<{ source: number; mailing: number }> {
  const { mailing } = await smallMailing(mailbag.client, [['X-1', 'Somebody', 'x@example.org', 'yes']]);
  const { id: source } = await mailbag.client.send<{ id: number }>('POST', '/api/sources', {
    fileIds: [await upload(bytes)],
    name: 'tenants.csv',
    reading: {},
  });
  await ready(source);
  const { version, plan } = await mailbag.client.get<MailingDetail>(`/api/mailings/${mailing}`);
  const [template] = plan.packet;
  const maps = { [template!]: { ...plan.maps[template!], 'permit.site': { kind: 'column', column: 'Postal code' } } };
  await mailbag.client.send('PUT', `/api/mailings/${mailing}`, { version, plan: { ...plan, maps, sourceId: source } });
  await checked(mailing);
  return { source, mailing };
}
const checked = (mailing: number): Promise<ChecksAnswer> =>
  mailbag.client.until(`/api/mailings/${mailing}/checks`, ({ current }: ChecksAnswer) => current);
const found = async (mailing: number): Promise<string[]> =>
  (await mailbag.client.get<FindingsAnswer>(`/api/mailings/${mailing}/findings?from=0&count=100`)).items.map(
    ({ finding }) => `${finding.row} ${finding.code}`,
  );
const cell = async (source: number, index: number, column: number): Promise<string> =>
  (await mailbag.client.get<RecordsAnswer>(`/api/sources/${source}/records?from=${index}&count=1`)).records[0]!.cells[column]!.text;

test('mends are taken over for all alike, undone together, and kept apart from the source with who and when', async () => {
  const { source, mailing } = await mailingOver(csv(tenants()));
  expect(await found(mailing)).toEqual(['2 lost-zeros', '3 lost-zeros', '4 lost-zeros', '5 lost-zeros', '6 lost-zeros']);
  const { changed, step } = await mailbag.client.send<{ changed: number; step: string }>('POST', `/api/mailings/${mailing}/mends`, {
    code: 'lost-zeros',
  });
  expect(changed).toBe(5);
  expect(await found(mailing)).toEqual([]);
  expect(await cell(source, 0, 4)).toBe('04471');
  const [one] = await mailbag.client.get<CorrectionAnswer[]>(`/api/sources/${source}/corrections`);
  expect(one).toMatchObject({ column: 'Postal code', was: codes[4], value: `0${codes[4]}`, who: 'Test Person', state: 'active' });
  await mailbag.client.send('DELETE', `/api/sources/${source}/steps/${step}`);
  expect(await cell(source, 0, 4)).toBe('4471');
  expect(await found(mailing)).toHaveLength(5);
});

test('a corrected value checks again only its record and the checks that compare its column, and a stop can come and go by it', async () => {
  const { source, mailing } = await mailingOver(csv(tenants()));
  await mailbag.client.send('POST', `/api/sources/${source}/corrections`, { row: 10, column: 'Plot', value: plot(9) });
  expect(await found(mailing)).toEqual(expect.arrayContaining(['10 key-twice', '11 key-twice']));
  await mailbag.client.send('POST', `/api/sources/${source}/corrections`, { row: 10, column: 'Mail', value: 'nobody' });
  expect(await found(mailing)).toEqual(expect.arrayContaining(['10 key-twice', '10 address-wrong']));
  await mailbag.client.send('POST', `/api/sources/${source}/corrections`, { row: 10, column: 'Plot', value: plot(8) });
  await mailbag.client.send('POST', `/api/sources/${source}/corrections`, { row: 10, column: 'Mail', value: 'tenant8@example.org' });
  expect((await found(mailing)).filter((one) => !one.includes('lost-zeros'))).toEqual([]);
  expect(await mailbag.client.get(`/api/sources/${source}/corrections`)).toEqual([]);
});

test('a look is accepted with a reason for as long as the value stays, and can be looked at again', async () => {
  const { source, mailing } = await mailingOver(csv(tenants()));
  const look = { looks: [{ row: 2, code: 'lost-zeros', column: 'Postal code', field: null }], reason: 'It is a house number.' };
  await mailbag.client.send('POST', `/api/mailings/${mailing}/acceptances`, look);
  expect(await checked(mailing)).toMatchObject({ accepted: 1, looked: 4 });
  const { items } = await mailbag.client.get<FindingsAnswer>(`/api/mailings/${mailing}/findings?from=0&count=10&accepted=yes`);
  expect(items[0]!.acceptance).toMatchObject({ reason: look.reason, who: 'Test Person' });
  await mailbag.client.send('POST', `/api/sources/${source}/corrections`, { row: 2, column: 'Postal code', value: '4472' });
  expect(await checked(mailing)).toMatchObject({ accepted: 0, looked: 5 });
  await expect(mailbag.client.send('POST', `/api/mailings/${mailing}/acceptances`, { ...look, reason: '' })).rejects.toThrow(
    'Say in a word why',
  );
  // Several go together or not at all.
  const rows = [3, 4].map((row) => ({ ...look.looks[0]!, row }));
  const reason = 'They are house numbers too.';
  await expect(
    mailbag.client.send('POST', `/api/mailings/${mailing}/acceptances`, { looks: [...rows, { ...rows[0]!, row: 999 }], reason }),
  ).rejects.toThrow('not-found');
  expect(await checked(mailing)).toMatchObject({ accepted: 0 });
  expect(await mailbag.client.send('POST', `/api/mailings/${mailing}/acceptances`, { looks: rows, reason })).toEqual({ accepted: 2 });
  expect(await checked(mailing)).toMatchObject({ accepted: 2, looked: 3 });
});

test('the file comes again: corrections are made again by key, what does not fit is said, records left out stay out, a renamed column is linked', async () => {
  const { source, mailing } = await mailingOver(csv(tenants()));
  const correct = (row: number, column: string, value: string): Promise<unknown> =>
    mailbag.client.send('POST', `/api/sources/${source}/corrections`, { row, column, value });
  await correct(2, 'Name', 'Ayumi Brandt');
  await correct(3, 'Name', 'Tomasz Mirov');
  await correct(4, 'Name', 'Iman Quill');
  const before = await mailbag.client.get<MailingDetail>(`/api/mailings/${mailing}`);
  await mailbag.client.send('PUT', `/api/mailings/${mailing}`, { version: before.version, plan: { ...before.plan, leftOut: [7] } });
  // The new file: one record more in front, one gone, one changed, one that has the correction by now, and another heading.
  const rows = tenants();
  rows[1]![1] = 'Somebody Else';
  rows[2]![1] = 'Iman Quill';
  rows.splice(30, 1);
  rows.unshift(['B-99', 'Tenant new', 'new@example.org', 'no', '14999']);
  await mailbag.client.send('PUT', `/api/sources/${source}/reading`, {
    fileIds: [await upload(csv(rows, ['Plot', 'Full name', 'Mail', 'Shed', 'Postal code']))],
  });
  const again = await ready(source);
  expect(again.changes).toMatchObject({
    added: 1,
    gone: 1,
    addedKeys: ['b-99'],
    goneKeys: ['a-30'],
    goneColumns: ['Name'],
    renamed: [{ from: 'Name', to: 'Full name' }],
  });
  expect(again.changes!.corrections.unfit).toHaveLength(3);
  expect(await mailbag.client.send('POST', `/api/sources/${source}/links`, { from: 'Name', to: 'Full name' })).toEqual({ mailings: 1 });
  const after = await mailbag.client.get<MailingDetail>(`/api/mailings/${mailing}`);
  expect(JSON.stringify(after.plan)).not.toContain('"Name"');
  expect(after.plan.leftOut).toEqual([8]);
  await mailbag.client.send('PUT', `/api/sources/${source}/reading`, {});
  const { changes } = await ready(source);
  expect(changes!.corrections).toMatchObject({
    applied: 1,
    fulfilled: 1,
    unfit: [{ key: 'a-01', column: 'Full name', value: 'Tomasz Mirov', why: 'the source now has “Somebody Else”' }],
  });
  expect(await cell(source, 1, 1)).toBe('Ayumi Brandt');
  expect(await cell(source, 2, 1)).toBe('Somebody Else');
});

test('the import report says what came in and opens as a sheet; records leave as open formats, safe to open', async () => {
  const rows = tenants();
  rows[0]![1] = '=1+1';
  const { source, mailing } = await mailingOver(csv(rows));
  const report = await mailbag.client.get<ImportReport>(`/api/sources/${source}/report`);
  expect(report).toMatchObject({ count: 40, mailings: [{ id: mailing, looked: 5, stopped: 0, clean: 35 }] });
  const book = new ExcelJS.Workbook();
  await book.xlsx.load((await mailbag.client.bytes(`/api/sources/${source}/report.xlsx`)).buffer as ArrayBuffer);
  expect(book.worksheets.map(({ name }) => name)).toEqual(['Import', 'Columns', 'Findings', 'Corrections']);
  expect(book.getWorksheet('Findings')!.actualRowCount).toBe(6);
  const text = new TextDecoder().decode(await mailbag.client.bytes(`/api/sources/${source}/records.csv`));
  expect(text).toContain("\nA-00,'=1+1,");
  await book.xlsx.load((await mailbag.client.bytes(`/api/sources/${source}/records.xlsx`)).buffer as ArrayBuffer);
  expect(book.getWorksheet('Records')!.getCell('B2').type).toBe(ExcelJS.ValueType.String);
  const zip = await mailbag.client.bytes(`/api/sources/${source}/records.xfdf`);
  expect(new TextDecoder('latin1').decode(zip)).toContain('A-00.xfdf');
});

test('the starter sheet has a column for every answer, drop-downs for choices, and marks what must be filled', async () => {
  const { mailing } = await smallMailing(mailbag.client, [['X-1', 'Somebody', 'x@example.org', 'yes']]);
  const book = new ExcelJS.Workbook();
  await book.xlsx.load((await mailbag.client.bytes(`/api/mailings/${mailing}/starter.xlsx`)).buffer as ArrayBuffer);
  const sheet = book.getWorksheet('Records')!;
  const headings = (sheet.getRow(1).values as string[]).filter(Boolean);
  const shed = headings.findIndex((heading) => /shed/i.test(heading)) + 1;
  expect(headings.length).toBeGreaterThan(4);
  expect(sheet.getCell(2, shed).dataValidation).toMatchObject({ type: 'list', formulae: ['"yes,no"'] });
});

test('what is typed into a column of decimals behind a comma is a number too, as its file shows them', async () => {
  const file = new TextEncoder().encode('Nr;Beitrag\r\nA-1;182,50\r\nA-2;90,00\r\nA-3;12,75\r\n');
  const { id } = await mailbag.client.send<{ id: number }>('POST', '/api/sources', {
    fileIds: [await upload(file)],
    name: 'fees.csv',
    reading: {},
  });
  expect((await ready(id)).columns[1]).toMatchObject({ name: 'Beitrag', kind: 'number', found: { decimals: 'comma' } });
  await mailbag.client.send('POST', `/api/sources/${id}/corrections`, { row: 2, column: 'Beitrag', value: '1.500' });
  const { records } = await mailbag.client.get<RecordsAnswer>(`/api/sources/${id}/records?from=0&count=3`);
  expect(records.map(({ cells }) => cells[1])).toEqual([
    { text: '1.500', value: 1500 },
    { text: '90,00', value: 90 },
    { text: '12,75', value: 12.75 },
  ]);
});
