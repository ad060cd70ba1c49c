import type { Field } from '../../pdf/field.js';
import { someContext } from '../../testing/context.js';
import { field } from '../../testing/field.js';
import type { FillRule } from '../registry.js';
import {
  beginRule,
  evaluateRule,
  parseRule,
  readsColumns,
  renameColumn,
  ruleFacts,
  ruleKinds,
  ruleSentence,
  rulesFor,
  textsMade,
} from '../registry.js';
import { typedText } from '../../tables/typed-text.js';
import type { Row } from '../row.js';
import { rowReader } from '../row.js';

const columns = ['First', 'Last', 'Shed', 'Born', 'Rent'].map((name) => ({ name }));
const row = (first: string, last: string, shed = '', born: [string, string] = ['', ''], rent: [string, number] = ['', 0]): Row =>
  rowReader(columns)({
    row: 2,
    cells: [
      ...[first, last, shed].map((text) => ({ text, value: text })),
      { text: born[0], value: born[1] },
      { text: rent[0], value: rent[1] },
    ],
  });
const box = field('a');
const tick = field('t', { kind: 'checkbox', onValues: ['On'] });
const radio = field('r', { kind: 'radio', onValues: ['1', '2'], options: [{ value: '1', label: 'Soprano' }, { value: '2', label: 'Bass' }] }); // prettier-ignore
const menu = field('m', { kind: 'combo', options: [{ value: 'DE', label: 'Germany' }, { value: 'FR', label: 'France' }] }); // prettier-ignore
const open = field('o', { kind: 'combo', flags: ['edit'], options: [{ value: 'DE', label: 'Germany' }] });
const list = field('l', { kind: 'list', options: [{ value: 'x', label: 'Extra' }] });

const compose: FillRule = { kind: 'compose', parts: [{ column: 'Last' }, { text: ', ' }, { column: 'First' }] };
const bracketed: FillRule = { kind: 'compose', parts: [{ column: 'First' }, { text: ' (' }, { column: 'Last' }, { text: ')!' }] };
const sheds: FillRule = { kind: 'translate', column: 'Shed', table: [{ from: 'yes', to: 'On' }, { from: 'no', to: 'Off' }] }; // prettier-ignore

