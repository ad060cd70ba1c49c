import type { FillRule } from '../map/registry.js';
import { evaluateMap } from '../map/field-map.js';
import { rowReader } from '../map/row.js';
import type { Field } from '../pdf/field.js';
import type { FillNote } from '../pdf/value.js';
import type { Column } from '../tables/record.js';
import { someContext } from '../testing/context.js';
import { field } from '../testing/field.js';
import { checkRecords } from './check-records.js';
import { fieldVerdict } from './field-verdict.js';

const column: Column = { name: 'Name', slug: 'name', kind: 'text', empty: 0, distinct: 1, longest: '', examples: [] };
const rules: Record<string, FillRule> = {
  column: { kind: 'column', column: 'Name' },
  blank: { kind: 'blank' },
  tick: { kind: 'translate', column: 'Name', table: [{ from: 'yes', to: 'On' }, { from: 'no', to: 'Off' }] },
}; // prettier-ignore
const fields: Field[] = [
  field('plain'),
  field('short', { maxLength: 3 }),
  field('wanted', { flags: ['required'] }),
  field('wanted and short', { flags: ['required'], maxLength: 3 }),
  field('wanted, with a value', { flags: ['required'], value: 'Larkmere' }),
  field('wanted tick', { kind: 'checkbox', flags: ['required'], onValues: ['On'] }),
];
const texts = ['', ' ', 'Ada', 'e\u0301e\u0301e\u0301', 'Quist', 'yes', 'no', '𝒜𝒜𝒜', 'far too long for its box'];
const note = (name: string, text: string): FillNote | null =>
  text.length > 20 ? { field: name, fit: 'overflows', characters: [] } : text.includes('𝒜') ? { field: name, fit: 'fits', characters: ['𝒜'] } : null; // prettier-ignore

/** What the checks of a batch find, as the verdict that says it. */
const FOUND: Readonly<Record<string, string>> = {
  untranslated: 'untranslated',
  'required-blank': 'required',
  'cannot-draw': 'cannot-draw',
  'too-long': 'too-long',
  overflows: 'overflows',
};
const cases = fields.flatMap((one) =>
  Object.keys(rules)
    .filter((rule) => (one.kind === 'checkbox') === (rule === 'tick'))
    .flatMap((rule) => texts.map((text) => [one, rule, text] as const)),
);

test.each(cases.map(([one, rule, text]) => [one.name, rule, text, one] as const))(
  'the map and the checks judge “%s” with the rule %s and the value “%s” alike',
  (name, rule, text, one) => {
    const map = { [name]: rules[rule]! };
    const record = { row: 2, cells: [{ text, value: text }] };
    const noteOfText = rule === 'column' ? note(name, text) : null;
    const found = checkRecords(
      {
        context: someContext,
        columns: [column],
        keyColumn: null,
        addressColumn: null,
        templates: [{ fields: [one], map, measure: () => (noteOfText ? [noteOfText] : []) }],
      },
      [record],
    ).flatMap(({ code }) => FOUND[code] ?? []);
    const evaluation = evaluateMap([one], map, rowReader([column])(record), someContext);
    const verdict = fieldVerdict(one, map[name], evaluation, noteOfText ? [noteOfText] : []);
    if (found.length > 0) expect(found).toContain(verdict);
    else expect(['fits', 'tight', 'blank', 'open']).toContain(verdict);
  },
);

test('a field without a rule is open, or must be filled; where the template has a value, it may stay', () => {
  const verdicts = fields.map((one) => fieldVerdict(one, undefined, null, []));
  expect(verdicts).toEqual(['open', 'open', 'required', 'required', 'open', 'required']);
});

test('the worst that is wrong with a field is what is said of it', () => {
  const notes: FillNote[] = [{ field: 'wanted and short', fit: 'overflows', characters: ['𝒜'] }];
  const one = fields[3]!;
  const of = (value: string, problems = false, own = notes) =>
    fieldVerdict(
      one,
      rules.column,
      {
        values: { [one.name]: value },
        problems: problems ? [{ field: one.name, code: 'untranslated', value, accepted: [] }] : [],
      } as never,
      own,
    );
  expect([of('𝒜𝒜𝒜𝒜', true), of(' '), of('𝒜𝒜𝒜𝒜'), of('Quist', false, [])]).toEqual(['untranslated', 'required', 'cannot-draw', 'too-long']);
});
