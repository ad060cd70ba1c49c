import { field } from '../../testing/field.js';
import { columnOf, findingsIn } from '../../testing/findings.js';
import { findingSentence } from '../registry.js';

const map = { a: { kind: 'column', column: 'Value' } } as never;
const told = (texts: readonly string[], maxLength: number | null): string[] =>
  findingsIn(
    [columnOf('Value', 'text')],
    texts.map((text) => [text]),
    { templates: [{ fields: [field('a', { maxLength, tooltip: 'Plot' })], map, measure: null }] },
    'too-long',
  ).map(findingSentence);

/** User-perceived characters (UAX #29), each of which a person would count as one. */
const ones = ['a', 'é', 'e\u0301', 'ผู้', 'क्षि', '각', '👩‍👩‍👧‍👦', '🇩🇪', '👍🏽', 'ﷺ'];

test.each(ones)('“%s” is one character', (one) => {
  expect(told([one.repeat(4)], 4)).toEqual([]);
  expect(told([one.repeat(5)], 4)).toEqual(['“Plot” takes 4 characters; this value has 5.']);
});

test('a field without a limit takes everything, and nothing is no value', () => {
  expect(told(['a'.repeat(10_000)], null)).toEqual([]);
  expect(told([''], 1)).toEqual([]);
});

test('a limit of none takes nothing', () => expect(told(['a'], 0)).toEqual(['“Plot” takes 0 characters; this value has 1.']));
