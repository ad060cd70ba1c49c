import { toldOf } from '../../testing/findings.js';
import { shapeOf } from './shape.js';

const plots = (count: number): string[] => Array.from({ length: count }, (_, at) => `A-${at + 10}`);
const told = (texts: readonly string[]): string[] => toldOf('key', texts, 'odd-shape').map(([text]) => text);

test.each([
  ['A-12', 'A-9'],
  ['AB-1234', 'A-9'],
  ['Ärger 7', 'A 9'],
  ['  12   b ', '9 A'],
  ['DE89 3704', 'A9 9'],
  ['٣٤', '٣٤'],
  ['-', '-'],
])('the shape of “%s” is “%s”', (text, shape) => expect(shapeOf(text)).toBe(shape));

test('one in a hundred stands out; two do not, being usual then', () => {
  expect(told([...plots(100), '12-A'])).toEqual(['12-A']);
  expect(told([...plots(100), '12-A', '13-B'])).toEqual([]);
});

test('fewer than twenty say nothing', () => {
  expect(told([...plots(18), '12-A'])).toEqual([]);
});

test('where nothing is usual, nothing is odd', () => {
  const free = Array.from({ length: 200 }, (_, at) => ['Reed Lane', 'North Gate 4', 'by the pond', '7'][at % 4]!);
  expect(told([...free, 'x-1-y'])).toEqual([]);
});

test('blank cells are none of the values', () => expect(told([...plots(100), '', '   '])).toEqual([]));
