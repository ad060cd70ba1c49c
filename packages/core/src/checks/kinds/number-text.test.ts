import type { Column } from '../../tables/record.js';
import { columnOf, findingsIn } from '../../testing/findings.js';
import type { TestCell } from '../../testing/findings.js';

/** What is told of the cells of a column of numbers, each with what is proposed in its place. */
const told = (cells: readonly TestCell[], more: Partial<Column> = {}): [code: string, mend: string | null | undefined][] =>
  findingsIn(
    [columnOf('Fee', 'number', more)],
    cells.map((cell) => [cell]),
  ).map(({ code, mend }) => [code, mend]);

test('a number that is kept as text is proposed as one; what is none is only told', () => {
  expect(told([['12.5', 12.5], '€ 1,500.50', 'see letter', ''])).toEqual([
    ['number-as-text', '1500.5'],
    ['not-a-number', undefined],
  ]);
});

test('it is proposed as the column writes its decimals, as its file shows or as a person has set', () => {
  expect(told(['€ 1.500,50'], { found: { decimals: 'comma' } })).toEqual([['number-as-text', '1500,5']]);
  expect(told(['€ 1.500'], { found: { decimals: 'comma' } })).toEqual([['number-as-text', '1500']]);
  expect(told(['€ 1.500'], { found: { decimals: 'comma' }, reading: { decimals: 'point' } })).toEqual([['number-as-text', '1.5']]);
});
