import { field } from '../../testing/field.js';
import { refusedValues } from './refused-values.js';
import type { FieldValue } from '../value.js';

const options = [
  { value: 'a', label: 'Alder' },
  { value: 'b', label: 'Birch' },
];
const fields = [
  field('name', { maxLength: 5 }),
  field('tick', { kind: 'checkbox', onValues: ['Ja'] }),
  field('pay', { kind: 'radio', onValues: ['0', '1'], options: [{ value: 'yearly', label: 'yearly' }, { value: 'monthly', label: 'monthly' }] }), // prettier-ignore
  field('menu', { kind: 'combo', options }),
  field('free', { kind: 'combo', options, flags: ['edit'] }),
  field('list', { kind: 'list', options }),
  field('many', { kind: 'list', options, flags: ['multiSelect'] }),
  field('sign', { kind: 'signature' }),
];
const codes = (name: string, value: FieldValue): string[] => refusedValues(fields, { [name]: value }).map(({ code }) => code);

test.each<[string, FieldValue]>([
  ['name', 'Anna'],
  ['name', ''],
  ['tick', true],
  ['tick', false],
  ['tick', 'Ja'],
  ['tick', 'Off'],
  ['pay', '1'],
  ['pay', 'monthly'],
  ['menu', 'a'],
  ['menu', 'Birch'],
  ['free', 'Cherry'],
  ['list', ['a']],
  ['many', ['a', 'Birch']],
  ['many', []],
])('%s takes %j', (name, value) => {
  expect(codes(name, value)).toEqual([]);
});

test.each<[string, FieldValue, string]>([
  ['name', 'Johanna', 'value-too-long'],
  ['name', true, 'value-not-accepted'],
  ['tick', 'yes', 'value-not-accepted'],
  ['pay', 'weekly', 'value-not-accepted'],
  ['menu', 'Cherry', 'value-not-accepted'],
  ['list', ['a', 'b'], 'value-one-option'],
  ['many', ['a', 'c'], 'value-not-accepted'],
  ['sign', 'Anna', 'value-not-fillable'],
  ['nmae', 'Anna', 'pdf-field-unknown'],
])('%s refuses %j: %s', (name, value, code) => {
  expect(codes(name, value)).toEqual([code]);
});

test('all reasons are told at once, and a refusal names what the field accepts', () => {
  const found = refusedValues(fields, { menu: 'Cherry', name: 'Johanna', tick: true });
  expect(found.map(({ fields: { field: name } }) => name)).toEqual(['menu', 'name']);
  expect(found[0]!.message).toBe('“menu” does not accept “Cherry”. It accepts “Alder”, “Birch”.');
});
