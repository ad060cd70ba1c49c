import { format } from 'numfmt';
import { someContext } from '../../testing/context.js';
import { typedText } from '../../tables/typed-text.js';
import { patternsReading } from '../../tables/day.js';
import { rowReader } from '../row.js';
import { workOn } from '../registry.js';
import type { DateRule } from './date.js';

const make = (text: string, more: Partial<DateRule>, from: Record<string, string> = {}) => {
  const record = { Day: text, ...from };
  const row = rowReader(Object.keys(record).map((name) => ({ name })))({
    row: 2,
    cells: Object.values(record).map((one) => typedText(one)),
  });
  return workOn(row, someContext).make({
    kind: 'date',
    of: { kind: 'column', column: 'Day' },
    read: [],
    add: { years: 0, months: 0, days: 0 },
    show: { pattern: 'yyyy-MM-dd' },
    language: null,
    ...more,
  });
};
const text = (...args: Parameters<typeof make>) => (make(...args) as { text: string }).text;
const added = (years: number, months: number, days: number) => ({ add: { years, months, days } });

test.each(['en', 'de', 'fr', 'es', 'pl', 'it', 'nl', 'sv'])('names of months are those of an independent library: %s', (language) => {
  for (let month = 1; month <= 12; month++) {
    const iso = `2027-${String(month).padStart(2, '0')}-17`;
    const serial = Date.UTC(2027, month - 1, 17) / 86_400_000 + 25_569;
    const [shown, expected] = [text(iso, { show: { pattern: 'LLLL' }, language }), format('mmmm', serial, { locale: language })];
    expect(shown.toLowerCase()).toBe(expected.toLowerCase());
  }
});

test.each<[string, Partial<DateRule>, string]>([
  // ISO 8601: a leap day.
  ['2028-02-29', { show: { pattern: 'd MMM yyyy' } }, '29 Feb 2028'],
  ['31.12.2027', added(0, 0, 1), '2028-01-01'],
  ['2027-01-31', added(0, 1, 0), '2027-02-28'],
  ['2028-02-29', added(1, 0, 0), '2029-02-28'],
  ['2027-03-31', added(0, -1, 1), '2027-03-01'],
  ['', added(1, 0, 0), ''],
])('%s, %j is %s', (given, rule, expected) => {
  expect(text(given, rule)).toBe(expected);
});

test('a date is read as the rule says, and never guessed', () => {
  expect(text('3/5/2027', { read: ['d/M/yyyy'] })).toBe('2027-05-03');
  expect(text('3/5/2027', { read: ['M/d/yyyy'] })).toBe('2027-03-05');
  expect(text('5 mars 2027', { read: ['d MMMM yyyy'], language: 'fr' })).toBe('2027-03-05');
  expect(make('3/5/2027', {})).toMatchObject({ cannot: expect.stringContaining('“3/5/2027” is not a date') as string, column: 'Day' });
  expect(make('31.2.2027', {})).toMatchObject({ text: '31.2.2027', cannot: expect.any(String) as string });
});

test('ways of reading are picked from samples that they all fit', () => {
  expect(patternsReading(['31/1/2027', '1/2/2027'], 'en')).toEqual(['d/M/yyyy']);
  expect(patternsReading(['3/5/2027'], 'en')).toEqual(['d/M/yyyy', 'M/d/yyyy']);
  expect(patternsReading(['5. Oktober 2027'], 'de')).toEqual(['d. MMMM yyyy']);
  expect(patternsReading(['soon', '3/5/2027'], 'en')).toEqual([]);
  expect(patternsReading([], 'en')).toEqual([]);
});

test.each([
  ['1984-03-05', '2027-03-04', '42'],
  ['1984-03-05', '2027-03-05', '43'],
  ['2008-02-29', '2026-02-28', '17'],
  ['2008-02-29', '2026-03-01', '18'],
  ['2027-03-05', '2027-03-05', '0'],
])('who was born on %s is on %s %s years old', (born, on, age) => {
  const made = make(born, { show: { ageOn: { kind: 'column', column: 'On' } } }, { On: on });
  expect(made).toEqual({ text: age, value: Number(age) });
});

test('an age before birth, on no day, or beyond the calendar is said', () => {
  const ageOn = { show: { ageOn: { kind: 'column' as const, column: 'On' } } };
  expect(make('2027-03-05', ageOn, { On: '2026-01-01' })).toMatchObject({
    cannot: expect.stringContaining('lies after 2026-01-01') as string,
  });
  expect(make('2027-03-05', ageOn, { On: '' })).toMatchObject({ cannot: expect.stringContaining('is empty') as string, column: 'On' });
  expect(make('2027-03-05', ageOn, { On: 'soon' })).toMatchObject({
    cannot: expect.stringContaining('“soon” is not a date') as string,
    column: 'On',
  });
  expect(make('9999-12-31', added(0, 0, 1))).toMatchObject({ cannot: expect.stringContaining('out of the calendar') as string });
});
