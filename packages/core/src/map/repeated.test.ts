import { someContext } from '../testing/context.js';
import { field } from '../testing/field.js';
import { evaluateTemplate, packetColumns, rulesWithColumn } from './packet.js';
import type { CopyCount } from './repeated.js';
import { columnsThrough, copyRows, parseCopyCount, recordOf, repeatedGroups } from './repeated.js';
import { rowReader } from './row.js';

const groups = (...names: string[]) => repeatedGroups(names.map((name) => ({ name })));

describe('repeated groups are found by the numbers in the names of columns', () => {
  test.each([
    ['a number within', ['key', 'child1_name', 'child1_born', 'child2_name', 'child2_born'], 'child', ['name', 'born'], 2],
    ['a number in words', ['Child 1: name', 'Child 2: name', 'Child 3: name'], 'Child', ['name'], 3],
    ['a number at the end', ['Plot 1', 'Plot 2'], 'plot', ['Plot'], 2],
    [
      'several parts of one thing',
      ['Name of child 1', 'Age of child 1', 'Name of child 2', 'Age of child 2'],
      'child',
      ['Name of child', 'Age of child'],
      2,
    ],
  ])('%s', (_, names, name, parts, length) => {
    expect(groups(...names)).toEqual([{ name, parts, items: expect.any(Array) as unknown }]);
    expect(groups(...names)[0]!.items).toHaveLength(length);
  });

  test('one that lacks a part of an item keeps the place of it', () => {
    expect(groups('c1_name', 'c1_age', 'c2_name')).toEqual([
      {
        name: 'c',
        parts: ['name', 'age'],
        items: [
          ['c1_name', 'c1_age'],
          ['c2_name', ''],
        ],
      },
    ]);
  });

  test('what may be one thing or two is offered as either', () => {
    expect(groups('Phone 1', 'Phone 2', 'Dog 1', 'Dog 2').map(({ name }) => name)).toEqual(['Phone, Dog', 'phone', 'dog']);
  });

  test.each([
    ['a number that stands alone', ['Line 2', 'Name']],
    ['one that does not begin with 1', ['Q3 sum', 'Q4 sum']],
    ['one with a gap', ['Row 1', 'Row 3']],
    ['names that are nothing but numbers', ['1', '2']],
    ['a zero', ['a0', 'a1']],
    ['years', ['Fee 2026', 'Fee 2027']],
  ])('%s is no group', (_, names) => expect(groups(...names)).toEqual([]));
});

const columns = ['Family', 'child1', 'age1', 'child2', 'age2', 'child3', 'age3'].map((name) => ({ name }));
const rowOf = (...texts: string[]) => rowReader(columns)({ row: 4, cells: texts.map((text) => ({ text, value: text })) });
const count: CopyCount = {
  items: [
    ['child1', 'age1'],
    ['child2', 'age2'],
    ['child3', 'age3'],
  ],
  perCopy: 1,
};
const texts = (one: CopyCount, ...given: string[]): string[][] =>
  copyRows(one, rowOf(...given)).map((row) => recordOf(row, columns).cells.map(({ text }) => text));

test('each copy sees its item in the columns of the first, and nothing in those of the others', () => {
  expect(texts(count, 'Bay', 'Ada', '7', 'Bo', '5', '', '')).toEqual([
    ['Bay', 'Ada', '7', '', '', '', ''],
    ['Bay', 'Bo', '5', '', '', '', ''],
  ]);
});

test('so many items go into one copy, and the last takes what is left', () => {
  expect(texts({ ...count, perCopy: 2 }, 'Bay', 'Ada', '7', 'Bo', '5', 'Cy', '')).toEqual([
    ['Bay', 'Ada', '7', 'Bo', '5', '', ''],
    ['Bay', 'Cy', '', '', '', '', ''],
  ]);
});

test('what is empty is passed over, and where nothing is there is no copy', () => {
  expect(texts(count, 'Bay', '', '', ' ', '', 'Cy', '3')).toEqual([['Bay', 'Cy', '3', '', '', '', '']]);
  expect(texts(count, 'Bay', '', '', '', '', '', '')).toEqual([]);
});

test('a copy knows in which column of the source its values stand', () => {
  const [, second] = copyRows(count, rowOf('Bay', 'Ada', '7', 'Bo', '5', '', ''));
  expect(['child1', 'age1', 'Family'].map((name) => second!.source(name))).toEqual(['child2', 'age2', 'Family']);
});

test('a template with a count has the values of each copy, and reads the columns of all items', () => {
  const template = { fields: [field('name')], map: { name: { kind: 'column', column: 'child1' } as const }, count };
  expect(evaluateTemplate(template, rowOf('Bay', 'Ada', '7', 'Bo', '5', '', ''), someContext).map(({ values }) => values)).toEqual([
    { name: 'Ada' },
    { name: 'Bo' },
  ]);
  expect(packetColumns([template])).toEqual(['child1', 'child2', 'child3']);
  expect(columnsThrough({ ...count, perCopy: 2 }, ['child2'])).toEqual(['child1', 'child2', 'child3']);
  const { counts } = rulesWithColumn({ maps: {}, counts: { 3: count } }, 'child2', 'Second');
  expect(counts![3]!.items).toEqual([
    ['child1', 'age1'],
    ['Second', 'age2'],
    ['child3', 'age3'],
  ]);
});

test.each([
  ['nothing', null],
  ['no items', { items: [], perCopy: 1 }],
  ['items of different parts', { items: [['a', 'b'], ['c']], perCopy: 1 }],
  ['half an item in a copy', { items: [['a']], perCopy: 0.5 }],
  ['no items in a copy', { items: [['a']], perCopy: 0 }],
  ['columns that are no names', { items: [[1]], perCopy: 1 }],
])('%s is no count', (_, given) => expect(parseCopyCount(given)).toBeNull());

test('a copy takes no more items than there are', () => {
  expect(parseCopyCount({ items: [['a'], ['b']], perCopy: 9 })).toEqual({ items: [['a'], ['b']], perCopy: 2 });
});
