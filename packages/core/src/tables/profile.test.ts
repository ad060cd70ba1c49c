import { ColumnProfile } from './profile.js';
import type { Cell, ColumnKind } from './record.js';
import { typedText } from './typed-text.js';

const cells = (values: readonly (string | Cell)[]): Cell[] => values.map((value) => (typeof value === 'string' ? typedText(value) : value));
function kindOf(name: string, values: readonly (string | Cell)[], canBeKey = true): ColumnKind {
  const profile = new ColumnProfile();
  for (const cell of cells(values)) profile.see(cell);
  return profile.done(name, name.toLowerCase(), undefined, canBeKey).kind;
}
const times = (count: number, value: (index: number) => string): string[] => Array.from({ length: count }, (_, index) => value(index));

/** A column by its heading and what stands below it. */
const columns: [kind: ColumnKind, name: string, values: readonly string[]][] = [
  ['email', 'Contact', ['ada@example.org', 'bea@example.org', 'cleo@example.org']],
  ['email', 'E-mail', ['ada@example.org', 'none', 'bea@example.org', '']],
  ['iban', 'Account', ['GB82 WEST 1234 5698 7654 32', 'DE89370400440532013000', 'NO9386011117947']],
  ['date', 'Born', ['1980-01-02', '1981-02-03', '1.3.1982']],
  ['postal-code', 'PLZ', ['01067', '10115', '99084', '01069']],
  ['postal-code', 'Zip', ['94103', '10001', '60601', '94103']],
  ['phone', 'Anything', ['+49 30 123456', '+49 351 98765', '+44 20 7946 0000']],
  ['phone', 'Telefon', ['03011223344', '035198765432', '03099887766']],
  ['yes-no', 'Water', ['yes', 'no', 'yes', 'no', 'yes', 'no', 'no']],
  ['yes-no', 'Wasser', ['ja', 'nein', 'ja', 'ja', 'nein', 'ja', 'nein']],
  ['yes-no', 'Wasser', ['WAHR', 'FALSCH', 'WAHR', 'WAHR', 'FALSCH', 'FALSCH', 'WAHR']],
  ['yes-no', 'Agua', ['VERDADERO', 'FALSO', 'FALSO', 'VERDADERO', 'FALSO']],
  ['key', 'Plot', times(20, (at) => `A-${at + 1}`)],
  ['key', 'Number', times(20, (at) => String(1000 + at))],
  ['number', 'Rent', ['12.5', '30', '45.25', '12.5', '30', '12.5', '30']],
  ['address', 'Where', ['Mill Lane 5', 'Reed Street 12', 'Church Road 3 b']],
  ['address', 'Street', ['Mill Lane', 'Reed Street 12', 'The Old Mill']],
  ['text', 'Name', ['Ada Quist', 'Bea Brandt', 'Cleo Duyvis']],
  ['text', 'Remarks', ['', '', '']],
];

test.each(columns)('%s: “%s” over %j', (kind, name, values) => expect(kindOf(name, values)).toBe(kind));

test('there is one key a sheet, and a column in which values come again is none', () => {
  const values = times(20, (at) => `A-${at + 1}`);
  expect(kindOf('Plot', values, false)).not.toBe('key');
  expect(kindOf('Plot', [...values, ...values])).not.toBe('key');
  expect(kindOf('Plot', [...values, '', '', '', ''])).not.toBe('key');
});

test('a column of mail addresses is no postal address, whatever it is called', () => {
  expect(kindOf('Mail address', ['ada@example.org', 'somewhere'])).toBe('email');
  expect(kindOf('Mail address', ['ask Ada', 'ask Bea', 'ask Cleo'])).toBe('text');
});

test('numbers that are codes are told by their heading', () => {
  const values = ['94103', '10001', '60601', '94103', '10001', '60601'];
  expect([kindOf('Zip code', values), kindOf('Amount', values)]).toEqual(['postal-code', 'number']);
});

test('what a person said of a column holds', () => {
  const profile = new ColumnProfile();
  for (const cell of cells(['1', '2'])) profile.see(cell);
  expect(profile.done('Plot', 'plot', { kind: 'text' }, true)).toMatchObject({ kind: 'text', reading: { kind: 'text' } });
});

test('it counts what is empty and what differs, and shows the longest and the first values, cut where they are endless', () => {
  const profile = new ColumnProfile();
  for (const cell of cells(['Ada', '', ' ', 'Bea', 'Ada', 'x'.repeat(900), ...times(10, (at) => `n${at}`)])) profile.see(cell);
  const { empty, distinct, longest, examples } = profile.done('Name', 'name', undefined, true);
  expect([empty, distinct, longest.length, examples]).toEqual([2, 13, 500, ['Ada', 'Bea', 'x'.repeat(80), 'n0', 'n1']]);
});

test('a hundred thousand different values need no room for all of them', () => {
  const profile = new ColumnProfile();
  for (let at = 0; at < 100_000; at++) profile.see({ text: `remark ${at} of many words`, value: `remark ${at} of many words` });
  expect(profile.done('Remarks', 'remarks', undefined, true)).toMatchObject({ kind: 'text', distinct: 1000, empty: 0 });
});
