import { Allowance } from './allowance.js';
import { COLUMN_LIMIT, Gatherer, ROW_LIMIT, noFacts } from './gather.js';
import type { SheetFacts } from './gather.js';
import { columnLetters, guessHeadingRow, headingNames, slugOf, twoHeadingRows, upperHeadings } from './headings.js';
import type { ColumnReading, SourceRecord } from './record.js';
import { typedText } from './typed-text.js';

const cells = (texts: readonly string[]) => texts.map((text) => typedText(text));
/** Gathers rows as they stand in a sheet, the first being row 1. */
function gathered(
  rows: readonly (readonly string[])[],
  options: {
    headingRow?: number;
    hidden?: number[];
    facts?: Partial<SheetFacts>;
    tellsShort?: boolean;
    readings?: Record<string, ColumnReading>;
  } = {},
) {
  const records: SourceRecord[] = [];
  const { headingRow = 1, hidden = [], facts = {}, readings = {}, ...more } = options;
  const gatherer = new Gatherer({ where: 'Plots', headingRow, readings, onRecords: (block) => records.push(...block), ...more });
  rows.forEach((row, index) => gatherer.see(index + 1, cells(row), hidden.includes(index + 1)));
  const { columns, notes } = gatherer.done({ ...noFacts, ...facts });
  return {
    names: columns.map(({ name }) => name),
    columns,
    rows: records.map(({ row, cells }) => [row, ...cells.map(({ text }) => text)]),
    notes: Object.fromEntries(notes.map(({ code, count, names }) => [code, [count, ...names]])),
  };
}

test('rows become records that know their row in the sheet; empty ones between are counted, those at the end are not', () => {
  const { names, rows, notes } = gathered([['Plot', 'Name'], ['A-1', 'Ada'], [], ['', ' '], ['A-2', 'Bea'], [], []]); // prettier-ignore
  expect({ names, rows, notes }).toEqual({
    names: ['Plot', 'Name'],
    rows: [[2, 'A-1', 'Ada'], [5, 'A-2', 'Bea']],
    notes: { 'empty-rows': [2] },
  }); // prettier-ignore
});

test('what stands above the headings is passed over, and said', () => {
  const { names, rows, notes } = gathered([['Plots of Larkmere'], [], ['Plot'], ['A-1']], { headingRow: 3 });
  expect({ names, rows, notes }).toEqual({ names: ['Plot'], rows: [[4, 'A-1']], notes: { 'rows-above': [1] } });
});

test('a row that is wider than the headings gets columns, which are empty before', () => {
  const { names, columns, rows, notes } = gathered([['Plot'], ['A-1'], ['A-2', '', 'late'], ['A-3', '', '']]);
  expect(names).toEqual(['Plot', 'Column B', 'Column C']);
  expect(rows).toEqual([[2, 'A-1'], [3, 'A-2', '', 'late'], [4, 'A-3', '', '']]); // prettier-ignore
  expect(columns[2]).toMatchObject({ empty: 2, distinct: 1, examples: ['late'] });
  expect(notes).toEqual({ 'ragged-rows': [1, 'Column B', 'Column C'] });
});

test('a row that is too short is worth a word where a lost delimiter makes it', () => {
  const rows = [['Plot', 'Name', 'Rent'], ['A-1', 'Ada', '1'], ['A-2 Bea']];
  expect(gathered(rows, { tellsShort: true }).notes).toEqual({ 'short-rows': [1, 'row 3'] });
  expect(gathered(rows).notes).toEqual({});
});

test('errors of formulas are counted, with the first places; what only looks like one is not', () => {
  const { notes } = gathered([['Plot', 'Rent'], ['#1', '#N/A'], ['#REF', '#DIV/0!'], ...Array.from({ length: 6 }, () => ['A', '#REF!'])]);
  expect(notes).toEqual({ 'error-cells': [8, 'B2', 'B3', 'B4', 'B5', 'B6'] });
});

test('what is hidden or merged in the sheet is said', () => {
  const { notes } = gathered(
    [
      ['Plot', 'Name', 'Rent'],
      ['A-1', 'Ada', '1'],
      ['A-2', 'Bea', '2'],
    ],
    {
      hidden: [3],
      facts: { hiddenColumns: [2, 9], merges: [{ top: 2, bottom: 3, left: 1, right: 1 }] },
    },
  );
  expect(notes).toEqual({ 'hidden-rows': [1], 'hidden-columns': [1, 'Rent'], 'merged-cells': [1, 'B2'] });
});

test('a heading over several columns names each of them', () => {
  const { names, notes } = gathered(
    [
      ['Plot', 'Address', '', ''],
      ['A-1', 'Mill Lane', '5', 'x'],
    ],
    {
      facts: { merges: [{ top: 1, bottom: 1, left: 1, right: 2 }] },
    },
  );
  expect(names).toEqual(['Plot', 'Address', 'Address 2', 'Column D']);
  expect(notes).toMatchObject({ 'double-heading': [1, 'Address 2'] });
});

test('records are handed on in blocks, none lost and none twice', () => {
  const sizes: number[] = [];
  const gatherer = new Gatherer({ where: 'x', headingRow: 1, readings: {}, onRecords: (block) => sizes.push(block.length) });
  gatherer.see(1, cells(['Plot', 'Text']), false);
  for (let row = 2; row <= 1252; row++) gatherer.see(row, cells([`A-${row}`]), false);
  gatherer.done();
  expect(sizes).toEqual([500, 500, 251]);
  sizes.length = 0;
  const wide = new Gatherer({ where: 'x', headingRow: 1, readings: {}, onRecords: (block) => sizes.push(block.length) });
  wide.see(1, cells(['Plot']), false);
  for (let row = 2; row <= 8; row++) wide.see(row, cells(['x'.repeat(900_000)]), false);
  wide.done();
  expect(sizes).toEqual([3, 3, 1]);
});

