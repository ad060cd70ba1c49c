import { tabCells, tabText } from './tab-text.js';

test.each<[what: string, cells: string[][]]>([
  ['one cell', [['Ada']]],
  [
    'rows and columns',
    [
      ['a', 'b'],
      ['c', ''],
    ],
  ],
  [
    'tabs, line breaks and quotes in cells',
    [
      ['two\nlines', 'a\tb'],
      ['say “"x"”', '"'],
    ],
  ],
  ['an empty row within', [['a'], [''], ['b']]],
])('%s come back as they were', (_, cells) => {
  expect(tabCells(tabText(cells))).toEqual(cells);
});
test('what other programs write is read: a line break at the end is no row, and lines may end either way', () => {
  expect(tabCells('a\tb\r\nc\td\r\n')).toEqual([
    ['a', 'b'],
    ['c', 'd'],
  ]);
  expect(tabCells('a\nb\n')).toEqual([['a'], ['b']]);
  expect([tabCells(''), tabCells('x')]).toEqual([[], [['x']]]);
});
