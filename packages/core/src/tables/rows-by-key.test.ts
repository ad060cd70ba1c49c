import { readByKey } from './rows-by-key.js';
import { readTable } from './read-table.js';
import type { SourceRecord } from './record.js';
import { sourceNoteSentence } from './record.js';
import { repeatedGroups } from '../map/repeated.js';

const file = (lines: readonly string[]) => ({ name: 'children.csv', bytes: new TextEncoder().encode(lines.join('\r\n')), zip: null });

async function read(lines: readonly string[], onePer: string | undefined, more: object = {}) {
  const records: SourceRecord[] = [];
  const result = await readByKey(
    (reading, take) => readTable(file(lines), reading, take),
    { ...more, ...(onePer !== undefined && { onePer }) },
    'children.csv',
    (block) => void records.push(...block),
  );
  return {
    ...result,
    names: result.columns.map(({ name }) => name),
    rows: records.map(({ row, cells }) => [row, ...cells.map(({ text }) => text)]),
  };
}
const lines = ['Plot,Family,Child,Age', 'A-1,Bay,Ada,7', 'A-2,Moss,Cy,4', 'A-1,Bay,Bo,5', ',Reed,Di,9', ',Reed,Ed,2'];

test('rows with the same key are one record, with what differs in numbered columns, a child after the other', async () => {
  const { names, rows, count, notes, reading } = await read(lines, 'Plot');
  expect(names).toEqual(['Plot', 'Family', 'Child 1', 'Age 1', 'Child 2', 'Age 2']);
  expect(rows).toEqual([
    [2, 'A-1', 'Bay', 'Ada', '7', 'Bo', '5'],
    [3, 'A-2', 'Moss', 'Cy', '4', '', ''],
    [5, '', 'Reed', 'Di', '9', '', ''],
    [6, '', 'Reed', 'Ed', '2', '', ''],
  ]);
  expect(count).toBe(4);
  expect(notes.map(sourceNoteSentence)).toEqual([
    '1 row was gathered into the record of an earlier one with the same Plot; what differs stands in numbered columns.',
  ]);
  expect(reading.onePer).toBe('Plot');
});

test('what was gathered is a repeated group', async () => {
  const { columns } = await read(lines, 'Plot');
  expect(repeatedGroups(columns)).toContainEqual({
    name: 'Child, Age',
    parts: ['Child', 'Age'],
    items: [
      ['Child 1', 'Age 1'],
      ['Child 2', 'Age 2'],
    ],
  });
});

test('without a key every row stays a record', async () => {
  const { names, rows, reading } = await read(lines, undefined);
  expect([names, rows.length, reading.onePer]).toEqual([['Plot', 'Family', 'Child', 'Age'], 5, undefined]);
});

test('a reading that is set for a numbered column holds for the column that it comes from, and is kept', async () => {
  const readings = { columns: { 'Age 2': { kind: 'text' as const } } };
  const { columns, reading } = await read(lines, 'Plot', readings);
  expect(columns.find(({ name }) => name === 'Age 2')).toMatchObject({ kind: 'text', reading: { kind: 'text' } });
  expect(reading.columns).toEqual(readings.columns);
});

test('a name that is there already is not taken twice', async () => {
  const { names } = await read(['Plot,Child,Child 1', 'A-1,Ada,x', 'A-1,Bo,x'], 'Plot');
  expect(new Set(names).size).toBe(names.length);
});

test('a column that is not there, or tells nobody apart, is refused with what to do', async () => {
  await expect(read(lines, 'Garden')).rejects.toThrow('has no column “Garden”');
  const common = ['Site,Name', ...Array.from({ length: 201 }, (_, at) => `North,N${at}`)];
  await expect(read(common, 'Site')).rejects.toThrow('more than 200 rows in which “Site” is “North”');
});
