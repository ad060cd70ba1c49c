import { columnOf, findingsIn } from '../../testing/findings.js';
import type { TestRows } from '../../testing/findings.js';
import { findingSentence } from '../registry.js';
import { nameKey } from './same-person.js';

const columns = [
  columnOf('Plot', 'key'),
  columnOf('First name', 'text'),
  columnOf('Surname', 'text'),
  columnOf('Born', 'date'),
  columnOf('Mail', 'email'),
];
const told = (rows: TestRows, plan = {}): [row: number, others: readonly number[], why: string][] =>
  findingsIn(columns, rows, { keyColumn: 'Plot', plan }, 'same-person').map(({ row, details }) => [
    row,
    details.rows ?? [],
    details.why ?? '',
  ]);

test.each([
  ['Ada Quist', 'Quist, Ada'],
  ['ADA QUIST', 'ada quist'],
  ['Zoë Brandt', 'Zoe Brandt'],
  ['Zoe\u0308 Brandt', 'Zoë Brandt'],
  ['Ana-Maria O’Hara', 'Ana Maria O Hara'],
  ['Ｊａｎ de Vries', 'Jan de Vries'],
])('“%s” and “%s” are one name', (a, b) => expect(nameKey(a)).toBe(nameKey(b)));

test.each([
  ['Ada Quist', 'Adah Quist'],
  ['Ada Quist', 'Ada B Quist'],
  ['Ada', ''],
])('“%s” and “%s” are two', (a, b) => expect(nameKey(a)).not.toBe(nameKey(b)));

test('one name and one day of birth are one person, each row naming the others', () => {
  expect(
    told([
      ['A-1', 'Ada', 'Quist', '01.02.1980', 'a@example.org'],
      ['A-2', 'Ada', 'Quist', '01.02.1980', 'b@example.org'],
      ['A-3', 'Ada', 'Quist', '03.02.1980', 'c@example.org'],
    ]),
  ).toEqual([
    [2, [3], 'Born'],
    [3, [2], 'Born'],
  ]);
});

test('what agrees in two ways is told once', () => {
  const rows = told([
    ['A-1', 'Ada', 'Quist', '01.02.1980', 'a@example.org'],
    ['A-2', 'Ada', 'Quist', '01.02.1980', 'A@example.org'],
  ]);
  expect(rows.map(([row]) => row)).toEqual([2, 3]);
});

test('blank values prove nothing, and nobody has no name', () => {
  expect(
    told([
      ['A-1', 'Ada', 'Quist', '', ''],
      ['A-2', 'Ada', 'Quist', ' ', ''],
      ['A-3', '', '', '01.02.1980', 'a@example.org'],
      ['A-4', '', ' ', '01.02.1980', 'a@example.org'],
    ]),
  ).toEqual([]);
});

test('a family that shares an address is no one person', () => {
  expect(
    told([
      ['A-1', 'Ada', 'Quist', '', 'quists@example.org'],
      ['A-2', 'Ben', 'Quist', '', 'quists@example.org'],
    ]),
  ).toEqual([]);
});

test('of very many, five are named', () => {
  const rows = Array.from({ length: 8 }, (_, at) => [`A-${at}`, 'Ada', 'Quist', '01.02.1980', `${at}@example.org`]);
  const found = findingsIn(columns, rows, { keyColumn: 'Plot' }, 'same-person');
  expect(found).toHaveLength(8);
  expect(findingSentence(found[0]!)).toBe('Row 3, 4, 5, 6, 7 has the same name and the same Born.');
});

test('a telephone alone proves nothing; with the street it does', () => {
  const withPhone = [columnOf('Name', 'text'), columnOf('Phone', 'phone'), columnOf('Street', 'address')];
  const rows: TestRows = [
    ['Ada Quist', '030 12', 'Reed Lane 1'],
    ['Ada Quist', '030/12', 'Reed Lane 2'],
    ['Ada Quist', '03012', 'Reed Lane 1.'],
  ];
  expect(findingsIn(withPhone, rows, {}, 'same-person').map(({ row }) => row)).toEqual([2, 4]);
});

test('whoever has switched it off is not told', () => {
  const rows: TestRows = [
    ['A-1', 'Ada', 'Quist', '01.02.1980', ''],
    ['A-2', 'Ada', 'Quist', '01.02.1980', ''],
  ];
  expect(told(rows, { samePerson: false })).toEqual([]);
  expect(told(rows)).toHaveLength(2);
});
