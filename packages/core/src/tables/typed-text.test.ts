import { calendarDate, isDateLike, isoDate, typedText, writtenNumber } from './typed-text.js';

// Days of the proleptic Gregorian calendar (ISO 8601-1, 4.2.1).
test.each([
  [2028, 2, 29, '2028-02-29'],
  [2027, 2, 29, null],
  [2000, 2, 29, '2000-02-29'],
  [1900, 2, 29, null],
  [2027, 4, 31, null],
  [2027, 13, 1, null],
  [2027, 0, 1, null],
  [0, 1, 1, null],
  [1, 1, 1, '0001-01-01'],
  [9999, 12, 31, '9999-12-31'],
  [10_000, 1, 1, null],
])('%i-%i-%i is the day %s', (year, month, day, iso) => expect(calendarDate(year, month, day)).toBe(iso));

test.each<[string, 'day-first' | 'month-first' | undefined, string | null]>([
  ['2027-03-05', undefined, '2027-03-05'],
  ['5.3.2027', undefined, '2027-03-05'],
  ['05.03.2027', 'month-first', '2027-05-03'],
  // Without an order nobody knows whether it is in March or in May.
  ['3/5/2027', undefined, null],
  ['3/5/2027', 'month-first', '2027-03-05'],
  ['3/5/2027', 'day-first', '2027-05-03'],
  ['3-5-2027', 'day-first', '2027-05-03'],
  ['25/12/2027', 'month-first', null],
  ['5.3.27', undefined, null],
  ['5.3.27', 'day-first', '2027-03-05'],
  ['5.3.31', 'day-first', '1931-03-05'],
  ['31.02.2027', undefined, null],
  ['2027/03/05', 'day-first', '2027-03-05'],
  ['5.3-2027', undefined, null],
  ['tomorrow', 'day-first', null],
])('“%s” read %s is %s', (text, order, iso) => {
  expect(isoDate(text, order)).toBe(iso);
  if (iso !== null) expect(isDateLike(text)).toBe(true);
});

test.each<[string, 'point' | 'comma', number | null]>([
  ['1234.5', 'point', 1234.5],
  ['1,234.50', 'point', 1234.5],
  ['1.234,50', 'comma', 1234.5],
  ['1 234,5', 'comma', 1234.5],
  ['1’234.5'.replace('’', "'"), 'point', 1234.5],
  ['€ 12,50', 'comma', 12.5],
  ['12.50 CHF', 'point', 12.5],
  ['-0.5', 'point', -0.5],
  ['+3', 'point', 3],
  ['12 %', 'point', 12],
  // Groups are of three; anything else is another notation, or a slip.
  ['1,23,456', 'point', null],
  ['12,34', 'point', null],
  ['1.234.5', 'point', null],
  ['1e5', 'point', null],
  ['', 'point', null],
  ['abc', 'comma', null],
  ['0000000000000000000012', 'point', 12],
  // A digit would be lost.
  ['1234567890123456', 'point', null],
  ['123456789012345', 'point', 123_456_789_012_345],
])('“%s” with a %s is the number %s', (text, decimals, number) => expect(writtenNumber(text, decimals)).toBe(number));

test.each<[string, Parameters<typeof typedText>[1], unknown]>([
  ['12', undefined, 12],
  ['-12.5', undefined, -12.5],
  // What begins with a zero is a code, and what is too long would lose digits.
  ['01067', undefined, '01067'],
  ['0', undefined, 0],
  ['0.5', undefined, 0.5],
  ['1234567890123456', undefined, '1234567890123456'],
  ['2027-01-31', undefined, '2027-01-31'],
  ['31.01.2027', undefined, '2027-01-31'],
  ['31.02.2027', undefined, '31.02.2027'],
  ['TRUE', undefined, true],
  ['false', undefined, false],
  ['yes', undefined, 'yes'],
  ['  ', undefined, null],
  ['1.234,5', { decimals: 'comma' }, 1234.5],
  ['01', { decimals: 'comma' }, '01'],
  ['1/2/2027', { dates: 'day-first' }, '2027-02-01'],
  // A person has said what the column is.
  ['12', { kind: 'text' }, '12'],
  ['01067', { kind: 'number' }, 1067],
  ['twelve', { kind: 'number' }, 'twelve'],
  ['5.3.2027', { kind: 'date' }, '2027-03-05'],
  ['soon', { kind: 'date' }, 'soon'],
  ['true', { kind: 'yes-no' }, true],
  ['2027-01-31', { kind: 'key' }, '2027-01-31'],
])('“%s” read as %j is %j, and stays as it was written', (text, reading, value) => {
  expect(typedText(text, reading)).toEqual({ text, value });
});
