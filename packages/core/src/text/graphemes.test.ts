import { graphemeCount, graphemes } from './graphemes.js';

// Cases of the rules GB3 to GB13 of UAX #29.
test.each([
  ['letters', 'Zoë', ['Z', 'o', 'ë']],
  ['a decomposed letter', 'Zoe\u0308', ['Z', 'o', 'e\u0308']],
  ['a line break of two', 'a\r\nb', ['a', '\r\n', 'b']],
  ['Hangul syllables', '\u1112\u1161\u11ab\u1100', ['\u1112\u1161\u11ab', '\u1100']],
  ['Devanagari with a vowel sign', 'कि', ['कि']],
  ['Devanagari conjuncts', 'क्षत्रिय', ['क्ष', 'त्रि', 'य']],
  ['a family', '👩‍👧x', ['👩‍👧', 'x']],
  ['flags', '🇩🇪🇫🇷', ['🇩🇪', '🇫🇷']],
  ['nothing', '', []],
])('%s', (_, text, expected) => {
  expect(graphemes(text)).toEqual(expected);
  expect(graphemeCount(text)).toBe(expected.length);
});
