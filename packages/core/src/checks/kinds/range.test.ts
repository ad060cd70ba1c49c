import type { ColumnReading } from '../../tables/record.js';
import { columnOf, findingsIn } from '../../testing/findings.js';
import type { TestCell } from '../../testing/findings.js';
import { findingSentence } from '../registry.js';

const told = (kind: 'number' | 'date', cells: readonly TestCell[], minimum: string, maximum: string): string[] =>
  findingsIn(
    [columnOf('Value', kind)],
    cells.map((cell) => [cell]),
    { plan: { columns: { Value: { range: { minimum, maximum } } } } },
    'out-of-range',
  ).map(findingSentence);

test('numbers between two limits, which belong to them', () => {
  expect(told('number', [['10', 10], ['20', 20], ['9.99', 9.99], ['20,01', 20.01], '15', '1.234,5'], '10', '20')).toEqual([
    '“9.99” is not between 10 and 20.',
    '“20,01” is not between 10 and 20.',
    '“1.234,5” is not between 10 and 20.',
  ]);
});
test('one limit is enough', () => {
  expect(
    told(
      'number',
      [
        ['-1', -1],
        ['0', 0],
      ],
      '0',
      '',
    ),
  ).toEqual(['“-1” is not 0 or more.']);
  expect(
    told(
      'number',
      [
        ['-1', -1],
        ['0', 0],
      ],
      '',
      '-1',
    ),
  ).toEqual(['“0” is not -1 or less.']);
});
test('days, as the sheet holds them or as they are written', () => {
  const cells: TestCell[] = [['1.5.2027', '2027-05-01'], '30.04.2027', '2027-07-01', ['31.12.2026', '2026-12-31']];
  expect(told('date', cells, '2027-05-01', '2027-06-30')).toEqual([
    '“30.04.2027” is not between 2027-05-01 and 2027-06-30.',
    '“2027-07-01” is not between 2027-05-01 and 2027-06-30.',
    '“31.12.2026” is not between 2027-05-01 and 2027-06-30.',
  ]);
});
test('texts are read as their column is', () => {
  const plan = (minimum: string, maximum: string) => ({ plan: { columns: { Value: { range: { minimum, maximum } } } } });
  const of = (kind: 'number' | 'date', reading: ColumnReading, text: string, minimum: string, maximum: string): number =>
    findingsIn([columnOf('Value', kind, { reading })], [[text]], plan(minimum, maximum), 'out-of-range').length;
  expect(of('number', { decimals: 'point' }, '1,234', '1000', '2000')).toBe(0);
  expect(of('number', { decimals: 'comma' }, '1,234', '1000', '2000')).toBe(1);
  expect(of('date', { dates: 'day-first' }, '01/02/2027', '2027-02-01', '2027-02-28')).toBe(0);
  expect(of('date', { dates: 'month-first' }, '01/02/2027', '2027-02-01', '2027-02-28')).toBe(1);
});
test('what is no number and no day is for other checks', () => {
  expect(told('number', ['twelve', ''], '10', '20')).toEqual([]);
  expect(told('date', ['soon', ''], '2027-05-01', '')).toEqual([]);
});
