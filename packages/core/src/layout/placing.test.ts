import { drawnField } from '../pdf/write/drawn-field.js';
import type { Layout } from './layout.js';
import { emptyLayout, isWholeInLayout, layoutOf, layoutPlaceWords, readWholeLayout } from './layout.js';
import { boxOf, copied, drawnIn, withBoxes, withDrawn, withoutDrawn } from './placing.js';
import { changesBetween, withChanges } from '../editing/changes.js';
import type { Json } from '../editing/changes.js';

const pages = [{ width: 600, height: 800, rotation: 0, left: 0, bottom: 0 }];
let count = 0;
const newKey = (): string => `k${++count}`;
const field = (name: string, kind: 'text' | 'radio' = 'text') => drawnField({ name, kind, page: 1, rect: [10, 700, 110, 720] });
const started = (): Layout => ((count = 0), layoutOf([field('plot'), field('pays', 'radio')], newKey));

test('what is moved lies where it was put, and a square code stays square', () => {
  const layout = withDrawn(started(), [
    { key: 'qr', what: 'stamp', stamp: { kind: 'code', symbology: 'qr', page: 1, x: 500, y: 700, width: 60, height: 60, inPrint: false } },
    {
      key: 'line',
      what: 'stamp',
      stamp: { kind: 'line', text: 'Copy {{ number }}', page: 1, x: 40, y: 30, width: 200, size: 10, align: 'left' },
    },
  ]);
  const moved = withBoxes(
    layout,
    new Map([
      ['k1', { left: 20, top: 100, right: 120, bottom: 120.006 }],
      ['qr', { left: 480, top: 40, right: 560, bottom: 100 }],
    ]),
    pages,
  );
  expect(moved.fields['k1']!.rect).toEqual([20, 679.99, 120, 700]);
  const boxes = Object.fromEntries(drawnIn(moved).map((one) => [one.key, boxOf(one, pages)]));
  expect(boxes['qr']).toEqual({ left: 480, top: 40, right: 540, bottom: 100 });
  // The baseline of the line is 30 from the foot of the page.
  expect(boxes['line']!.top).toBeLessThan(770);
  expect(boxes['line']!.bottom).toBeGreaterThan(770);
  expect(boxes['k2']).toEqual(boxOf(drawnIn(layout)[1]!, pages));
});

test('copies get free names; radio buttons stay one group and stand for something else; what is taken away leaves the tab order', () => {
  const layout = started();
  const twice = withDrawn(layout, copied(drawnIn(layout), { dy: 30, newKey }, pages), ['plot_2']);
  expect(drawnIn(twice).map((one) => one.what === 'field' && [one.field.name, one.field.value])).toEqual([
    ['plot', null],
    ['pays', null],
    ['plot_3', null],
    ['pays', 'Yes_2'],
  ]);
  expect(twice.fields['k3']!.rect).toEqual([10, 670, 110, 690]);
  expect(withoutDrawn(twice, new Set(['k1', 'k4'])).order).toEqual(['k2', 'k3']);
});

test('two people who draw on the same template both keep what they did; who moves the same field is told', () => {
  const base = started();
  const moved = (left: number): Layout => withBoxes(base, new Map([['k1', { left, top: 0, right: left + 50, bottom: 20 }]]), pages);
  const named: Layout = { ...base, fields: { ...base.fields, k1: { ...base.fields['k1']!, name: 'parcel' } } };
  const merge = (onto: Layout, from: Layout) =>
    withChanges(onto as unknown as Json, changesBetween(base as unknown as Json, from as unknown as Json, isWholeInLayout));
  const both = merge(moved(5), named);
  expect(both.clashes).toEqual([]);
  expect((both.document as unknown as Layout).fields['k1']).toMatchObject({ name: 'parcel', rect: [5, 780, 55, 800] });
  const clash = merge(moved(5), moved(9)).clashes;
  expect(clash.map(({ place }) => layoutPlaceWords(place, base))).toEqual(['the place of “plot”']);
});

test('a layout that came from outside is read, or refused with what is wrong with it', () => {
  const layout = {
    ...started(),
    stamps: { s: { kind: 'line', text: 'Copy {{ number }} of {{ count }}', page: 1, x: 1, y: 2, width: 90, size: 9, align: 'right' } },
  };
  expect(readWholeLayout(JSON.parse(JSON.stringify(layout)))).toEqual(layout);
  expect(readWholeLayout(emptyLayout)).toEqual(emptyLayout);
  const code = (given: unknown): string => {
    try {
      readWholeLayout(given);
      return 'read';
    } catch (error) {
      return (error as { code: string }).code;
    }
  };
  const withStamp = (stamp: object) => ({ ...layout, stamps: { s: { ...layout.stamps.s, ...stamp } } });
  expect(code({})).toBe('layout-not-a-list');
  expect(code({ ...layout, fields: { a: { name: '', kind: 'text', rect: [0, 0, 9, 9] } } })).toBe('layout-no-name');
  expect(code(withStamp({ text: '' }))).toBe('layout-stamp');
  expect(code(withStamp({ text: 'Ayumi 歩' }))).toBe('layout-stamp');
  expect(code(withStamp({ text: '{{ rent }}' }))).toBe('pattern-unknown-column');
  expect(code(withStamp({ x: '4' }))).toBe('layout-stamp');
  expect(code({ ...layout, fields: Object.fromEntries(Array.from({ length: 5001 }, (_, at) => [at, {}])) })).toBe('layout-too-many');
});
