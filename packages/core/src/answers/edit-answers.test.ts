import { field } from '../testing/field.js';
import type { Answer } from './answer.js';
import { carryAnswers, joinAnswers, joiningsFor, takeApart } from './edit-answers.js';

const fields = [
  field('a', { label: 'Registration number', maxLength: 3 }),
  field('b', { maxLength: 2 }),
  field('c', { maxLength: 4 }),
  field('street', { label: 'Street' }),
  field('yes', { kind: 'checkbox', label: 'Yes', onValues: ['Y'] }),
  field('no', { kind: 'checkbox', label: 'No', onValues: ['N'] }),
];
const alone: Answer[] = fields.map(({ name, label }) => ({
  label,
  section: null,
  parts: [{ field: name, piece: null, option: null }],
  reason: 'alone',
}));
const told = (answers: readonly Answer[]): string[] => answers.map(({ parts }) => parts.map((part) => part.field).join(' + '));

test('fields are joined by hand: what each takes of it follows from its limit, and the answer stands where the first of them stood', () => {
  const joined = joinAnswers(alone, ['a', 'b', 'c'], 'characters', fields);
  expect(told(joined)).toEqual(['a + b + c', 'street', 'yes', 'no']);
  expect(joined[0]).toMatchObject({ label: 'Registration number', reason: 'joined' });
  expect(joined[0]!.parts.map(({ piece }) => piece)).toEqual([
    { what: 'characters', from: 1, to: 3 },
    { what: 'characters', from: 4, to: 5 },
    { what: 'characters', from: 6, to: 9 },
  ]);
  const ticks = joinAnswers(joined, ['yes', 'no'], 'yes-no', fields);
  expect(ticks.at(-1)).toMatchObject({
    reason: 'yes-no',
    parts: [{ option: { value: 'Y', label: 'Yes' } }, { option: { value: 'N', label: 'No' } }],
  });
  expect(told(takeApart(ticks, 'b', fields))).toEqual(['a', 'b', 'c', 'street', 'yes + no']);
});

test('a field that belongs to another answer leaves it, and what is left there is single again', () => {
  const joined = joinAnswers(alone, ['a', 'b', 'c'], 'characters', fields);
  const other = joinAnswers(joined, ['b', 'street'], 'same', fields);
  expect(told(other)).toEqual(['b + street', 'a', 'c', 'yes', 'no']);
  expect(other[1]).toMatchObject({ reason: 'alone', parts: [{ field: 'a', piece: null }] });
});

test('what cannot be one answer is refused', () => {
  expect(joiningsFor([fields[0]!])).toEqual([]);
  expect(joiningsFor([fields[0]!, fields[4]!])).toEqual([]);
  expect(joiningsFor(fields.slice(0, 4))).not.toContain('date');
  for (const names of [['a'], ['a', 'gone'], ['a', 'a'], ['a', 'yes']])
    expect(() => joinAnswers(alone, names, 'same', fields)).toThrow(/cannot be joined/);
});

test('what was joined and taken apart goes along to a later version; what has lost a field does not', () => {
  const joined = joinAnswers(alone, ['a', 'b'], 'characters', fields);
  expect(told(carryAnswers(joined, alone, fields))).toEqual(['a + b', 'c', 'street', 'yes', 'no']);
  const proposed = joinAnswers(alone, ['yes', 'no'], 'yes-no', fields);
  expect(told(carryAnswers(alone, proposed, fields))).toEqual(['a', 'b', 'c', 'street', 'yes', 'no']);
  expect(told(carryAnswers(proposed, proposed, fields))).toEqual(told(proposed));
  const without = fields.filter(({ name }) => name !== 'b');
  expect(
    told(
      carryAnswers(
        joined,
        alone.filter(({ parts }) => parts[0]!.field !== 'b'),
        without,
      ),
    ),
  ).toEqual(['a', 'c', 'street', 'yes', 'no']);
});
