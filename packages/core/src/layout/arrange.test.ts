import { aligned, distributed, sameSized } from './arrange.js';
import { freeName, nameFault } from './drawn-names.js';
import { guidesOf, onPage, snapEdges, snapMove, upright } from './snap.js';
import { ownBox, seenBox } from '../page/seen.js';
import type { SeenBox } from '../page/seen.js';

const box = (left: number, top: number, width: number, height: number): SeenBox => ({
  left,
  top,
  right: left + width,
  bottom: top + height,
});

test('a box of a page lies where it is seen, whichever way the page is turned, and back again', () => {
  // A page of 200 by 100 whose visible box begins at 10, 20; a box at its left foot as it is stored.
  const own = [10, 20, 40, 30] as const;
  const page = (rotation: number) =>
    rotation % 180 === 0
      ? { width: 200, height: 100, rotation, left: 10, bottom: 20 }
      : { width: 100, height: 200, rotation, left: 10, bottom: 20 };
  // Turned clockwise (ISO 32000-2, table 31), the left foot comes to the left top, the right top, the right foot.
  expect(seenBox(own, page(0))).toEqual(box(0, 90, 30, 10));
  expect(seenBox(own, page(90))).toEqual(box(0, 0, 10, 30));
  expect(seenBox(own, page(180))).toEqual(box(170, 0, 30, 10));
  expect(seenBox(own, page(270))).toEqual(box(90, 170, 10, 30));
  for (const rotation of [0, 90, 180, 270]) expect(ownBox(seenBox(own, page(rotation)), page(rotation))).toEqual([...own]);
});

test('a box that is moved goes to what is near: lines of the page, edges and middles of others, and nothing farther', () => {
  const guides = guidesOf([{ left: 50, right: 250, top: 100, bottom: 100 }], [box(300, 40, 60, 20)]);
  expect(snapMove(box(52, 82, 100, 16), guides, 3)).toEqual({ box: box(50, 84, 100, 16), x: 50, y: 100 });
  // Its middle goes to the middle of the other.
  expect(snapMove(box(281, 10, 100, 8), guides, 3)).toMatchObject({ x: 330, y: null, box: { left: 280 } });
  expect(snapMove(box(60, 60, 20, 20), { x: [0], y: [0] }, 3)).toEqual({ box: box(60, 60, 20, 20), x: null, y: null });
});

test('a box that is made larger goes to what its moving edges are near, and the others stay', () => {
  const guides = guidesOf([{ left: 0, right: 102, top: 51, bottom: 51 }], []);
  expect(snapEdges(box(1, 30, 100, 20), ['right', 'bottom'], guides, 3)).toEqual({
    box: { left: 1, top: 30, right: 102, bottom: 51 },
    x: 102,
    y: 51,
  });
  expect(upright({ left: 40, right: 10, top: 9, bottom: 8 }, 3)).toEqual({ left: 10, right: 40, top: 8, bottom: 11 });
  expect(onPage(box(-5, 790, 50, 20), { width: 595, height: 800 })).toEqual(box(0, 780, 50, 20));
});

test('boxes are aligned by an edge or their middle, spread evenly, and given one size', () => {
  const three = [box(0, 0, 10, 10), box(35, 5, 20, 10), box(100, 20, 10, 30)];
  expect(aligned(three, 'left').map(({ left }) => left)).toEqual([0, 0, 0]);
  expect(aligned(three, 'right').map(({ right }) => right)).toEqual([110, 110, 110]);
  expect(aligned(three, 'centre').map(({ left, right }) => left + right)).toEqual([110, 110, 110]);
  expect(aligned(three, 'middle').map(({ top, bottom }) => top + bottom)).toEqual([50, 50, 50]);
  expect(aligned(three, 'bottom').map(({ bottom }) => bottom)).toEqual([50, 50, 50]);
  // From 0 to 110 with 40 taken: two gaps of 35.
  expect(distributed(three, 'x').map(({ left }) => left)).toEqual([0, 45, 100]);
  expect(distributed([three[2]!, three[0]!, three[1]!], 'x').map(({ left }) => left)).toEqual([100, 0, 45]);
  expect(distributed(three.slice(0, 2), 'x')).toEqual(three.slice(0, 2));
  expect(sameSized(three)).toEqual([box(0, 0, 10, 10), box(35, 5, 10, 10), box(100, 20, 10, 10)]);
});

test('a copy of a field gets the next name that is free, and a name that cannot be one is told', () => {
  expect(freeName('plot', new Set())).toBe('plot');
  expect(freeName('plot', new Set(['plot', 'plot_2']))).toBe('plot_3');
  expect(freeName('child_3', new Set(['child_3']))).toBe('child_4');
  expect(nameFault('tenant.name', new Set(['tenant.phone']))).toBeNull();
  expect(nameFault(' ', new Set())).toMatch(/needs a name/);
  expect(nameFault('a..b', new Set())).toMatch(/full stops/);
  expect(nameFault('a', new Set(['a']))).toMatch(/Another field/);
  expect(nameFault('a', new Set(['a.b']))).toMatch(/“a.b”/);
});
