import type { Field } from '../pdf/field.js';
import type { Column } from '../tables/record.js';
import { evaluateMap, mapProgress, missingColumns, unusedColumns } from './field-map.js';
import type { FillRule } from './registry.js';
import { parseRule, renameColumn } from './registry.js';
import { rowReader } from './row.js';
import { suggest, suggestRules } from './suggest.js';
import { field } from '../testing/field.js';
import { someContext } from '../testing/context.js';

const column = (name: string, more: Partial<Column> = {}): Column => ({
  name,
  slug: name.toLowerCase(),
  kind: 'text',
  empty: 0,
  distinct: 9,
  longest: 'x',
  examples: [],
  ...more,
});
const evaluate = (rule: FillRule, one: Field, record: Record<string, string>) => {
  const names = Object.keys(record);
  const row = rowReader(names.map((name) => ({ name })))({
    row: 2,
    cells: names.map((name) => ({ text: record[name]!, value: record[name]! })),
  });
  const { values, problems } = evaluateMap([one], { [one.name]: rule }, row, someContext);
  return { value: values[one.name], problem: problems[0]?.untranslated };
};
const tick = field('t', { kind: 'checkbox', onValues: ['Ja'] });

describe('rules', () => {
  test('compose leaves out the pieces around empty columns, so that no double spaces or lone commas are printed', () => {
    const rule: FillRule = {
      kind: 'compose',
      parts: [{ column: 'First' }, { text: ' ' }, { column: 'Middle' }, { text: ' ' }, { column: 'Last' }],
    };
    expect(evaluate(rule, field('n'), { First: 'Ayumi', Middle: '', Last: 'Brandt' }).value).toBe('Ayumi Brandt');
    expect(evaluate(rule, field('n'), { First: '', Middle: '', Last: 'Brandt' }).value).toBe('Brandt');
    expect(evaluate(rule, field('n'), { First: '', Middle: '', Last: '' }).value).toBe('');
  });
  test('translate ticks only for values in its table; another one is a finding that names the accepted ones', () => {
    const rule: FillRule = {
      kind: 'translate',
      column: 'Water',
      table: [
        { from: 'yes', to: 'Ja' },
        { from: 'no', to: 'Off' },
      ],
    };
    expect(evaluate(rule, tick, { Water: ' YES ' })).toEqual({ value: 'Ja', problem: undefined });
    expect(evaluate(rule, tick, { Water: 'no' }).value).toBe(false);
    expect(evaluate(rule, tick, { Water: 'perhaps' })).toEqual({
      value: false,
      problem: { column: 'Water', text: 'perhaps', accepted: ['yes', 'no'] },
    });
    expect(evaluate(rule, tick, { Water: '' })).toEqual({ value: false, problem: undefined });
  });
  test('a column meets an option by its display or export value, and nothing else', () => {
    const menu = field('m', { kind: 'combo', options: [{ value: '01', label: '1st of the month' }] });
    const rule: FillRule = { kind: 'column', column: 'Day' };
    expect(evaluate(rule, menu, { Day: '1ST of  the month' }).value).toBe('01');
    expect(evaluate(rule, menu, { Day: '01' }).value).toBe('01');
    expect(evaluate(rule, menu, { Day: '2nd' }).problem?.accepted).toEqual(['1st of the month']);
  });
  test('every kind follows a renamed column and none is lost', () => {
    const rules: FillRule[] = [
      { kind: 'blank' },
      { kind: 'text', text: 'x' },
      { kind: 'column', column: 'A' },
      { kind: 'compose', parts: [{ column: 'A' }] },
      { kind: 'translate', column: 'A', table: [] },
    ];
    expect(rules.flatMap((rule) => missingColumns([{ name: 'B' }], [{ f: renameColumn(rule, 'A', 'B') }]))).toEqual([]);
  });
  test('a field without a rule, or read-only, gets no value', () => {
    const row = rowReader([])({ row: 2, cells: [] });
    expect(
      evaluateMap([field('a'), field('b', { flags: ['readOnly'] })], { b: { kind: 'text', text: 'x' } }, row, someContext).values,
    ).toEqual({});
    expect(mapProgress([{ fields: [field('a'), field('b', { flags: ['readOnly'] })], map: {} }])).toEqual({ fillable: 1, filled: 0 });
  });
  test('unused columns are those that no rule reads', () => {
    expect(unusedColumns([{ name: 'A' }, { name: 'B' }], [{ x: { kind: 'column', column: 'A' } }])).toEqual(['B']);
  });
});