test.each([
  ['sheet-no-headings', 1, [[''], ['A-1']]],
  ['sheet-no-headings', 1, [[' ', '\u00a0'], ['A-1']]],
  ['sheet-empty', 1, [['Plot']]],
  ['sheet-empty', 1, [['Plot'], [''], []]],
  ['sheet-empty', 1, []],
  ['sheet-empty', 3, [['Plot'], ['A-1']]],
  ['sheet-too-many-columns', 1, [Array.from({ length: COLUMN_LIMIT + 1 }, (_, at) => `C${at}`)]],
  ['sheet-too-many-columns', 1, [['Plot'], [...Array.from({ length: COLUMN_LIMIT }, () => ''), 'far']]],
  ['sheet-cell-too-long', 1, [['Plot'], ['x'.repeat(1_000_001)]]],
])('%s where the headings stand in row %i', (code, headingRow, rows) => {
  expect(() => gathered(rows, { headingRow })).toThrow(expect.objectContaining({ code }));
});

test('a source ends at its limit of records', () => {
  const gatherer = new Gatherer({ where: 'Plots', headingRow: 1, readings: {}, onRecords: () => undefined });
  gatherer.see(1, cells(['Plot']), false);
  const one = cells(['A']);
  for (let row = 2; row <= ROW_LIMIT + 1; row++) gatherer.see(row, one, false);
  expect(() => gatherer.see(ROW_LIMIT + 2, one, false)).toThrow(expect.objectContaining({ code: 'sheet-too-many-rows' }));
});

test('a small file cannot stand for millions of cells, and a large one may', () => {
  const row = cells(Array.from({ length: 1000 }, () => 'x'));
  const takes = (size: number): number => {
    const allowance = new Allowance('Plots', size);
    for (let count = 0; ; count++)
      try {
        if (count === 3000) return count;
        allowance.take(count, row);
      } catch (error) {
        expect(error).toMatchObject({ code: 'sheet-too-many-cells' });
        return count;
      }
  };
  expect(takes(100)).toBe(1000);
  expect(takes(4_000_000)).toBe(2000);
  expect(takes(Infinity)).toBe(3000);
});

test.each([
  [0, 'A'], [25, 'Z'], [26, 'AA'], [51, 'AZ'], [52, 'BA'], [701, 'ZZ'], [702, 'AAA'], [16_383, 'XFD'],
])('column %i is %s, as spreadsheets count', (index, letters) => {
  expect(columnLetters(index)).toBe(letters);
}); // prettier-ignore

test.each([
  ['First name', 'first_name'],
  ['Größe (m²)', 'große_m2'],
  ['  E-Mail:  ', 'e_mail'],
  ['2027', 'c_2027'],
  ['№', 'no'],
  ['***', 'c_'],
  ['Имя', 'имя'],
  ['_name_', 'name'],
])('%j is %j in patterns', (name, slug) => expect(slugOf(name)).toBe(slug));

test('headings are unique, whatever they are called', () => {
  expect(headingNames(['Name', 'name', 'NAME ', '', 'Name 2', 'a\u00a0\nb'])).toEqual({
    names: ['Name', 'name 2', 'NAME 3', 'Column D', 'Name 2 2', 'a b'],
    slugs: ['name', 'name_2', 'name_3', 'column_d', 'name_2_2', 'a_b'],
    notes: [
      { code: 'empty-heading', count: 1, names: ['Column D'] },
      { code: 'double-heading', count: 3, names: ['name 2', 'NAME 3', 'Name 2 2'] },
    ],
  });
});

test.each([
  [
    0,
    [
      ['Plot', 'Name'],
      ['A-1', 'Ada'],
      ['A-2', 'Bea'],
    ],
  ],
  [2, [['Plots of Larkmere'], [], ['Plot', 'Name', 'Rent'], ['A-1', 'Ada', '12'], ['A-2', 'Bea', '13']]],
])('headings are guessed to stand at %i', (index, rows) => expect(guessHeadingRow(rows)).toBe(index));

test('two rows of headings are one where the upper is merged over several columns', () => {
  const rows = [
    { row: 1, cells: ['Tenant', '', 'Plot', ''] },
    { row: 2, cells: ['Name', 'Mail', 'No.', 'Size'] },
    { row: 3, cells: ['Ada', 'ada@example.org', 'A-1', '240'] },
  ];
  const merges = [{ top: 1, bottom: 1, left: 0, right: 1 }, { top: 1, bottom: 1, left: 2, right: 3 }]; // prettier-ignore
  expect(twoHeadingRows(rows, merges)).toBe(1);
  expect(upperHeadings({ headingRow: 2, rows }, merges)).toEqual(['Tenant', 'Tenant', 'Plot', 'Plot']);
  expect(upperHeadings({ headingRow: 1, rows }, merges)).toBeNull();
  // One cell over the whole width is a title.
  expect(twoHeadingRows(rows, [{ top: 1, bottom: 1, left: 0, right: 3 }])).toBeNull();
  expect(twoHeadingRows(rows, [])).toBeNull();
});
