import { DecimalMarks } from './decimal-marks.js';
import { readTable } from './read-table.js';
import type { SourceRecord } from './record.js';
import { readingOf } from './record.js';

/** What is told of columns by what stands in them. */
const told = (...columns: string[][]): (string | undefined)[] => {
  const marks = new DecimalMarks();
  for (let row = 0; row < Math.max(...columns.map(({ length }) => length)); row++) marks.see(columns.map((cells) => cells[row] ?? ''));
  return columns.map((_, index) => marks.of(index));
};

test.each([
  [['182,50'], 'comma'],
  [['1.182,50', '12'], 'comma'],
  [['0,500'], 'comma'],
  [['1234,567'], 'comma'],
  [['1.234,567'], 'comma'],
  [['182.50'], undefined],
  [['1,182.50'], undefined],
  [['1.500'], undefined],
  [['1,500'], undefined],
  [['12,5', '12.5'], undefined],
  [['12.03.1980', '1.4.1975'], undefined],
  [['Mühlweg 3,5', 'a,b', ',5', '5,'], undefined],
])('%j: %s', (cells, mark) => expect(told(cells)).toEqual([mark]));

test('what tells nothing by itself is read as the rest of the file, as long as nothing there contradicts', () => {
  expect(told(['182,50'], ['1.500'], ['Ada'])).toEqual(['comma', 'comma', 'comma']);
  expect(told(['182,50'], ['1.500'], ['3.5'])).toEqual(['comma', undefined, undefined]);
});

test('a sheet as a German program saves it comes in as numbers, and every cell looks as it did', async () => {
  const text =
    'Nr;Beitrag;Menge;Seit;PLZ\r\n1;182,50;1.500;01.02.2027;04471\r\n2;1.182,50;2.000;15.03.2026;04473\r\n3;;500;1.4.2025;01067\r\n';
  const records: SourceRecord[] = [];
  const { columns } = await readTable(
    { name: 'x.csv', bytes: new TextEncoder().encode(text), zip: null },
    {},
    (some) => void records.push(...some),
  );
  expect(columns.map(({ name, kind }) => [name, kind])).toEqual([
    ['Nr', 'key'],
    ['Beitrag', 'number'],
    ['Menge', 'number'],
    ['Seit', 'date'],
    ['PLZ', 'postal-code'],
  ]);
  expect(records.map(({ cells }) => cells.map(({ value }) => value))).toEqual([
    [1, 182.5, 1500, '2027-02-01', '04471'],
    [2, 1182.5, 2000, '2026-03-15', '04473'],
    [3, null, 500, '2025-04-01', '01067'],
  ]);
  // What is typed into it later is read alike.
  expect(columns.map((column) => readingOf(column).decimals)).toEqual(Array(5).fill('comma'));
  expect(records[1]!.cells.map((cell) => cell.text)).toEqual(['2', '1.182,50', '2.000', '15.03.2026', '04473']);
});

test('what a person has set counts more than what the file tells', async () => {
  const bytes = new TextEncoder().encode('Beitrag;Menge\r\n182,50;1.500\r\n');
  const records: SourceRecord[] = [];
  const columns = { Menge: { decimals: 'point' as const } };
  await readTable({ name: 'x.csv', bytes, zip: null }, { columns }, (some) => void records.push(...some));
  expect(records[0]!.cells.map(({ value }) => value)).toEqual([182.5, 1.5]);
});
