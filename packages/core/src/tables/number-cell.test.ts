import { numberCell, serialDate, significantDigits } from './number-cell.js';

// Dates of ECMA-376, part 1, 18.17.4.1 to 18.17.4.3: their serial numbers in the two date systems. The 1900 system counts a 29 February 1900.
test.each([
  ['1900-01-01', 1, false],
  ['1900-02-28', 59, false],
  ['1900-03-01', 61, false],
  ['1904-01-01', 1462, false],
  ['1904-01-01', 0, true],
  ['1904-01-02', 1, true],
  ['2000-02-29', 36_585, false],
  ['9999-12-31', 2_958_465, false],
  ['9999-12-31', 2_957_003, true],
])('%s is day %i, with 1904 %s', (date, serial, date1904) => expect(serialDate(serial, date1904)).toBe(date));

test('a part of a day is a time, to the second', () => {
  expect(serialDate(36_585.5, false)).toBe('2000-02-29T12:00:00');
  // One second less than a day.
  expect(serialDate(36_585.999988426, false)).toBe('2000-02-29T23:59:59');
  expect(serialDate(36_585.000011574, false)).toBe('2000-02-29T00:00:01');
});

/** A number, its format (18.8.31), how it is shown, and what is taken for its value. */
const shown: [raw: string, pattern: string, text: string, value: unknown][] = [
  ['42', 'General', '42', 42],
  ['42.5', '', '42.5', 42.5],
  ['0.1', 'General', '0.1', 0.1],
  ['0.30000000000000004', 'General', '0.3', 0.30000000000000004],
  ['-7', '@', '-7', -7],
  ['7', '00000', '00007', 7],
  ['1234.5', '#,##0.00', '1,234.50', 1234.5],
  ['-1234.5', '#,##0.00;[Red](#,##0.00)', '(1,234.50)', -1234.5],
  ['0', '0;-0;"none"', 'none', 0],
  ['0.125', '0.0%', '12.5%', 0.125],
  ['2.5', '0.00" m²"', '2.50 m²', 2.5],
  ['5', '"A-"00', 'A-05', 5],
  ['1500000', '0.0,,"M"', '1.5M', 1_500_000],
  ['36585', 'yyyy-mm-dd', '2000-02-29', '2000-02-29'],
  ['36585', 'dd.mm.yyyy', '29.02.2000', '2000-02-29'],
  ['36585', 'm/d/yy', '2/29/00', '2000-02-29'],
  ['36585.75', 'yyyy-mm-dd hh:mm', '2000-02-29 18:00', '2000-02-29T18:00:00'],
  ['0.75', 'hh:mm', '18:00', '18:00'],
  ['0.75', 'h:mm AM/PM', '6:00 PM', '18:00'],
  ['0.500011574', 'hh:mm:ss', '12:00:01', '12:00:01'],
  ['1.25', '[h]:mm', '30:00', '30:00'],
  ['5', '"day "0', 'day 5', 5],
  ['5', '[Yellow]0', '5', 5],
];
test.each(shown)('%s as %j is shown as %j', (raw, pattern, text, value) => {
  expect(numberCell(raw, pattern, false)).toEqual({ text, value });
  // What is remembered is the same.
  expect(numberCell(raw, pattern, false)).toEqual({ text, value });
});

test('the same number is another day in a workbook that counts from 1904', () => {
  expect(numberCell('100', 'yyyy-mm-dd', true)).toEqual({ text: '1904-04-10', value: '1904-04-10' });
  expect(numberCell('100', 'yyyy-mm-dd', false)).toEqual({ text: '1900-04-09', value: '1900-04-09' });
  // A time of day and a span of time have no day to move.
  expect(numberCell('0.75', 'hh:mm', true)).toEqual(numberCell('0.75', 'hh:mm', false));
  expect(numberCell('1.25', '[h]:mm', true)).toEqual(numberCell('1.25', '[h]:mm', false));
});

test('digits that a number cannot keep stay text, and no code gets an exponent', () => {
  expect(numberCell('1234567890123456', 'General', false)).toEqual({ text: '1234567890123456', value: '1234567890123456' });
  expect(numberCell('12345678901234567890', 'General', false)).toEqual({ text: '12345678901234567890', value: '12345678901234567890' });
  expect(numberCell('1.5E+15', 'General', false)).toEqual({ text: '1500000000000000', value: '1500000000000000' });
  expect(numberCell('4.3E-2', 'General', false)).toEqual({ text: '0.043', value: 0.043 });
});

test('what is no number, no day or no format is shown as it stands', () => {
  expect(numberCell('', 'General', false)).toEqual({ text: '', value: null });
  expect(numberCell('n/a', '0.00', false)).toEqual({ text: 'n/a', value: 'n/a' });
  expect(numberCell('Infinity', '0', false)).toEqual({ text: 'Infinity', value: 'Infinity' });
  expect(numberCell('7', '[', false).text).toMatch(/7/);
  expect(numberCell('1e300', 'yyyy-mm-dd', false).value).toBe(1e300);
});

test('more different numbers than are remembered are all shown right', () => {
  for (let at = 0; at < 10_000; at++) expect(numberCell(String(at), '0000', false).text).toBe(String(at).padStart(4, '0'));
});

test.each([
  ['12', 2], ['120', 2], ['0.50', 1], ['1.5E+15', 2], ['-12345', 5], ['1234567890123456', 16], ['0', 0],
])('%s has %i digits that count', (raw, digits) => expect(significantDigits(raw)).toBe(digits)); // prettier-ignore
