import ExcelJS from 'exceljs';
import Papa from 'papaparse';
import { PostOffice, RunningMailbag } from '../../../../testing/running-mailbag.js';
import type { Batch, CopyRow } from '../../../../testing/small-mailing.js';
import { smallMailing } from '../../../../testing/small-mailing.js';
import { startBatch } from '../../../../demo/src/start-batch.js';

let office: PostOffice;
const mailbag = new RunningMailbag();
let batch: number;
beforeAll(async () => {
  office = await PostOffice.open();
  await (await mailbag.start()).setUp(office);
  const { client } = mailbag;
  const rows = Array.from({ length: 60 }, (_, index): [string, string, string, string] => [
    `G-${index + 1}`,
    ['Zoë Quist', 'Łucja Brand', '=HYPERLINK(1)', 'Ann Ó Derry'][index % 4]!,
    // No copy code has an I or an L, so that none begins by chance as an address does.
    `${index % 10 === 3 ? 'unknown.' : ''}gil${index + 1}@example.org`,
    index % 2 ? 'yes' : 'no',
  ]);
  const { mailing } = await smallMailing(client, rows, { folder: 'ledger' });
  ({ id: batch } = await startBatch<Batch>(client, mailing));
  await client.until<Batch>(`/api/batches/${batch}`, ({ state }) => state === 'done');
});
afterAll(async () => {
  await mailbag.close();
  await office.close();
});

interface Counts {
  total: number;
  matching: number;
  byState: Record<string, number>;
}
const rowsOf = async (query: string): Promise<CopyRow[]> =>
  (await mailbag.client.get<{ rows: CopyRow[] }>(`/api/copies?count=200&${query}`)).rows;
const countsOf = (query: string): Promise<Counts> => mailbag.client.get(`/api/copies/counts?${query}`);

test.each([
  ['text=quist', 15],
  ['text=lucja', 15],
  ['text=o%20derry', 15],
  ['text=g-7', 1],
  ['text=gil33%40example.org', 1],
  ['state=bounced', 6],
  ['trouble=address', 6],
  ['trouble=mailbox', 0],
  ['text=quist&state=bounced', 0],
  ['text=lucja%20yes', 15],
  ['text=lucja%20no', 0],
  ['text=nobody', 0],
])('%s finds %p copies, and the count says so', async (query, count) => {
  expect(await rowsOf(query)).toHaveLength(count);
  expect((await countsOf(query)).matching).toBe(count);
});

test('by days, in every order, page after page without a gap or a double', async () => {
  const today = new Date().toISOString().slice(0, 10);
  expect((await countsOf(`from=${today}`)).matching).toBe(60);
  expect(await rowsOf('to=2020-01-01')).toEqual([]);
  for (const sort of ['newest', 'oldest', 'recipient', 'recipient-down', 'changed', 'changed-up']) {
    const ids: number[] = [];
    for (let before = ''; ;) {
      const { rows, more } = await mailbag.client.get<{ rows: CopyRow[]; more: boolean }>(`/api/copies?count=13&sort=${sort}${before}`);
      ids.push(...rows.map(({ id }) => id));
      if (!more) break;
      before = `&before=${ids.at(-1)}`;
    }
    expect([sort, ids.length, new Set(ids).size]).toEqual([sort, 60, 60]);
  }
  // Who asks for days gets what changed last first, page after page, unless another order is asked for.
  const byDays: CopyRow[] = [];
  for (let before = ''; ;) {
    const { rows, more } = await mailbag.client.get<{ rows: CopyRow[]; more: boolean }>(`/api/copies?count=13&from=${today}${before}`);
    byDays.push(...rows);
    if (!more) break;
    before = `&before=${rows.at(-1)!.id}`;
  }
  expect(byDays.map(({ id }) => id)).toEqual((await rowsOf('sort=changed')).map(({ id }) => id));
  expect((await rowsOf(`from=${today}&sort=newest`)).map(({ id }) => id)).toEqual((await rowsOf('')).map(({ id }) => id));
  const names = (await rowsOf('sort=recipient')).map(({ recipient }) => recipient);
  expect(names).toEqual([...names].sort((a, b) => (a.toLowerCase() < b.toLowerCase() ? -1 : a.toLowerCase() > b.toLowerCase() ? 1 : 0)));
});