/** What a rule makes of a record for a field. */
const cases: [rule: FillRule, of: Field, from: Row, value: unknown][] = [
  [{ kind: 'column', column: 'First' }, box, row('Ada ', ''), 'Ada '],
  [{ kind: 'column', column: 'First' }, radio, row(' bass', ''), '2'],
  [{ kind: 'column', column: 'First' }, radio, row('1', ''), '1'],
  [{ kind: 'column', column: 'First' }, menu, row('germany', ''), 'DE'],
  [{ kind: 'column', column: 'First' }, open, row('Norway', ''), 'Norway'],
  [{ kind: 'column', column: 'First' }, list, row('extra', ''), ['x']],
  [{ kind: 'column', column: 'First' }, tick, row('Off', ''), false],
  // A field with a format is given the typed value, which can be read in one way only.
  [{ kind: 'column', column: 'Born' }, field('d', { format: { pattern: 'dd.mm.yyyy' } as never }), row('', '', '', ['3/5/2027', '2027-05-03']), '2027-05-03'],
  [{ kind: 'column', column: 'Rent' }, field('n', { format: { decimals: 2 } as never }), row('', '', '', ['', ''], ['1,5', 1.5]), '1.5'],
  [{ kind: 'text', text: 'in full' }, box, row('', ''), 'in full'],
  [{ kind: 'text', text: 'Soprano' }, radio, row('', ''), '1'],
  [{ kind: 'blank' }, box, row('Ada', ''), ''],
  [{ kind: 'blank' }, tick, row('Ada', ''), false],
  [compose, box, row('Ada', 'Quist'), 'Quist, Ada'],
  [compose, box, row('', 'Quist'), 'Quist'],
  [compose, box, row('Ada', ''), 'Ada'],
  [{ kind: 'compose', parts: [{ text: 'Plot ' }, { column: 'First' }] }, box, row('', ''), ''],
  [bracketed, box, row('Ada', 'Quist'), 'Ada (Quist)!'],
  [bracketed, box, row('Ada', ''), 'Ada!'],
  [{ kind: 'compose', parts: [{ text: 'a) ' }, { column: 'First' }] }, box, row('Ada', ''), 'a) Ada'],
  [bracketed, box, row('', 'Quist'), 'Quist!'],
  [{ kind: 'compose', parts: [{ text: 'always' }] }, box, row('', ''), 'always'],
  [sheds, tick, row('', '', ' YES '), 'On'],
  [sheds, tick, row('', '', 'no'), false],
  [sheds, tick, row('', '', ''), false],
  [{ kind: 'shorten', of: { kind: 'column', column: 'First' }, to: 10, at: 'word', mark: '…' }, box, row('Anna Maria Quist', ''), 'Anna…'],
  [{ kind: 'shorten', of: { kind: 'column', column: 'First' }, to: 10, at: 'word', mark: '' }, box, row('Anna Maria Quist', ''), 'Anna Maria'],
  // One that is short enough stays as it is, stray spaces and all; a first word that is too long ends anywhere.
  [{ kind: 'shorten', of: { kind: 'column', column: 'First' }, to: 10, at: 'word', mark: '…' }, box, row('Anna ', ''), 'Anna '],
  [{ kind: 'shorten', of: { kind: 'column', column: 'First' }, to: 6, at: 'word', mark: '' }, box, row('Wilhelmina Q', ''), 'Wilhel'],
  // Characters as people see them: a letter with its accent, a family.
  [{ kind: 'shorten', of: { kind: 'column', column: 'First' }, to: 2, at: 'character', mark: '' }, box, row('e\u0301e\u0301e\u0301', ''), 'e\u0301e\u0301'],
  [{ kind: 'shorten', of: { kind: 'column', column: 'First' }, to: 1, at: 'character', mark: '…' }, box, row('Ada', ''), '…'],
  [{ kind: 'fitted', of: { kind: 'column', column: 'Born' }, tooLong: 'wrap', smallest: 4.5 }, field('d', { format: { pattern: 'dd.mm.yyyy' } as never }), row('', '', '', ['3/5/2027', '2027-05-03']), '2027-05-03'],
  [{ kind: 'piece', of: { kind: 'column', column: 'First' }, box: { piece: { what: 'characters', from: 2, to: 3 }, isLast: false } }, box, row('ABCD', ''), 'BC'],
]; // prettier-ignore

test.each(cases)('%j', (rule, of, from, value) => {
  const result = evaluateRule(rule, of, from, someContext);
  expect(result.value ?? null).toEqual(value);
  expect(result.untranslated).toBeUndefined();
  // Whoever is told of a rule gets the same one back.
  expect(parseRule(JSON.parse(JSON.stringify(rule)))).toEqual({ rule, fault: null });
  expect(ruleSentence(rule).length).toBeGreaterThan(0);
});

/** A record of texts, typed as a source types them. */
const recordOf = (from: Record<string, string>): Row =>
  rowReader(Object.keys(from).map((name) => ({ name })))({ row: 2, cells: Object.values(from).map((text) => typedText(text)) });

const examples = ruleKinds.flatMap((kind) => ruleFacts(kind).examples.map((one) => [kind, one] as const));

test.each(examples)('%s does what its example says', (_kind, { rule, from, gives }) => {
  const result = evaluateRule(rule, box, recordOf(from), someContext);
  expect(result).toEqual({ value: gives });
  expect(parseRule(JSON.parse(JSON.stringify(rule)))).toEqual({ rule, fault: null });
  expect(ruleSentence(rule).length).toBeGreaterThan(0);
  // Its columns are all told, and a record that has none of them gives no value of its own.
  expect([...readsColumns(rule)].sort()).toEqual(Object.keys(from).sort());
});

