import { joinAnswers } from '../../answers/edit-answers.js';
import { rulesOfAnswer } from '../../map/answer-rules.js';
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

test('a number that stands over several boxes is too long by all of them, and that is told once', () => {
  const fields = [field('a', { maxLength: 3 }), field('b', { maxLength: 2, label: 'Registration number', labelFrom: 'print' })];
  const answer = joinAnswers([], ['a', 'b'], 'characters', fields)[0]!;
  const rules = rulesOfAnswer(answer, { kind: 'column', column: 'Value' }, new Map(fields.map((one) => [one.name, one])));
  const says = findingsIn(
    [columnOf('Value', 'text')],
    [['123-45'], ['123-4567']],
    { templates: [{ fields, map: rules, measure: null }] },
    'too-long',
  );
  expect(says.map(findingSentence)).toEqual(['“Registration number” takes 5 characters; this value has 7.']);
});
