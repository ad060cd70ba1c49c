import type { Field, FieldWidget, TemplateDescription } from '../pdf/field.js';
import { field } from '../testing/field.js';
import type { Answer } from './answer.js';
import type { QuestionKind } from './question-kinds.js';
import { leftSentence, questionsOf } from './questions.js';

const alone = ({ name, label, section = null }: Field): Answer => ({
  label,
  section,
  parts: [{ field: name, piece: null, option: null }],
  reason: 'alone',
});
const form = (fields: Field[], answers: Answer[] = fields.map(alone)): TemplateDescription => ({ pages: [], fields, notes: [], answers });
const widget: FieldWidget = {
  page: 1,
  rect: [0, 0, 100, 14],
  rotation: 0,
  annotFlags: 4,
  onValue: null,
  hasOnValue: false,
  state: null,
  hidden: false,
};
const text = (label: string, more: Partial<Field> = {}): Field =>
  field(more.name ?? label, { label, labelFrom: 'print', widgets: [widget], ...more });

test.each<[string, QuestionKind, Partial<Field>]>([
  ['Surname', 'text', {}],
  ['E-mail', 'e-mail', {}],
  ['Telephone', 'telephone', {}],
  ['Date of birth', 'date', {}],
  ['Postal code', 'postal code', {}],
  ['IBAN', 'IBAN', {}],
  ['Rent per year', 'amount', {}],
  ['Number of keys', 'number', {}],
  ['Signature', 'signature', { kind: 'signature' }],
  ['I agree', 'yes or no', { kind: 'checkbox', onValues: ['Yes'] }],
  ['Roof', 'one of', { kind: 'combo', options: [{ value: 'a', label: 'A' }] }],
  ['Days', 'some of', { kind: 'list', flags: ['multiSelect'], options: [{ value: 'a', label: 'A' }] }],
  ['Water', 'yes or no', { kind: 'radio', onValues: ['1', '2'], options: [{ value: '1', label: 'Yes' }, { value: '2', label: 'No' }] }],
  ['Rhythm', 'one of', { kind: 'radio', onValues: ['1', '2'], options: [{ value: '1', label: 'Yearly' }, { value: '2', label: 'Monthly' }] }],
])('“%s” is a question of the kind %s', (label, kind, more) => {
  const { questions } = questionsOf([form([text(label, more)])]);
  expect(questions).toMatchObject([{ question: label, kind }]);
}); // prettier-ignore

test('what nobody can be asked is left, with why', () => {
  const fields = [
    text('Reset', { kind: 'button' }),
    text('Total', { calculation: { operation: 'sum', fields: [] } as never }),
    text('Number', { flags: ['readOnly'] }),
    text('Hidden', { widgets: [{ ...widget, hidden: true }] }),
    text('Name'),
  ];
  const { questions, left } = questionsOf([form(fields)]);
  expect(questions.map(({ question }) => question)).toEqual(['Name']);
  expect(left.map(({ name, why }) => [name, leftSentence(why)])).toEqual([
    ['Reset', 'a push button'],
    ['Total', 'calculated from other fields'],
    ['Number', 'read-only'],
    ['Hidden', 'hidden'],
  ]);
});

test('a number in groups is one question, as long as all of them', () => {
  const fields = [text('a', { maxLength: 3 }), text('b', { maxLength: 2 }), text('c', { maxLength: 4 })];
  const parts = [[1, 3], [4, 5], [6, 9]].map(([from, to], at) => ({ field: fields[at]!.name, piece: { what: 'characters' as const, from: from!, to: to! }, option: null })); // prettier-ignore
  const { questions } = questionsOf([form(fields, [{ label: 'Number', section: null, parts, reason: 'characters' }])]);
  expect(questions).toMatchObject([{ question: 'Number', limit: 9, fields: [{ name: 'a' }, { name: 'b' }, { name: 'c' }] }]);
});

test('ticks of which one is chosen give their words and the field of each', () => {
  const fields = ['Single', 'Married'].map((label) => text(label, { kind: 'checkbox', onValues: ['Yes'] }));
  const parts = fields.map(({ name }) => ({ field: name, piece: null, option: { value: 'Yes', label: name } }));
  const { questions } = questionsOf([form(fields, [{ label: 'Status', section: null, parts, reason: 'one-of' }])]);
  expect(questions[0]).toMatchObject({ kind: 'one of', options: [{ label: 'Single', field: 'Single' }, { label: 'Married', field: 'Married' }] }); // prettier-ignore
});

test('what two forms ask by the same words is asked once; one that wants it makes it required', () => {
  const { questions } = questionsOf([
    form([text('Plot number')]),
    form([text('Plot number', { name: 'plot', flags: ['required'] }), text('Site')]),
  ]);
  expect(questions).toMatchObject([
    { question: 'Plot number', required: true, fields: [{ form: 1 }, { form: 2, name: 'plot' }] },
    { question: 'Site', required: false, fields: [{ form: 2 }] },
  ]);
});

test('a tooltip that says more is help, one that repeats the label is none', () => {
  const [more, same] = [text('Name', { tooltip: 'As it stands in your passport' }), text('Town', { tooltip: 'Town' })];
  expect(questionsOf([form([more, same])]).questions.map(({ help }) => help)).toEqual(['As it stands in your passport', null]);
});