describe('suggestions', () => {
  const columns = [
    column('Plot'),
    column('First name'),
    column('Surname'),
    column('E-mail', { kind: 'email' }),
    column('Telephone'),
    column('Postal code'),
    column('Water supply', { kind: 'yes-no', distinct: 2, examples: ['yes', 'no'] }),
    column('Payment', { distinct: 2, examples: ['once a year', 'twice a year'] }),
    column('Start', { kind: 'date' }),
  ];
  test('find columns by name, tooltip and kind, also behind cryptic names and in vendor-made hierarchies', () => {
    const fields = [
      field('topmostSubform[0].Page1[0].f1_01[0]', { tooltip: 'Plot number' }),
      field('tenant.email'),
      field('txtPhone'),
      field('postcode'),
      field('has.water', { kind: 'checkbox', tooltip: 'Water supply at the plot', onValues: ['On'] }),
      field('applicant_full_name'),
    ];
    const found = suggestRules(fields, columns, {});
    expect(found['topmostSubform[0].Page1[0].f1_01[0]']).toEqual({ kind: 'column', column: 'Plot' });
    expect(found['tenant.email']).toEqual({ kind: 'column', column: 'E-mail' });
    expect(found.txtPhone).toEqual({ kind: 'column', column: 'Telephone' });
    expect(found.postcode).toEqual({ kind: 'column', column: 'Postal code' });
    expect(found['has.water']).toMatchObject({ kind: 'translate', column: 'Water supply' });
    expect(found.applicant_full_name).toMatchObject({
      kind: 'compose',
      parts: [{ column: 'First name' }, { text: ' ' }, { column: 'Surname' }],
    });
  });
  test('say why and how sure they are, and an earlier mapping of the same form goes first', () => {
    const fields = [field('f1', { label: 'Telephone', labelFrom: 'print' }), field('f2', { label: 'Begin', labelFrom: 'print' })];
    const plain = suggest(fields, columns, {});
    expect(plain.f1).toMatchObject({ confidence: 1, why: 'its label “Telephone” is like “Telephone”' });
    expect(plain.f2!.rule).toEqual({ kind: 'column', column: 'Start' });
    const learned = [
      { field: 'f1', rule: { kind: 'column' as const, column: 'Mobile' }, mailing: 'Gone', isSameForm: true },
      { field: 'f1', rule: { kind: 'column' as const, column: 'Plot' }, mailing: 'Other form', isSameForm: false },
      { field: 'f1', rule: { kind: 'column' as const, column: 'Surname' }, mailing: 'Renewals 2026', isSameForm: true },
    ];
    // A rule whose column is not there is none; the same form counts more than another.
    expect(suggest(fields, columns, {}, learned).f1).toEqual({
      rule: { kind: 'column', column: 'Surname' },
      confidence: 0.98,
      why: 'as in “Renewals 2026”',
    });
    expect(suggest(fields, columns, {}, learned.slice(0, 2)).f1).toMatchObject({ rule: { column: 'Plot' }, confidence: 0.8 });
  });
  test('a box of an answer was filled with its piece, and what is suggested is the whole', () => {
    const of: FillRule = { kind: 'column', column: 'Start' };
    const rule: FillRule = { kind: 'piece', of, box: { piece: { what: 'day' }, isLast: false } };
    expect(suggest([field('day')], columns, {}, [{ field: 'day', rule, mailing: 'M', isSameForm: true }]).day!.rule).toEqual(of);
  });
  test('the name of a bank is not that of a person', () => {
    const asks = (label: string) => suggest([field('x1', { label, labelFrom: 'print' })], columns, {}).x1?.rule.kind;
    expect(['Name', 'Name of the tenant', 'Full name', 'Account holder name'].map(asks)).toEqual(Array(4).fill('compose'));
    expect(['Name of the bank', 'Street name', 'Name of the school'].map(asks)).toEqual([undefined, undefined, undefined]);
  });
  test('the section tells apart what the label does not', () => {
    const both = [column('Tenant phone'), column('Landlord phone')];
    const fields = ['Tenant', 'Landlord'].map((section, at) => field(`x${at}`, { label: 'Phone', labelFrom: 'print', section }));
    expect(Object.values(suggest(fields, both, {})).map(({ rule }) => rule)).toEqual([
      { kind: 'column', column: 'Tenant phone' },
      { kind: 'column', column: 'Landlord phone' },
    ]);
  });
  test('say nothing where nothing fits, and leave alone what a person has decided', () => {
    expect(
      suggestRules([field('signature_date_of_officer'), field('tenant.email')], columns, { 'tenant.email': { kind: 'blank' } }),
    ).toEqual({});
  });
});

test('what is given as a rule is read as one, or told why it is none', () => {
  expect(parseRule({ kind: 'column', column: 'Plot', more: 1 }).rule).toEqual({ kind: 'column', column: 'Plot' });
  expect(parseRule({ kind: 'compose', parts: [{ column: 'A' }, { text: ' ' }] }).rule).toEqual({
    kind: 'compose',
    parts: [{ column: 'A' }, { text: ' ' }],
  });
  for (const wrong of [
    { kind: 'column' },
    { kind: 'text', text: 1 },
    { kind: 'compose', parts: [{ column: 'A', text: 'b' }] },
    { kind: 'compose', parts: null },
  ])
    expect(parseRule(wrong).fault).toMatch(/^a part of the rule/);
  for (const table of [[null], [{ from: 'a' }], 'x']) expect(parseRule({ kind: 'translate', column: 'A', table }).fault).toMatch(/^a part/);
  expect(parseRule({ kind: 'toString' }).fault).toBe('there is no rule called “toString”');
  expect(parseRule(null).fault).toBe('it is not a rule');
});
