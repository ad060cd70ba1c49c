import type { Field } from '../../pdf/field.js';
import { someContext } from '../../testing/context.js';
import { field } from '../../testing/field.js';
import type { FillRule } from '../registry.js';
import { evaluateRule, parseRule, readsColumns, renameColumn, ruleKinds, ruleSentence } from '../registry.js';
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

test('no kind of rule is without a case here', () => {
  expect(ruleKinds.filter((kind) => !cases.some(([rule]) => rule.kind === kind))).toEqual([]);
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

test('every rule names the columns that it reads, and follows one that is renamed', () => {
  for (const [rule] of cases) {
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
