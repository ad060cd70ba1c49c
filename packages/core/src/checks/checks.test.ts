import type { Column, SourceRecord } from '../tables/record.js';
import type { CheckSetup } from './check.js';
import { checkRecords } from './check-records.js';
import { findingSentence } from './registry.js';
import { MailbagError } from '../errors/catalogue.js';
import { field } from '../testing/field.js';
import { someContext } from '../testing/context.js';

const columns = ['Plot', 'Mail', 'Water', 'Name'].map((name): Column => ({
  name,
  slug: name.toLowerCase(),
  kind: 'text',
  empty: 0,
  distinct: 1,
  longest: '',
  examples: [],
}));
const record = (row: number, ...cells: string[]): SourceRecord => ({ row, cells: cells.map((text) => ({ text, value: text })) });
const setup: CheckSetup = {
  context: someContext,
  columns,
  keyColumn: 'Plot',
  addressColumn: 'Mail',
  templates: [
    {
      fields: [
        field('plot', { maxLength: 5 }),
        field('name', { flags: ['required'], tooltip: 'Tenant' }),
        field('water', { kind: 'checkbox', onValues: ['On'] }),
      ],
      map: {
        plot: { kind: 'column', column: 'Plot' },
        name: { kind: 'column', column: 'Name' },
        water: {
          kind: 'translate',
          column: 'Water',
          table: [
            { from: 'yes', to: 'On' },
            { from: 'no', to: 'Off' },
          ],
        },
      },
      measure: (values) =>
        String(values.name).length > 20
          ? [{ field: 'name', fit: 'overflows' as const, characters: [] }]
          : String(values.name).includes('\u{10ffff}')
            ? [{ field: 'name', fit: 'fits' as const, characters: ['\u{10ffff}'] }]
            : [],
    },
  ],
};
const codes = (...records: SourceRecord[]): string[] =>
  checkRecords(setup, records).map((finding) => `${finding.row} ${finding.severity} ${finding.code}`);

test('a record as it should be gives no finding', () => {
  expect(codes(record(2, 'A-1', 'a@example.org', 'yes', 'Quist'))).toEqual([]);
});
test.each([
  ['a wrong address', record(2, 'A-1', 'a@b', 'yes', 'Q'), '2 stop address-wrong'],
  ['no address', record(2, 'A-1', '', 'yes', 'Q'), '2 look address-missing'],
  ['an unknown value for a tick box', record(2, 'A-1', 'a@example.org', 'perhaps', 'Q'), '2 stop untranslated'],
  ['a required field without a value', record(2, 'A-1', 'a@example.org', 'yes', ' '), '2 stop required-blank'],
  ['a value over the maximum length', record(2, 'A-12345', 'a@example.org', 'yes', 'Q'), '2 stop too-long'],
  ['a record without a key', record(2, '', 'a@example.org', 'yes', 'Q'), '2 stop key-blank'],
  ['a value that does not fit', record(2, 'A-1', 'a@example.org', 'yes', 'a name that is far too long'), '2 look overflows'],
  ['a character that no face draws', record(2, 'A-1', 'a@example.org', 'yes', 'x\u{10ffff}'), '2 stop cannot-draw'],
  ['a stray space', record(2, 'A-1', 'a@example.org', 'yes', ' Quist'), '2 look stray-space'],
])('%s is found', (_, one, expected) => {
  expect(codes(one)).toEqual([expected]);
});
test('two records of one key are both held back, whatever case they are in, and each names the other', () => {
  const findings = checkRecords(setup, [
    record(2, 'a-1', 'a@example.org', 'yes', 'Q'),
    record(3, 'B-1', 'a@example.org', 'yes', 'Q'),
    record(9, 'A-1 ', 'a@example.org', 'yes', 'Q'),
  ]);
  expect(findings.filter(({ code }) => code === 'key-twice').map(({ row, details }) => [row, details.rows])).toEqual([
    [2, [9]],
    [9, [2]],
  ]);
});
test('the sentence names the values that the field accepts', () => {
  const [finding] = checkRecords(setup, [record(2, 'A-1', 'a@example.org', 'perhaps', 'Q')]);
  expect(findingSentence(finding!)).toBe('“Water” does not accept “perhaps”. It accepts “yes”, “no”.');
});

test('passwords that a copy cannot have stop its record before anything is made, and are not shown', () => {
  const passwordFault = ({ row }: SourceRecord) =>
    row === 3 ? new MailbagError('password-both', {}) : row === 4 ? new MailbagError('password-long', { length: 128, limit: 127 }) : null;
  const found = checkRecords({ ...setup, passwordFault }, [
    record(2, 'A-1', 'a@example.org', 'yes', 'Quist'),
    record(3, 'A-2', 'b@example.org', 'yes', 'sesame'),
    record(4, 'A-3', 'c@example.org', 'yes', 'ü'),
  ]);
  expect(found.map(({ row, severity, code }) => [row, severity, code])).toEqual([
    [3, 'stop', 'passwords-same'],
    [4, 'stop', 'password-too-long'],
  ]);
  expect(findingSentence(found[1]!)).toMatch(/has 128 bytes; 127 are the most/);
  expect(JSON.stringify(found)).not.toMatch(/sesame|ü/);
});
