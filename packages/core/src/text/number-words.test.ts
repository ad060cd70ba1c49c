import { cldrWords } from '../testing/rbnf.js';
import type { WordsLanguage } from './number-words.js';
import { numberWords } from './number-words.js';

/** Every number up to 1,100, and some of every size up to the longest that is written out. */
const numbers = [
  ...Array.from({ length: 1101 }, (_, number) => number),
  ...[2000, 2001, 9999, 10_000, 12_345, 21_000, 99_999, 100_000, 100_001, 101_000, 234_567, 999_999, 1_000_000, 1_000_001, 2_000_000],
  ...[21_000_021, 123_456_789, 1_000_000_000, 2_003_004_005, 999_999_999_999, 1_000_000_000_000, 123_456_789_012_345],
]; // prettier-ignore

/** What both write is compared, not where they break it. */
const plain = (text: string): string => text.replace(/[\s-]+/g, ' ').trim();

test.each<[WordsLanguage, string, string]>([
  ['en-US', 'en', '%spellout-cardinal'],
  ['de', 'de', '%spellout-numbering'],
])('numbers in words are those of the Unicode CLDR: %s', (language, cldr, set) => {
  const expected = cldrWords(cldr, set);
  const other = numbers.filter((number) => plain(numberWords(String(number), language)) !== plain(expected(number)));
  expect(other.map((number) => [number, numberWords(String(number), language), expected(number)])).toEqual([]);
});

test('in British English “and” stands before the tens and ones (common practice, no source)', () => {
  expect(numberWords('1234', 'en-GB')).toBe('one thousand two hundred and thirty-four');
  expect(numberWords('-1005', 'en-GB')).toBe('minus one thousand and five');
});
