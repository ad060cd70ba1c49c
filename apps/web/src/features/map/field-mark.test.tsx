import type { Evaluation, Field, FillNote, FillRule } from '@mailbag/core';
import { renderToStaticMarkup } from 'react-dom/server';
import { fieldMark, valueWords } from './field-mark';
import { RuleWords } from './rule-words';

const field = (more: Partial<Field> = {}): Field => ({
  name: 'a', kind: 'text', partialName: 'a', tooltip: null, label: null, page: 1, flags: [], maxLength: null, options: [], onValues: [], value: null, defaultValue: null,
  format: null, calculation: null, isPassword: false, widgets: [], ...more,
}); // prettier-ignore
const rule: FillRule = { kind: 'column', column: 'Name' };
const evaluation = (value: unknown, problems: unknown[] = []): Evaluation =>
  ({ values: value === undefined ? {} : { a: value }, problems }) as never;
const note = (more: Partial<FillNote>): FillNote => ({ field: 'a', fit: 'fits', characters: [], ...more }) as never;

test.each<[string, Field, unknown, string]>([
  ['nothing', field(), undefined, '—'],
  ['a text', field(), 'Ada', 'Ada'],
  ['an empty text', field(), '', 'blank'],
  ['a ticked box', field({ kind: 'checkbox' }), true, 'ticked'],
  ['a box that is ticked by its on-value', field({ kind: 'checkbox' }), 'On', 'ticked'],
  ['a box that is not', field({ kind: 'checkbox' }), false, 'not ticked'],
  ['no radio button', field({ kind: 'radio' }), false, 'none chosen'],
  ['a choice by what it shows', field({ kind: 'combo', options: [{ value: 'lm', label: 'Larkmere' }] }), 'lm', 'Larkmere'],
  ['several of a list', field({ kind: 'list' }), ['a', 'b'], 'a, b'],
  ['none of a list', field({ kind: 'list' }), [], 'blank'],
])('%s in words', (_, one, value, words) => expect(valueWords(one, value as never)).toBe(words));

const mark = (
  one: Field,
  value: unknown,
  {
    by = rule,
    notes = [],
    problems = [],
    records = true,
  }: { by?: FillRule | undefined; notes?: FillNote[]; problems?: unknown[]; records?: boolean } = {},
): [string, string] => {
  const { tone, word } = fieldMark(one, by, records ? evaluation(value, problems) : null, notes);
  return [tone, word];
};
const required = field({ flags: ['required'] });

test.each<[string, [string, string], [string, string]]>([
  ['fits', mark(field(), 'Ada'), ['moss', 'fits']],
  ['is tight', mark(field(), 'Ada', { notes: [note({ fit: 'tight' })] }), ['ochre', 'tight']],
  ['overflows', mark(field(), 'Ada', { notes: [note({ fit: 'overflows' })] }), ['brick', 'too long']],
  ['is longer than its limit', mark(field({ maxLength: 2 }), 'Ada'), ['brick', 'too long']],
  ['is as long as its limit, counted as people count', mark(field({ maxLength: 2 }), 'e\u0301e\u0301'), ['moss', 'fits']],
  ['cannot be drawn', mark(field(), 'x', { notes: [note({ characters: ['\u{10ffff}'] })] }), ['brick', 'no face']],
  ['is blank', mark(field(), ''), ['plain', 'blank']],
  ['is required and blank', mark(required, ''), ['brick', 'required']],
  ['is required, while there are no records yet', mark(required, '', { records: false }), ['plain', 'blank']],
  ['is required and blank but for spaces', mark(required, '  '), ['brick', 'required']],
  ['is required, and the form has one itself', mark({ ...required, value: 'Ada' }, undefined), ['plain', 'blank']],
  ['is not translated', mark(field(), '', { problems: [{ field: 'a' }] }), ['brick', 'unknown']],
  ['has notes of another field only', mark(field(), 'Ada', { notes: [{ ...note({ fit: 'overflows' }), field: 'b' }] }), ['moss', 'fits']],
])('a field whose value %s says so', (_, found, wanted) => expect(found).toEqual(wanted));

test('a field without a rule is open, and required where it must be filled', () => {
  expect([fieldMark(field(), undefined, null, []).word, fieldMark(required, undefined, null, []).word]).toEqual(['open', 'required']);
});

/** What a person reads of what is drawn. */
const textOf = (node: React.ReactElement): string =>
  renderToStaticMarkup(node)
    .replace(/<style[\s\S]*?<\/style>/g, '')
    .replace(/<[^<>]*>/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();

test.each<[FillRule | undefined, RegExp]>([
  [undefined, /nothing yet/],
  [rule, /Name/],
  [{ kind: 'text', text: 'Larkmere' }, /Larkmere/],
  [{ kind: 'blank' }, /blank/],
  [{ kind: 'compose', parts: [{ column: 'First name' }, { text: ' ' }, { column: 'Surname' }] }, /First name.*Surname/],
  [{ kind: 'translate', column: 'Water', table: [{ from: 'yes', to: 'On' }] }, /Water/],
] as never)('a rule stands there in words', (one, words) => expect(textOf(<RuleWords rule={one} />)).toMatch(words));
