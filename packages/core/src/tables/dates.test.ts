import { DateTime } from 'luxon';
import { DateOrders } from './date-orders.js';
import { calendarDate, isoDate, likelyNumber, typedText, writtenNumber } from './typed-text.js';

/** Luxon is another reading of the calendar (ISO 8601), which is not ours. */
const days = Array.from({ length: 40_000 }, (_, at) => DateTime.utc(1895, 1, 1).plus({ days: at }));

test('every day of a hundred years is read as luxon writes it, in each way of writing', () => {
  const wrong = days
    .filter((_, at) => at % 3 === 0)
    .flatMap((day) => {
      const written = (['d.M.yyyy', 'dd.MM.yyyy', 'd/M/yyyy', 'MM/dd/yyyy', 'yyyy/MM/dd'] as const).map((format) => day.toFormat(format));
      const read = written.map((text, at) => isoDate(text, at === 3 ? 'month-first' : 'day-first'));
      const iso = day.toISODate()!;
      return [iso, ...written].filter((_, at) => (at === 0 ? isoDate(iso) : read[at - 1]) !== iso);
    });
  expect(wrong).toEqual([]);
});

test('a day is there exactly when luxon has it', () => {
  for (const year of [1, 1582, 1899, 1900, 1904, 2000, 2027, 2028, 2100, 9999])
    for (let month = 0; month <= 13; month++)
      for (let day = 0; day <= 32; day++) {
        const other = DateTime.utc(year, month, day);
        expect(calendarDate(year, month, day)).toBe(other.isValid ? other.toISODate() : null);
      }
});

describe('the order of day and month is that of the column', () => {
  const order = (texts: readonly string[]): [string | undefined, boolean] => {
    const orders = new DateOrders();
    for (const text of texts) orders.see([text]);
    return [orders.of(0), orders.isAmbiguous(0)];
  };
  test.each([
    [['01/02/2027', '25/12/2027'], 'day-first'],
    [['01/02/2027', '12/25/2027'], 'month-first'],
    [['1-2-2027', '31-1-2027'], 'day-first'],
  ])('%j', (texts, wanted) => expect(order(texts)).toEqual([wanted, false]));
  test('where nothing tells it, that is said', () => expect(order(['01/02/2027', '11/12/2027'])).toEqual([undefined, true]));
  test('days with dots tell nothing and need nothing', () => expect(order(['25.12.2027'])).toEqual([undefined, false]));
  test('what is no date is not counted', () => expect(order(['12/2027', 'A-1/2', '', '1/2/3/4'])).toEqual([undefined, false]));
  test('the first that tells is kept, so that a slip further down does not turn all of them', () =>
    expect(order(['25/12/2027', '12/25/2027'])).toEqual(['day-first', false]));
});

/** Numbers as the Unicode CLDR has them written in each language, by the runtime's own data. */
test.each([
  ['en-US', 'point'],
  ['en-GB', 'point'],
  ['de-DE', 'comma'],
  ['nl-NL', 'comma'],
  ['es-ES', 'comma'],
  ['fr-FR', 'comma'],
  ['sv-SE', 'comma'],
  ['pl-PL', 'comma'],
] as const)('numbers as they are written in %s', (locale, decimals) => {
  const format = new Intl.NumberFormat(locale, { maximumFractionDigits: 3, useGrouping: 'always' } as never);
  for (const value of [0, 1, 12, 999, 1000, 12_345, 1_234_567, 0.5, 1234.5, 99_999.125, 1e9]) {
    for (const one of [value, -value]) {
      const text = format.format(one).replace('\u2212', '-');
      expect([text, writtenNumber(text, decimals)]).toEqual([text, one]);
    }
  }
});

test.each([
  ['1.234,5', undefined, 1234.5],
  ['1,234.5', undefined, 1234.5],
  ['1,5', undefined, 1.5],
  ['1,234', undefined, 1234],
  ['1,234', 'comma', 1.234],
  ['twelve', undefined, null],
  ['', undefined, null],
] as const)('“%s” read %s most likely is %s', (text, decimals, number) =>
  expect(likelyNumber(text, decimals ? { decimals } : {})).toBe(number),
);

test.each([
  ['00123', {}, '00123'],
  ['0', {}, 0],
  ['-0.5', {}, -0.5],
  ['1234567890123456', {}, '1234567890123456'],
  ['true', {}, true],
  ['FALSE', {}, false],
  ['', {}, null],
  ['12', { kind: 'text' }, '12'],
  ['12', { kind: 'number' }, 12],
  ['1/2/2027', { kind: 'date', dates: 'month-first' }, '2027-01-02'],
  ['soon', { kind: 'date' }, 'soon'],
] as const)('%j read as %j is %j', (text, reading, value) => expect(typedText(text, reading as never)).toEqual({ text, value }));
