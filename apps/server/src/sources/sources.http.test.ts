import { tenancies } from '../../../../demo/src/tenancies.js';
import { tenancyWorkbook } from '../../../../demo/src/workbooks.js';
import { RunningMailbag } from '../../../../testing/running-mailbag.js';

const mailbag = new RunningMailbag();
beforeAll(async () => (await mailbag.start()).setUp());
afterAll(() => mailbag.close());

const text = (content: string): Uint8Array => new TextEncoder().encode(content);
type File = {
  fileId: string;
  excerpt: { sheet: string | null; sheets: { name: string }[]; headingRow: number; rows: { cells: string[] }[] };
};
const read = async (name: string, bytes: Uint8Array, reading: object = {}) => {
  const { fileId } = await mailbag.client.upload<File>('/api/sources/files', name, bytes);
  const { id } = await mailbag.client.send<{ id: number }>('POST', '/api/sources', { fileIds: [fileId], name, reading });
  return mailbag.client.until<{ id: number; state: string; count: number; columns: { name: string }[]; error: { message: string } | null }>(
    `/api/sources/${id}`,
    ({ state }) => state !== 'reading',
  );
};

test('a workbook shows its first rows before anything is accepted, with the headings guessed below the title', async () => {
  const file = await mailbag.client.upload<File>('/api/sources/files', 'tenancies.xlsx', await tenancyWorkbook(tenancies()));
  expect(file.excerpt).toMatchObject({ sheet: '2027', headingRow: 3 });
  expect(file.excerpt.sheets.map(({ name }) => name)).toEqual(['2027', 'Notes']);
  const other = await mailbag.client.get<File>(`/api/sources/files/${file.fileId}/excerpt?sheet=Notes`);
  expect(other.excerpt.rows[0]!.cells[0]).toContain('Rent is');
});

test('records come in blocks by their place, and can be found by any word on them', async () => {
  const { id, count, columns } = await read('tenancies.xlsx', await tenancyWorkbook(tenancies()));
  expect([count, columns.length]).toEqual([480, 25]);
  const page = await mailbag.client.get<{ total: number; records: { row: number; cells: { text: string }[] }[] }>(
    `/api/sources/${id}/records?from=478&count=50`,
  );
  expect([page.total, page.records.length, page.records[0]!.row, page.records[0]!.cells[0]!.text]).toEqual([480, 2, 482, 'D-119']);
  expect(await mailbag.client.get(`/api/sources/${id}/find?text=B-96&after=0`)).toEqual({ index: 215 });
  const find = async (text: string, after = 0): Promise<number> =>
    (await mailbag.client.get<{ index: number }>(`/api/sources/${id}/find?text=${encodeURIComponent(text)}&after=${after}`)).index;
  expect(await find('no"such%_thing')).toBe(-1);
  // In any case, with and without marks; it goes round once, and the names of cells' parts are no values.
  const zofia = await find('ŁĄKOWSKI');
  expect(zofia).toBeGreaterThan(0);
  expect([await find('łąkow'), await find('lakowski'), await find('Łąkowski', zofia + 1)]).toEqual([zofia, zofia, expect.any(Number)]);
  expect(await find('Δάφνη')).toBeGreaterThanOrEqual(0);
  expect(await find('"text"')).toBe(-1);
});

test.each([
  ['picture.csv', Uint8Array.from([0x89, 0x50, 0x4e, 0x47, 13, 10, 26, 10, 0, 0, 0, 13]), 'is neither a workbook'],
  ['empty.csv', text(''), 'is empty'],
  ['broken.xlsx', Uint8Array.from([0x50, 0x4b, 3, 4, 20, 0]), 'is damaged'],
  ['old.xls', Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, 0, 0]), 'is damaged'],
])('%s is refused in a sentence', async (name, bytes, sentence) => {
  await expect(mailbag.client.upload('/api/sources/files', name, bytes)).rejects.toThrow(sentence);
});

test('two columns are a table of a rule: each key once, the first value where several differ', async () => {
  const lines = ['Site,Rate,Note', 'North field,0.35,a', 'Brook,0.42,b', ' north  FIELD ,0.36,c', ',9,d', 'Hill,,e'];
  const { id } = await read('rates.csv', text(lines.join('\r\n')), { headingRow: 1 });
  const ask = (key: string, value: string): Promise<object> =>
    mailbag.client.get(`/api/sources/${id}/lookup?${new URLSearchParams({ key, value })}`);
  expect(await ask('Site', 'Rate')).toEqual({
    table: [
      { key: 'North field', value: '0.35' },
      { key: 'Brook', value: '0.42' },
      { key: 'Hill', value: '' },
    ],
    unclear: ['North field'],
  });
  await expect(ask('Site', 'Price')).rejects.toThrow('lookup-no-column');
});

test('a key column that is too long for a table of a rule is refused with what to do', async () => {
  const { id } = await read('long.csv', text(`Plot,Rate\r\n${Array.from({ length: 5001 }, (_, at) => `P${at},1`).join('\r\n')}`), {
    headingRow: 1,
  });
  await expect(mailbag.client.get(`/api/sources/${id}/lookup?key=Plot&value=Rate`)).rejects.toThrow('more than 5,000 different values');
});

test('a sheet without records below its headings fails with the reason, and the server stays up', async () => {
  const source = await read('headings.csv', text('Plot,Name\r\n'), { headingRow: 1 });
  expect(source).toMatchObject({ state: 'failed' });
  expect(source.error!.message).toContain('is empty');
  expect(await mailbag.client.get('/api/health')).toEqual({ ok: true });
});

test('100,000 rows are read while the server goes on answering', async () => {
  const lines = Array.from(
    { length: 100_000 },
    (_, index) => `P-${index},Name ${index},person${index}@example.org,${index % 2 ? 'yes' : 'no'}`,
  );
  const { fileId } = await mailbag.client.upload<File>(
    '/api/sources/files',
    'many.csv',
    text(`Plot,Name,Mail,Shed\n${lines.join('\n')}\n`),
  );
  const { id } = await mailbag.client.send<{ id: number }>('POST', '/api/sources', {
    fileIds: [fileId],
    name: 'many',
    reading: { headingRow: 1 },
  });
  let answers = 0;
  const source = await mailbag.client.until<{ state: string; count: number }>(`/api/sources/${id}`, ({ state }) => {
    answers++;
    return state !== 'reading';
  });
  expect(source).toMatchObject({ state: 'ready', count: 100_000 });
  expect(answers).toBeGreaterThan(2);
  const page = await mailbag.client.get<{ records: { cells: { text: string }[] }[] }>(`/api/sources/${id}/records?from=99999&count=5`);
  expect(page.records.map(({ cells }) => cells[0]!.text)).toEqual(['P-99999']);
});