test('no kind of rule is without an example, help and a word for each of its parts', () => {
  for (const { kind, help, parts, examples: own, title } of ruleKinds.map(ruleFacts)) {
    expect(own.length).toBeGreaterThan(0);
    expect(title.length).toBeGreaterThan(3);
    expect(help).toContain('.');
    for (const { rule } of own) expect(['kind', ...Object.keys(parts)]).toEqual(expect.arrayContaining(Object.keys(rule)));
    expect(parseRule({ kind })).toEqual(
      kind === 'blank' ? { rule: { kind }, fault: null } : { rule: null, fault: expect.any(String) as string },
    );
  }
});

test('a rule to begin with can be read back, and works on what was there before', () => {
  const columnsThere = [
    { name: 'Plot', slug: 'plot', kind: 'text' as const, empty: 0, distinct: 2, longest: 'B-1', examples: ['A', 'B-1'] },
  ];
  for (const field of [box, tick, radio, menu])
    for (const { kind } of rulesFor(field)) {
      const before: FillRule = { kind: 'column', column: 'Plot' };
      const begun = beginRule(kind, field, columnsThere, before);
      expect(parseRule(JSON.parse(JSON.stringify(begun)))).toEqual({ rule: begun, fault: null });
    }
});

test('how a box takes its value is said outside of all else: no rule has it as a part, and another kind goes on with what is inside', () => {
  const fitted: FillRule = { kind: 'fitted', of: { kind: 'column', column: 'First' }, tooLong: 'shrink', smallest: 4 };
  expect(parseRule({ kind: 'shorten', of: fitted, to: 5 })).toEqual({
    rule: null,
    fault: '“fitted” cannot be a part of the rule “shorten”',
  });
  expect(parseRule({ kind: 'cases', cases: [], otherwise: fitted }).rule).toBeNull();
  expect(parseRule({ ...fitted, smallest: 1 }).rule).toBeNull();
  expect(parseRule({ ...fitted, tooLong: 'squeeze' }).rule).toBeNull();
  expect(beginRule('shorten', box, [], fitted)).toMatchObject({ kind: 'shorten', of: { kind: 'column', column: 'First' } });
  for (const as of ['part', 'value'] as const) expect(rulesFor(box, as).map(({ kind }) => kind)).not.toContain('fitted');
  expect(rulesFor(box).map(({ kind }) => kind)).toContain('fitted');
  // Words that the rule inside makes are told for the faces all the same.
  const month: FillRule = {
    kind: 'fitted',
    of: beginRule('date', box, [{ name: 'Born' } as never], undefined),
    tooLong: 'wrap',
    smallest: 5,
  };
  expect(textsMade([{ a: month }])).not.toBeNull();
  expect(textsMade([{ a: fitted }])).toBeNull();
});

test.each<[FillRule, Field, Row, object]>([
  [sheds, tick, row('', '', 'perhaps'), { column: 'Shed', text: 'perhaps', accepted: ['yes', 'no'] }],
  [{ kind: 'column', column: 'First' }, radio, row('Baritone', ''), { column: 'First', text: 'Baritone', accepted: expect.arrayContaining(['Soprano', 'Bass']) }],
  [{ kind: 'column', column: 'First' }, menu, row('Norway', ''), { column: 'First', text: 'Norway' }],
  [{ kind: 'text', text: 'Alto' }, radio, row('', ''), { column: '', text: 'Alto' }],
])('a value that its field does not accept is blank and told, never a silent tick: %j', (rule, of, from, told) => {
  const result = evaluateRule(rule, of, from, someContext);
  expect(result.untranslated).toMatchObject(told);
  expect([null, undefined, false, '']).toContain(result.value);
}); // prettier-ignore

