import { field } from '../testing/field.js';
import { someContext } from '../testing/context.js';
import type { PacketTemplate } from './packet.js';
import { evaluateTemplate, rowsFor, packetColumns, parseCondition, rulesWithColumn } from './packet.js';
import { rowReader } from './row.js';

const row = (...texts: string[]) =>
  rowReader([{ name: 'Shed' }, { name: 'Name' }])({ row: 2, cells: texts.map((text) => ({ text, value: text })) });
const permit: PacketTemplate = {
  fields: [field('name')],
  map: { name: { kind: 'column', column: 'Name' } },
  when: { of: { kind: 'column', column: 'Shed' }, test: 'is', values: ['yes'] },
};

test('a record for which the condition holds gets the template, another one nothing of it', () => {
  expect(evaluateTemplate(permit, row('yes', 'Ada'), someContext)).toMatchObject([{ values: { name: 'Ada' }, problems: [] }]);
  expect(evaluateTemplate(permit, row('no', 'Ada'), someContext)).toEqual([]);
  expect(evaluateTemplate({ ...permit, when: null }, row('no', 'Ada'), someContext)).toMatchObject([{ values: { name: 'Ada' } }]);
});

test('whether it gets it may be untold, and then it does not', () => {
  const unclear: PacketTemplate = { ...permit, when: { of: { kind: 'column', column: 'Name' }, test: 'over', number: '3' } };
  expect(rowsFor(unclear, row('', 'Ada'), someContext)).toMatchObject({ column: 'Name', text: 'Ada' });
  expect(evaluateTemplate(unclear, row('', 'Ada'), someContext)).toEqual([]);
});

test('the columns of conditions count as read, and follow one that is renamed', () => {
  expect(packetColumns([permit])).toEqual(['Shed', 'Name']);
  const { maps, conditions } = rulesWithColumn({ maps: { 7: permit.map }, conditions: { 7: permit.when! } }, 'Shed', 'Hut');
  const when = conditions![7]!;
  expect(maps).toEqual({ 7: permit.map });
  expect(rulesWithColumn({ maps }, 'Name', 'Tenant')).toEqual({ maps: { 7: { name: { kind: 'column', column: 'Tenant' } } } });
  expect(packetColumns([{ ...permit, when }])).toEqual(['Hut', 'Name']);
  expect(parseCondition(JSON.parse(JSON.stringify(when)))).toEqual(when);
  expect(parseCondition({ of: 'Shed', test: 'empty' })).toEqual({ of: { kind: 'column', column: 'Shed' }, test: 'empty' });
  expect(parseCondition({ of: 'Shed', test: 'shines' })).toBeNull();
});