test('counts stay right through every change', async () => {
  const { total, byState } = await countsOf('');
  expect(total).toBe(60);
  expect(Object.values(byState).reduce((sum, count) => sum + count, 0)).toBe(60);
  const rows = await rowsOf('');
  for (const state of Object.keys(byState))
    expect([state, rows.filter((row) => row.state === state).length]).toEqual([state, byState[state]]);
});

test('the ledger leaves as CSV and XLSX that other programs read, safe against formulas', async () => {
  const csv = new TextDecoder().decode(await mailbag.client.bytes('/api/copies/ledger.csv?state=bounced'));
  const { data } = Papa.parse<string[]>(csv.replace(/^\ufeff/, ''), { skipEmptyLines: true });
  expect(data).toHaveLength(7);
  expect(data[0]!.slice(0, 4)).toEqual(['Code', 'Recipient', 'Address', 'State']);
  expect(data.slice(1).every((line) => !/^[=+@-]/.test(line[1]!))).toBe(true);
  const book = new ExcelJS.Workbook();
  await book.xlsx.load((await mailbag.client.bytes('/api/copies/ledger.xlsx')).buffer as ArrayBuffer);
  const sheet = book.getWorksheet('Ledger')!;
  expect(sheet.rowCount).toBe(61);
  // A text that looks like a formula is a text.
  const values = Array.from({ length: 60 }, (_, index) => sheet.getCell(index + 2, 2));
  expect(values.some((cell) => cell.value === '=HYPERLINK(1)' && cell.type === ExcelJS.ValueType.String)).toBe(true);
});

test('the same with many copies: how many it was done with is told, and what can be taken back is', async () => {
  const { client } = mailbag;
  const put = await client.send<{ meant: number; done: number; undo: { action: string; ids: number[] } }>('POST', '/api/copies/many', {
    action: 'to-paper',
    filter: { batch },
  });
  expect(put).toMatchObject({ meant: 60, done: 6, undo: { action: 'off-paper' } });
  expect((await countsOf('paper=yes')).matching).toBe(6);
  const back = await client.send<{ done: number }>('POST', '/api/copies/many', put.undo);
  expect(back.done).toBe(6);
  expect((await countsOf('paper=yes')).matching).toBe(0);
  const again = await client.send<{ done: number; undo: null }>('POST', '/api/copies/many', {
    action: 'send-again',
    filter: { state: 'bounced' },
  });
  expect(again).toMatchObject({ done: 6, undo: null });
  await client.until<Counts>('/api/copies/counts?', ({ byState }) => byState.bounced === 6);
  const zip = await client.bytes('/api/copies/copies.zip?state=bounced');
  expect(
    Buffer.from(zip)
      .toString('latin1')
      .match(/PK\x01\x02/g),
  ).toHaveLength(6);
  const withdrawn = await client.send<{ done: number }>('POST', '/api/copies/many', { action: 'withdraw', filter: { state: 'bounced' } });
  expect(withdrawn.done).toBe(6);
});

test('views are kept for each person, and one of the same name is replaced', async () => {
  const { client } = mailbag;
  await client.send('POST', '/api/copies/views', { name: 'Bounced', filter: 'state=bounced' });
  const views = await client.send<{ id: number; filter: string }[]>('POST', '/api/copies/views', {
    name: 'Bounced',
    filter: 'state=bounced&trouble=address',
  });
  expect(views).toMatchObject([{ name: 'Bounced', filter: 'state=bounced&trouble=address' }]);
  await client.send('DELETE', `/api/copies/views/${views[0]!.id}`);
  expect(await client.get('/api/copies/views')).toEqual([]);
});
