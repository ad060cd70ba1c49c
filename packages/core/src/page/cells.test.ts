import { cellsOf } from './cells.js';
import type { Rule } from './cells.js';

const rule = (at: number, from: number, to: number): Rule => ({ at, from, to });

test('lines that cross enclose cells, each the smallest', () => {
  const level = [rule(0, 0, 100), rule(20, 0, 100), rule(40, 0, 100)];
  const upright = [rule(0, 0, 40), rule(60, 0, 40), rule(100, 0, 40)];
  expect(cellsOf(level, upright)).toEqual([
    [0, 0, 60, 20],
    [0, 20, 60, 40],
    [60, 0, 100, 20],
    [60, 20, 100, 40],
  ]);
});
test('a line that ends before the next one makes the cell beside it larger', () => {
  const cells = cellsOf([rule(0, 0, 100), rule(20, 0, 50), rule(40, 0, 100)], [rule(0, 0, 40), rule(50, 0, 40), rule(100, 0, 40)]);
  expect(cells).toContainEqual([50, 0, 100, 40]);
  expect(cells).toContainEqual([0, 0, 50, 20]);
});
test('lines that miss each other by a little meet, and an open side makes no cell', () => {
  expect(cellsOf([rule(0, 1, 99), rule(20, 0, 100)], [rule(0, 1, 19), rule(100, 1, 19)])).toEqual([[0, 0, 100, 20]]);
  expect(cellsOf([rule(0, 0, 100), rule(20, 0, 100)], [rule(0, 0, 20)])).toEqual([]);
});