/** What a rule says of a record for which it cannot be worked out. */
test.each<[FillRule, Record<string, string>, RegExp, string]>([
  [{ kind: 'portion', of: { kind: 'column', column: 'Plot' }, take: { what: 'before', mark: '-', which: 'last' }, missing: 'stop' }, { Plot: 'B12' }, /“B12” does not have what stands before the last “-”/, 'Plot'],
  [{ kind: 'portion', of: { kind: 'column', column: 'Plot' }, take: { what: 'digits' }, missing: 'stop' }, { Plot: 'B' }, /“B” has no digits/, 'Plot'],
  [{ kind: 'portion', of: { kind: 'column', column: 'Name' }, take: { what: 'word', number: 3 }, missing: 'stop' }, { Name: 'Ada Quist' }, /does not have 3\. word/, 'Name'],
  [{ kind: 'shape', of: { kind: 'column', column: 'No' }, letters: 'as-they-are', tidy: true, joinLines: null, zeros: 3 }, { No: '1234' }, /more than 3 characters/, 'No'],
  [{ kind: 'lookup', of: { kind: 'column', column: 'Site' }, table: [{ key: 'Brook', value: '1' }], otherwise: null }, { Site: 'Hill' }, /“Hill” is not in the table/, 'Site'],
  [{ kind: 'address', of: { street: { kind: 'column', column: 'Street' }, country: { kind: 'column', column: 'Land' } }, home: 'DE', joined: null }, { Street: 'Reed Lane 1', Land: '' }, /no town/, ''],
  [{ kind: 'address', of: { street: { kind: 'column', column: 'Street' }, country: { kind: 'column', column: 'Land' } }, home: 'DE', joined: null }, { Street: 'Reed Lane 1', Land: 'Larkmere' }, /“Larkmere” is not a known country/, 'Land'],
  [{ kind: 'liquid', text: '{{ plot | nosuch }}', columns: { plot: 'Plot' } }, { Plot: 'B' }, /nosuch/, ''],
  [{ kind: 'cases', cases: [{ when: { of: { kind: 'column', column: 'Area' }, test: 'over', number: '3' }, then: { kind: 'text', text: 'x' } }], otherwise: { kind: 'blank' } }, { Area: 'big' }, /“big” is not a number/, 'Area'],
  [{ kind: 'compose', parts: [{ text: 'No ' }, { rule: { kind: 'lookup', of: { kind: 'column', column: 'Site' }, table: [], otherwise: null } }] }, { Site: 'Hill' }, /not in the table/, 'Site'],
  [{ kind: 'piece', of: { kind: 'lookup', of: { kind: 'column', column: 'Site' }, table: [], otherwise: null }, box: { piece: { what: 'characters', from: 1, to: 2 }, isLast: false } }, { Site: 'Hill' }, /not in the table/, 'Site'],
])('a rule that cannot be worked out says why and leaves the field blank: %j of %j', (rule, from, why, of) => {
  const result = evaluateRule(rule, box, recordOf(from), someContext);
  expect(result).toMatchObject({ value: '', cannot: { cannot: expect.stringMatching(why) as string, column: of } });
  // One that may be left out is tried first.
  if (rule.kind !== 'piece') expect(evaluateRule({ kind: 'first', of: [{ kind: 'blank' }, rule] }, tick, recordOf(from), someContext)).toMatchObject({ value: false, cannot: { column: of } });
}); // prettier-ignore

