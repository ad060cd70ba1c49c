import { format } from 'numfmt';
import { someContext } from '../../testing/context.js';
import { typedText } from '../../tables/typed-text.js';
import { workOn } from '../registry.js';
import type { FillRule } from '../registry.js';
import { rowReader } from '../row.js';
import type { Digits } from '../shown-amount.js';
import { Amount } from '../../tables/amount.js';
import { bareAmount, bareDigits, shownAmount } from '../shown-amount.js';
import type { Rounding } from '../rounding.js';
import type { ArithmeticRule, Operation } from './arithmetic.js';

const columns = ['A', 'B', 'C'].map((name) => ({ name }));
const work = (...texts: string[]) => workOn(rowReader(columns)({ row: 2, cells: texts.map((text) => typedText(text)) }), someContext);
const column = (name: string): FillRule => ({ kind: 'column', column: name });
const shown = (text: string, round: Rounding | null, digits: Partial<Digits>) =>
  work(text).make({ kind: 'number', of: column('A'), round, show: { ...bareDigits, ...digits } });
const calculated = (operation: Operation, texts: string[], more: Partial<ArithmeticRule> = {}) =>
  work(...texts).make({
    kind: 'arithmetic',
    do: operation,
    of: texts.map((_, index) => column(columns[index]!.name)),
    round: null,
    empty: 'stop',
    ...more,
  });

// IEEE 754-2019, 4.3.1: roundTiesToAway and roundTiesToEven, on decimals.
test.each<[string, number, string, string]>([
  ['0.5', 0, '1', '0'],
  ['1.5', 0, '2', '2'],
  ['2.5', 0, '3', '2'],
  ['-2.5', 0, '-3', '-2'],
  ['2.345', 2, '2.35', '2.34'],
  ['2.355', 2, '2.36', '2.36'],
  // 1.005 in binary lies below its half; in decimals it is one.
  ['1.005', 2, '1.01', '1.00'],
  ['0.125', 2, '0.13', '0.12'],
  ['2.34500001', 2, '2.35', '2.35'],
])('%s with %d decimals is %s half up and %s half even', (text, decimals, up, even) => {
  expect(shown(text, { decimals, how: 'half-up' }, {})).toMatchObject({ text: up });
  expect(shown(text, { decimals, how: 'half-even' }, {})).toMatchObject({ text: even });
});

test.each(['en', 'de', 'pl', 'it', 'nl', 'sv'])('thousands and decimals are those of an independent library: %s', (language) => {
  for (const amount of ['12345.5', '1234567.89', '-98765.4', '0.05'])
    expect(shown(amount, { decimals: 2, how: 'half-up' }, { thousands: true, language })).toMatchObject({
      text: format('#,##0.00', Number(amount), { locale: language })
        .replace(/\s/g, '\u00a0')
        .replace('-', language === 'sv' ? '\u2212' : '-'),
    });
});

test.each<[string, Rounding | null, Partial<Digits>, string]>([
  ['1234.5', { decimals: 2, how: 'half-up' }, { currency: 'EUR', language: 'de', thousands: true }, '1.234,50\u00a0€'],
  ['5', null, { percent: 'as-it-is' }, '5%'],
  ['0.075', { decimals: 1, how: 'half-up' }, { percent: 'times-100' }, '7.5%'],
  ['-12', null, { sign: 'brackets' }, '(12)'],
  ['12', null, { sign: 'always' }, '+12'],
  ['-12', null, { sign: 'never' }, '12'],
  ['12345678901234567890.12', null, {}, '12345678901234567890.12'],
  ['12,50', null, {}, '12.5'],
  ['€ 1.234,50', null, {}, '1234.5'],
])('%s, %j, %j is %s', (text, round, digits, expected) => {
  expect(shown(text, round, digits)).toMatchObject({ text: expected });
});

test.each<[string, Extract<FillRule, { kind: 'number' }>['show'], string]>([
  ['101', { words: 'de', currency: 'EUR' }, 'einhundertein Euro'],
  ['1', { words: 'de', currency: 'EUR' }, 'ein Euro'],
  ['1', { words: 'de', currency: null }, 'eins'],
  ['0.5', { words: 'en-GB', currency: 'GBP' }, 'zero British pounds 50/100'],
  ['-0.5', { words: 'en-GB', currency: 'EUR' }, 'minus zero euros 50/100'],
  ['2.5', { words: 'de', currency: null }, 'zwei Komma fünf'],
])('%s in words, %j: %s', (text, show, expected) => {
  const made = work(text).make({ kind: 'number', of: column('A'), round: null, show });
  expect((made as { text: string }).text.toLowerCase()).toBe(expected.toLowerCase());
});

test.each<[Operation, string[], Partial<ArithmeticRule>, string]>([
  ['sum', ['0.1', '0.2'], {}, '0.3'],
  ['difference', ['9', '3', '2'], {}, '4'],
  ['difference', ['', '3'], { empty: 'left-out' }, '-3'],
  ['product', ['1.1', '1.1'], {}, '1.21'],
  ['product', ['187.5', '0.35'], { round: { decimals: 2, how: 'half-even' } }, '65.62'],
  ['quotient', ['1', '3'], { round: { decimals: 4, how: 'half-up' } }, '0.3333'],
  ['quotient', ['8', '', '2'], { empty: 'left-out' }, '4'],
  ['minimum', ['3', '', '-2'], { empty: 'left-out' }, '-2'],
  ['maximum', ['3', '7', '-2'], {}, '7'],
  ['sum', ['99999999999999999.99', '0.01'], {}, '100000000000000000'],
  ['sum', ['', ''], {}, ''],
])('%s of %j, %j is %s', (operation, texts, more, expected) => {
  expect(calculated(operation, texts, more)).toMatchObject({ text: expected });
});

test.each<[Operation, string[], RegExp, string]>([
  ['sum', ['1', ''], /“B” is empty/, 'B'],
  ['sum', ['1', 'much'], /“much” is not a number/, 'B'],
  ['sum', ['1', '1.234,'], /is not a number/, 'B'],
  ['sum', ['1', '1,234'], /two different numbers/, 'B'],
  ['quotient', ['1', '0'], /divided by 0/, 'A, B'],
])('%s of %j cannot be worked out, and why is said', (operation, texts, why, of) => {
  expect(calculated(operation, texts)).toMatchObject({ cannot: expect.stringMatching(why) as string, column: of });
});

test.each(['en-GB', 'de', 'fr', 'sv', 'ar-EG', 'fa', 'hi', 'pl'])('digits alone are those that the language writes: %s', (language) => {
  for (const text of ['0', '-0.5', '1234.5', '-98765.432', '12345678901234567890.1', '-0'])
    for (const decimals of [0, 2, 3]) {
      const amount = new Amount(text);
      expect(bareAmount(amount, language, decimals)).toBe(shownAmount(amount, bareDigits, language, decimals));
    }
});

test('a calculation is a part of another rule, exact all the way', () => {
  const product: FillRule = {
    kind: 'arithmetic',
    do: 'product',
    of: [column('A'), { number: '1.19' }],
    round: { decimals: 2, how: 'half-up' },
    empty: 'stop',
  };
  const made = work('1234.56').make({
    kind: 'number',
    of: product,
    round: { decimals: 2, how: 'half-up' },
    show: { ...bareDigits, thousands: true, currency: 'EUR', language: 'de' },
  });
  expect(made).toMatchObject({ text: '1.469,13\u00a0€' });
});
