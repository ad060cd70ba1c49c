import type { TemplateDetail } from '@mailbag/contract';
import type { Field, FieldMap } from '@mailbag/core';
import type { PacketEntry } from './packet-entries';
import { boxesIn, mapsWithRule, packetEntries, placesOf } from './packet-entries';
import { followingRun } from './rule-handing';

const field = (name: string, label: string | null, more: Partial<Field> = {}): Field =>
  ({
    name,
    partialName: name,
    kind: 'text',
    tooltip: null,
    label,
    labelFrom: label === null ? 'name' : 'print',
    page: 1,
    flags: [],
    maxLength: null,
    options: [],
    onValues: [],
    value: null,
    format: null,
    widgets: [],
    ...more,
  }) as unknown as Field;
const template = (id: number, fieldList: Field[]): TemplateDetail =>
  ({ id, name: `T${id}`, fieldList, answers: [] }) as unknown as TemplateDetail;
const packet = [
  template(1, [field('a.plot', 'Plot number'), field('a.name', 'Name', { section: 'Tenant' } as never), field('a.date', 'Date')]),
  template(2, [field('b.nr', 'Plot  number'), field('b.name', 'Name', { section: 'Witness' } as never), field('b.d1', 'Date'), field('b.d2', 'Date')]),
  template(3, [field('c.nr', 'plot number'), field('c.x', null)]),
]; // prettier-ignore
const rows = (maps: Record<number, FieldMap> = {}): PacketEntry[] => packetEntries(packet, maps, []);
const names = (entries: PacketEntry[]): string[][] => entries.map((entry) => placesOf(entry).map((one) => one.field.name));

test('what several templates ask in the same words is one row; another section, two alike in one, or a mere name are not', () => {
  expect(names(rows())).toEqual([['a.plot', 'b.nr', 'c.nr'], ['a.name'], ['a.date'], ['b.name'], ['b.d1'], ['b.d2'], ['c.x']]);
  expect(boxesIn(rows()[0]!, 2)).toEqual(['b.nr']);
  expect(boxesIn(rows()[0]!, 9)).toEqual([]);
});

test('one rule fills all places, and a place that is filled otherwise stands by itself', () => {
  const rule = { kind: 'column' as const, column: 'Plot' };
  const maps = mapsWithRule({}, rows()[0]!, rule);
  expect(maps).toEqual({ 1: { 'a.plot': rule }, 2: { 'b.nr': rule }, 3: { 'c.nr': rule } });
  expect(names(rows(maps))[0]).toEqual(['a.plot', 'b.nr', 'c.nr']);
  const apart = { ...maps, 2: { 'b.nr': { kind: 'blank' as const } } };
  expect(names(rows(apart)).slice(0, 4)).toEqual([['a.plot', 'c.nr'], ['a.name'], ['a.date'], ['b.nr']]);
  expect(mapsWithRule(maps, rows(maps)[0]!, undefined)).toEqual({ 1: {}, 2: {}, 3: {} });
});

test('menus with other options are no same answer', () => {
  const menu = (id: number, value: string): TemplateDetail =>
    template(id, [field('m', 'Payment', { kind: 'combo', options: [{ value, label: value }] })]);
  expect(names(packetEntries([menu(1, 'yearly'), menu(2, 'monthly')], {}, []))).toEqual([['m'], ['m']]);
  expect(names(packetEntries([menu(1, 'yearly'), menu(2, 'yearly')], {}, []))).toEqual([['m', 'm']]);
});

test('under other headings more words than one are the same where the same column is found for them', () => {
  const of = (id: number, section: string, label: string): TemplateDetail => template(id, [field('x', label, { section } as never)]);
  const columns = ['Plot number', 'Name'].map((name) => ({ name, slug: name, kind: 'text', empty: 0, distinct: 9, longest: 'x', examples: [] }) as never); // prettier-ignore
  const entries = (label: string): string[][] =>
    names(packetEntries([of(1, 'The plot', label), of(2, 'Who and where', label)], {}, columns));
  expect(entries('Plot number')).toEqual([['x', 'x']]);
  expect(entries('Name')).toEqual([['x'], ['x']]);
});

test('a run of fields takes a run of columns, as far as fields have no rule yet and columns are left', () => {
  const columns = ['A', 'B', 'C', 'D'].map((name) => ({ name, slug: name, kind: 'text', empty: 0, distinct: 9, longest: 'x', examples: [] }) as never); // prettier-ignore
  const form = template(
    1,
    ['f1', 'f2', 'f3', 'f4', 'f5'].map((name) => field(name, `Box of ${name}`)),
  );
  const runOf = (map: FieldMap, first: string): unknown[] => {
    const entries = packetEntries([form], { 1: map }, columns);
    return followingRun(
      entries.find((one) => one.field.name === first)!,
      entries,
      columns,
    ).map(
      ([
        {
          field: { name },
        },
        rule,
      ]) => [name, rule],
    );
  };
  const b = { kind: 'column' as const, column: 'B' };
  expect(runOf({ f1: b }, 'f1')).toEqual([['f2', { kind: 'column', column: 'C' }], ['f3', { kind: 'column', column: 'D' }]]); // prettier-ignore
  expect(runOf({ f1: b, f3: { kind: 'blank' } }, 'f1')).toEqual([['f2', { kind: 'column', column: 'C' }]]);
  expect(runOf({ f5: b }, 'f5')).toEqual([]);
  expect(runOf({ f1: { kind: 'text', text: 'x' } }, 'f1')).toEqual([]);
  expect(runOf({ f1: { kind: 'column', column: 'Gone' } }, 'f1')).toEqual([]);
});
