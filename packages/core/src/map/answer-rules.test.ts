import type { Answer } from '../answers/answer.js';
import { someContext } from '../testing/context.js';
import { field } from '../testing/field.js';
import { answerField, rulesOfAnswer, wholeRuleOf } from './answer-rules.js';
import { evaluateMap } from './field-map.js';
import { parseRule, readsColumns, renameColumn, ruleSentence } from './registry.js';
import { rowReader } from './row.js';

const day = field('day', { maxLength: 2 });
const month = field('month', { maxLength: 2 });
const year = field('year', { maxLength: 4 });
const monthly = field('monthly', { kind: 'checkbox', onValues: ['M'], label: 'Monthly' });
const yearly = field('yearly', { kind: 'checkbox', onValues: ['Y'], label: 'Yearly' });
const fields = [day, month, year, monthly, yearly, field('name'), field('name_2')];
const byName = new Map(fields.map((one) => [one.name, one]));
const part = (name: string, more: object = {}) => ({ field: name, piece: null, option: null, ...more });
const born: Answer = {
  label: 'Date of birth',
  section: null,
  reason: 'date',
  parts: [part('day', { piece: { what: 'day' } }), part('month', { piece: { what: 'month' } }), part('year', { piece: { what: 'year' } })],
};
const pays: Answer = {
  label: 'Pays',
  section: null,
  reason: 'one-of',
  parts: [part('monthly', { option: { value: 'M', label: 'Monthly' } }), part('yearly', { option: { value: 'Y', label: 'Yearly' } })],
};
const named: Answer = { label: 'Name', section: null, reason: 'same', parts: [part('name'), part('name_2')] };
const columns = [{ name: 'Born' }, { name: 'Pays' }, { name: 'Name' }];
const row = (born: string, pays: string, value: string | null = born) =>
  rowReader(columns)({
    row: 2,
    cells: [
      { text: born, value },
      { text: pays, value: pays },
      { text: 'Ada', value: 'Ada' },
    ],
  });
const map = {
  ...rulesOfAnswer(born, { kind: 'column', column: 'Born' }, byName),
  ...rulesOfAnswer(pays, { kind: 'column', column: 'Pays' }, byName),
  ...rulesOfAnswer(named, { kind: 'column', column: 'Name' }, byName),
};

test('one rule fills all boxes of an answer, each with its piece, and ticks by what they stand for', () => {
  expect(evaluateMap(fields, map, row('1961-03-14', 'yearly'), someContext)).toEqual({
    values: { day: '14', month: '03', year: '1961', monthly: false, yearly: 'Y', name: 'Ada', name_2: 'Ada' },
    problems: [],
  });
  expect([wholeRuleOf(born, map), wholeRuleOf(pays, map), wholeRuleOf(named, map)]).toEqual(
    ['Born', 'Pays', 'Name'].map((column) => ({ kind: 'column', column })),
  );
  expect(wholeRuleOf(born, { ...map, day: { kind: 'text', text: '1' } })).toBeNull();
});

test('what is no date, and what no tick stands for, is told for its box and never filled in silence', () => {
  const { values, problems } = evaluateMap(fields, map, row('soon', 'weekly'), someContext);
  expect(values).toMatchObject({ day: '', month: '', year: '', monthly: false, yearly: false });
  expect(problems.map(({ field: name, untranslated }) => [name, untranslated?.text])).toEqual([
    ['day', 'soon'],
    ['month', 'soon'],
    ['year', 'soon'],
    ['monthly', 'weekly'],
    ['yearly', 'weekly'],
  ]);
  expect(evaluateMap(fields, map, row('', ''), someContext)).toMatchObject({ values: { day: '', monthly: false }, problems: [] });
});

test('a piece is read back from what is kept, renamed with its column, and told in words', () => {
  for (const rule of Object.values(map)) expect(parseRule(JSON.parse(JSON.stringify(rule)))).toEqual({ rule, fault: null });
  expect(parseRule({ kind: 'piece', of: { kind: 'translate', column: 'x', table: [] }, box: { piece: { what: 'day' } } }).rule).toBeNull();
  expect(parseRule({ kind: 'piece', of: { kind: 'column', column: 'x' }, box: { piece: { what: 'hour' } } }).rule).toBeNull();
  expect(readsColumns(renameColumn(map['day']!, 'Born', 'Birthday'))).toEqual(['Birthday']);
  expect(ruleSentence(map['year']!)).toEqual([{ column: 'Born' }, { say: 'year' }]);
  expect(ruleSentence(map['monthly']!)).toEqual([{ column: 'Pays' }, { say: 'Monthly' }]);
});

test('for a whole answer a rule is chosen as for a box of its own: without the limits of its pieces', () => {
  expect(answerField(born, byName)).toMatchObject({ kind: 'text', label: 'Date of birth', maxLength: null });
  expect(answerField(pays, byName)).toMatchObject({ kind: 'text', label: 'Pays', onValues: [] });
});
