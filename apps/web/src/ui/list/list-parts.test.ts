import Papa from 'papaparse';
import { csvOf } from './as-seen';
import type { ListColumn } from './column';
import { smallestWidth, tracksOf } from './column';
import { readSaved } from './saved-columns';
import { compareCells, holdsWords, nextOrder, orderText, readOrder } from './list-order';
import { nothingPicked, pick, pickAll, pickedOf } from './picking';
import type { Picking } from './picking';

const keys = ['a', 'b', 'c', 'd', 'e'];
const of = ({ picked }: Picking<string>): string => [...picked].sort().join('');

test('a row is picked and taken off again; a range goes from the last one picked, either way, and leaves what was picked before', () => {
  const b = pick<string>(nothingPicked, keys, 1, 'toggle');
  const bd = pick(b, keys, 3, 'range');
  expect([of(b), of(bd), of(pick(bd, keys, 0, 'range'))]).toEqual(['b', 'bcd', 'abcd']);
  const e = pick(bd, keys, 4, 'toggle');
  expect([of(e), of(pick(e, keys, 2, 'toggle'))]).toEqual(['bcde', 'bde']);
  expect(of(pick<string>(nothingPicked, keys, 2, 'range'))).toBe('c');
  expect(of(pick(b, keys, 99, 'toggle'))).toBe('b');
});
test('all that are seen are picked, and only what is still there stays so', () => {
  const all = pickAll<string>(nothingPicked, keys);
  expect(of(all)).toBe('abcde');
  expect(of(pickedOf(all, new Set(['b', 'x'])))).toBe('b');
  expect(pickedOf(all, new Set(keys))).toBe(all);
});

test('an order stands in the address and comes out of it, goes up, down, and away', () => {
  expect(readOrder('-pages', ['name', 'pages'])).toEqual({ column: 'pages', isDown: true });
  expect([readOrder('size', ['name']), readOrder(null, ['name'])]).toEqual([null, null]);
  const up = nextOrder(null, 'name');
  const down = nextOrder(up, 'name');
  expect([orderText(up), orderText(down), orderText(nextOrder(down, 'name')), orderText(nextOrder(down, 'pages'))]).toEqual([
    'name',
    '-name',
    null,
    'pages',
  ]);
});
test('cells are ordered as people order them', () => {
  // Numbers within text by their value and letters by the language (Unicode Collation Algorithm, UTS 10).
  expect(['A-10', 'a-9', 'Ölund', 'Oak', 'Zoë'].sort(compareCells)).toEqual(['a-9', 'A-10', 'Oak', 'Ölund', 'Zoë']);
  expect([10, 9, 100].sort(compareCells)).toEqual([9, 10, 100]);
});
test('what is looked for may stand anywhere, in any order', () => {
  expect(holdsWords('Plot renewals 2027', '2027 plot')).toBe(true);
  expect(holdsWords('Plot renewals 2027', '2028')).toBe(false);
});

const columns: ListColumn<{ name: string; pages: number }>[] = [
  { id: 'name', head: 'Name', minWidth: 100, share: 2, text: ({ name }) => name },
  { id: 'pages', head: 'Pages', minWidth: 50, text: ({ pages }) => String(pages) },
  { id: 'tools', head: 'Archive', minWidth: 36, isTools: true, text: () => 'not a word' },
];
test('a list is saved as it is seen', () => {
  const text = csvOf(columns, [{ name: 'Permit, “new”\nform', pages: 2 }]);
  expect(text[0]).toBe('\ufeff');
  expect(Papa.parse<string[]>(text.slice(1).trimEnd()).data).toEqual([
    ['Name', 'Pages'],
    ['Permit, “new”\nform', '2'],
  ]);
});
test('columns share what room is left, and the list knows how wide it is at least', () => {
  expect(tracksOf(columns)).toBe('minmax(100px, 2fr) 50px 36px');
  expect(smallestWidth(columns, 10)).toBe(226);
});
test('what was kept of the columns is read, whatever stands there', () => {
  expect(readSaved('{"pages":false,"name":3}')).toEqual({ pages: false });
  expect([readSaved(null), readSaved('{'), readSaved('4'), readSaved('null')]).toEqual([{}, {}, {}, {}]);
});