test.each<[FillRule, Record<string, string>, string]>([
  [{ kind: 'portion', of: { kind: 'column', column: 'Name' }, take: { what: 'all-but-word', number: -1 }, missing: 'whole' }, { Name: 'Ada Maria Quist' }, 'Ada Maria'],
  [{ kind: 'portion', of: { kind: 'column', column: 'Name' }, take: { what: 'all-but-word', number: -1 }, missing: 'whole' }, { Name: 'Quist' }, 'Quist'],
  [{ kind: 'portion', of: { kind: 'column', column: 'Name' }, take: { what: 'after', mark: ', ', which: 'first' }, missing: 'blank' }, { Name: 'Quist' }, ''],
  // A flag and an accent are one character each, as people see them (UAX 29).
  [{ kind: 'portion', of: { kind: 'column', column: 'Name' }, take: { what: 'characters', from: 2, to: 3 }, missing: 'stop' }, { Name: 'X\u{1F1E9}\u{1F1EA}e\u0301Z' }, '\u{1F1E9}\u{1F1EA}e\u0301'],
  [{ kind: 'portion', of: { kind: 'column', column: 'Phone' }, take: { what: 'digits' }, missing: 'stop' }, { Phone: '(0351) 49-60' }, '03514960'],
  [{ kind: 'lookup', of: { kind: 'column', column: 'Site' }, table: [], otherwise: { kind: 'text', text: '?' } }, { Site: 'Hill' }, '?'],
  [{ kind: 'shape', of: { kind: 'column', column: 'Name' }, letters: 'small', tidy: false, joinLines: null, zeros: null }, { Name: ' A  B' }, ' a  b'],
  [{ kind: 'cases', cases: [], otherwise: { kind: 'column', column: 'Name' } }, { Name: 'Ada' }, 'Ada'],
  [{ kind: 'first', of: [{ kind: 'column', column: 'A' }, { kind: 'column', column: 'B' }] }, { A: ' ', B: '' }, ''],
  [{ kind: 'copy-fact', fact: 'code' }, {}, someContext.code],
  [{ kind: 'copy-fact', fact: 'batch' }, {}, '4'],
  [{ kind: 'copy-fact', fact: 'count' }, {}, '1'],
])('%j of %j', (rule, from, gives) => {
  expect(evaluateRule(rule, box, recordOf(from), someContext)).toEqual({ value: gives });
  expect(parseRule(JSON.parse(JSON.stringify(rule)))).toEqual({ rule, fault: null });
}); // prettier-ignore

test('a case gives a tick what its column says in the form’s own words', () => {
  const rule: FillRule = { kind: 'cases', cases: [{ when: { of: { kind: 'column', column: 'Season' }, test: 'not-empty' }, then: sheds }], otherwise: { kind: 'text', text: 'Off' } }; // prettier-ignore
  expect(evaluateRule(rule, tick, recordOf({ Season: 'summer', Shed: 'yes' }), someContext)).toEqual({ value: 'On' });
  expect(evaluateRule(rule, tick, recordOf({ Season: '', Shed: 'yes' }), someContext)).toEqual({ value: false });
  expect(evaluateRule(rule, tick, recordOf({ Season: 'summer', Shed: 'perhaps' }), someContext).untranslated).toMatchObject({
    text: 'perhaps',
  });
  // Where its value is worked on, a rule may not hang on a field.
  expect(parseRule({ kind: 'shape', of: rule, letters: 'capitals' }).fault).toMatch(/“cases” cannot be a part of the rule “shape”/);
});

test('rules are put together only so deep', () => {
  let rule: unknown = { kind: 'blank' };
  for (let depth = 0; depth < 40; depth++) rule = { kind: 'first', of: [rule] };
  expect(parseRule(rule).fault).toMatch(/more than 12 deep/);
});

test('every rule names the columns that it reads, and follows one that is renamed', () => {
  for (const rule of [...cases.map(([one]) => one), ...examples.map(([, one]) => one.rule)]) {
    const reads = readsColumns(rule);
    for (const name of reads) {
      const renamed = readsColumns(renameColumn(rule, name, 'New'));
      expect(renamed).toEqual(reads.map((one) => (one === name ? 'New' : one)));
    }
    expect(renameColumn(rule, 'Nobody', 'New')).toEqual(rule);
  }
});

test.each([
  [{ kind: 'column' }],
  [{ kind: 'column', column: 3 }],
  [{ kind: 'text' }],
  [{ kind: 'compose', parts: 'Plot' }],
  [{ kind: 'compose', parts: [{ column: 'a', text: 'b' }] }],
  [{ kind: 'translate', column: 'Shed', table: [{ from: 'yes' }] }],
  [{ kind: 'runes' }],
  [null],
  ['text'],
])('what is no rule is refused with the reason: %j', (given) => {
  expect(parseRule(given)).toEqual({ rule: null, fault: expect.stringMatching(/\w/) as string });
});
