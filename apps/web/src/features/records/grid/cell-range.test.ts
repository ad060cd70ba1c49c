import { blockOf, cellFor, cellsIn, holds, pastedInto } from './cell-range';
import type { Block } from './cell-range';

const at = (index: number, column: number) => ({ index, column });
test('a range holds the cells between its ends, whichever was first', () => {
  const block = blockOf({ anchor: at(5, 3), end: at(2, 4) });
  expect(block).toEqual({ top: 2, bottom: 5, left: 3, right: 4 });
  expect([cellsIn(block), holds(block, at(3, 4)), holds(block, at(3, 5)), holds(block, at(6, 3))]).toEqual([8, true, false, false]);
});
test.each([
  ['ArrowDown', false, at(3, 1)],
  ['ArrowUp', true, at(0, 1)],
  ['ArrowDown', true, at(99, 1)],
  ['ArrowRight', true, at(2, 4)],
  ['ArrowLeft', false, at(2, 0)],
  ['PageDown', false, at(22, 1)],
  ['PageUp', false, at(0, 1)],
  ['Home', false, at(2, 0)],
  ['Home', true, at(0, 0)],
  ['End', true, at(99, 4)],
  ['x', false, null],
  ['toString', false, null],
])('%s (Ctrl %p) leads from the third row to %p', (key, ctrlKey, to) => {
  expect(cellFor({ key, ctrlKey }, at(2, 1), 100, 5, 20)).toEqual(to);
});
test('nowhere in a grid without records', () => expect(cellFor({ key: 'End', ctrlKey: true }, at(0, 0), 0, 5, 20)).toBeNull());

const block = (top: number, bottom: number, left: number, right: number): Block => ({ top, bottom, left, right });
const texts = (range: Block, cells: string[][], rows = 10, columns = 4) => {
  const { placed, beyond } = pastedInto(range, cells, rows, columns);
  return [placed.map(({ index, column, text }) => `${index},${column}=${text}`).join(' '), beyond];
};
test('what is pasted begins at the first cell of the range', () => {
  expect(
    texts(block(1, 1, 1, 1), [
      ['a', 'b'],
      ['c', 'd'],
    ]),
  ).toEqual(['1,1=a 1,2=b 2,1=c 2,2=d', 0]);
});
test('one cell fills the range, and so does a row in a range of its width', () => {
  expect(texts(block(0, 2, 1, 1), [['x']])).toEqual(['0,1=x 1,1=x 2,1=x', 0]);
  expect(texts(block(0, 1, 0, 1), [['a', 'b']])).toEqual(['0,0=a 0,1=b 1,0=a 1,1=b', 0]);
  // Where it is no multiple, it is pasted once.
  expect(texts(block(0, 2, 0, 0), [['a'], ['b']])).toEqual(['0,0=a 1,0=b', 0]);
});
test('what the grid has no room for is counted, and a shorter row leaves what is there', () => {
  expect(
    texts(block(9, 9, 3, 3), [
      ['a', 'b'],
      ['c', 'd'],
    ]),
  ).toEqual(['9,3=a', 3]);
  expect(texts(block(0, 0, 0, 0), [['a', 'b'], ['c']])).toEqual(['0,0=a 0,1=b 1,0=c', 0]);
  expect(texts(block(0, 0, 0, 0), [])).toEqual(['', 0]);
});
