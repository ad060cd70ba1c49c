import { formatNumber, isRed, readNumber } from './number-format.js';
import type { NumberFormat } from './number-format.js';
import { applyFormat, recogniseFormat } from './script.js';

const format = (more: Partial<NumberFormat> = {}): NumberFormat => ({
  kind: 'number',
  decimals: 2,
  separators: 0,
  negative: 0,
  currency: '',
  currencyFirst: true,
  ...more,
});

/** The notations of AFNumber_Format (sepStyle) beside those that the runtime’s own data (Unicode CLDR) has for a language that writes so. */
const languages: [separators: number, locale: string, grouping: boolean][] = [
  [0, 'en-US', true],
  [1, 'en-US', false],
  [2, 'de-DE', true],
  [3, 'de-DE', false],
  [4, 'de-CH', true],
];

test.each(languages)('notation %i writes numbers as %s does', (separators, locale, useGrouping) => {
  for (const decimals of [0, 1, 2, 3]) {
    const other = new Intl.NumberFormat(locale, {
      minimumFractionDigits: decimals,
      maximumFractionDigits: decimals,
      useGrouping,
      roundingMode: 'halfExpand',
    } as never);
    for (const value of [0, 1, 12, 999, 1000, 12_345, 1_234_567, 0.5, 0.125, 1234.5678, 99_999.995, 123_456_789.12]) {
      const shown = formatNumber(format({ decimals, separators }), String(value));
      expect([value, shown]).toEqual([value, other.format(value).replace(/\u2019/g, "'")]);
    }
  }
});

test.each(languages)('what notation %i writes it reads back', (separators) => {
  for (const value of [0, 7, -7, 1000, -1234.5, 1_234_567.89, -0.01]) {
    const shown = formatNumber(format({ separators }), String(value));
    expect([shown, readNumber(shown, separators)]).toEqual([shown, value]);
  }
});

test.each([
  ['1.005', 2, '1.01'],
  ['1.0049', 2, '1.00'],
  ['-1.005', 2, '-1.01'],
  ['2.5', 0, '3'],
  ['0.1', 20, '0.10000000000000000000'],
  ['0.045', 2, '0.05'],
  ['1e3', 2, '1e3'],
  ['', 2, ''],
  ['--5', 2, '--5'],
])('%s to %i decimals is %s, rounded as people do', (text, decimals, shown) =>
  expect(formatNumber(format({ decimals }), text)).toBe(shown),
);

test.each([
  [0, '-12.00', false],
  [1, '12.00', true],
  [2, '(12.00)', false],
  [3, '(12.00)', true],
])('below nought, style %i shows %s', (negative, shown, red) => {
  expect([formatNumber(format({ negative }), '-12'), isRed(format({ negative }), '-12')]).toEqual([shown, red]);
  expect([formatNumber(format({ negative }), '12'), isRed(format({ negative }), '12')]).toEqual(['12.00', false]);
});

test.each(['(12)', '-12', '12-', '\u221212', '- 12', '($12)'])('“%s” is below nought', (text) =>
  expect(readNumber(text, 0, '$')).toBe(-12),
);
test.each(['$12', '12 €', '€12', '+12', ' 12 ', '1\u00a02', '12.'.slice(0, 2)])('“%s” is twelve', (text) =>
  expect(readNumber(text, 0)).toBe(12),
);
test.each(['twelve', '1,2,3', '12.3.4', '', '-', '()', 'NaN', 'Infinity'])('“%s” is no number', (text) =>
  expect(readNumber(text)).toBeNull(),
);

test('a currency stands where the author wants it, within the brackets', () => {
  expect(formatNumber(format({ currency: 'EUR ', negative: 2 }), '-5')).toBe('(EUR 5.00)');
  expect(formatNumber(format({ currency: ' kr', currencyFirst: false }), '5')).toBe('5.00 kr');
});

test('percent: the value is a share, and one that says percent itself is none', () => {
  const percent = format({ kind: 'percent', decimals: 1 });
  expect(['0.075', '7.5%', '1', '-0.5'].map((text) => formatNumber({ ...percent, currencyFirst: false }, text))).toEqual([
    '7.5%',
    '7.5%',
    '100.0%',
    '-50.0%',
  ]);
  expect(formatNumber({ ...percent, currencyFirst: true }, '0.5')).toBe('%50.0');
});

/** The numbered formats of AFDate_Format and AFTime_Format, in the order of the published API, at 1 February 2027, 14:05:09. */
test.each([
  '2/1', '2/1/27', '02/01/27', '02/27', '1-Feb', '1-Feb-27', '01-Feb-27', '27-02-01', 'Feb-27', 'February-27', 'Feb 1, 2027', 'February 1, 2027', '2/1/27 2:05 pm', '2/1/27 14:05',
].map((shown, at) => [at, shown] as const))('AFDate_Format(%i) shows %s', (at, shown) =>
  expect(applyFormat(recogniseFormat(`AFDate_Format(${at})`)!, '2027-02-01T14:05:09')).toBe(shown),
); // prettier-ignore
test.each(['14:05', '2:05 pm', '14:05:09', '2:05:09 pm'].map((shown, at) => [at, shown] as const))(
  'AFTime_Format(%i) shows %s',
  (at, shown) => expect(applyFormat(recogniseFormat(`AFTime_Format(${at})`)!, '2027-02-01T14:05:09')).toBe(shown),
);
test.each([
  'AFDate_Format(14)',
  'AFDate_Format(-1)',
  'AFTime_Format(4)',
  'AFSpecial_Format(4)',
  'AFNumber_Format(21, 0, 0, 0, "", true)',
  'AFNumber_Format(2, 5, 0, 0, "", true)',
  'AFNumber_Format(2, 0)',
])('%s is none', (script) => expect(recogniseFormat(script)).toBeNull());

test.each([
  ['d.m.yy', '1.2.27'],
  ['dddd, dd mmmm yyyy', 'Monday, 01 February 2027'],
  ['yyyy\\dmm', '2027d02'],
  ['"on" dd', '"on" 01'],
  ["d 'of' mmm", "1 'of' Feb"],
])('the letters of %s', (pattern, shown) => expect(applyFormat({ kind: 'date', pattern }, '2027-02-01')).toBe(shown));
