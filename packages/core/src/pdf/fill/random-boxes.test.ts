import { difference, inkIn, pictureOf } from '../../../../../testing/picture.js';
import { readByOther } from '../../../../../testing/other-reader.js';
import { testFaces, testFonts } from '../../testing/platform.js';
import { formOf } from '../../../../../testing/raw-form.js';
import type { CompileOptions } from '../plan/compile.js';
import { compileTemplate } from '../plan/compile.js';
import { readValues } from '../read/read.js';
import type { FieldValues } from '../value.js';
import { fillCopy } from './fill.js';

/** Boxes of any size, values of any length: nothing leaves its box, and whatever is said to fit is read back whole by another reader. */
let options: CompileOptions;
beforeAll(async () => {
  options = { fonts: await testFonts(), faces: testFaces() };
});

/** A random source that says the same at each run (Park and Miller, 1988). */
function randomOf(seed: number): (limit: number) => number {
  let state = seed * 7919 + 1;
  return (maximum) => (state = (state * 48_271) % 2_147_483_647) % maximum;
}
const words = [
  'Ada',
  'Quist',
  'Łucja',
  'Åkesson',
  'Larkmere',
  'Reed',
  'Lane',
  '12',
  'Ö',
  'Straßenbahnhaltestelle',
  'e\u0301clair',
  'No.',
  '(old)',
  'Иванова',
  'Ρήγα',
  'fi',
  'AVATAR',
  'j',
  '100 %',
  '—',
];

interface Box {
  name: string;
  rect: [number, number, number, number];
  flags: number;
  size: number;
  quadding: number;
  maxLength: number | null;
  border: boolean;
}
/** One box in each of twelve places of the page, so that none can reach into another without being seen. */
function boxesOf(random: (maximum: number) => number): Box[] {
  return Array.from({ length: 12 }, (_, at): Box => {
    const [left, bottom] = [10 + (at % 3) * 97, 8 + Math.floor(at / 3) * 48];
    const [width, height] = [12 + random(75), 7 + random(35)];
    // ISO 32000-2, table 231: bit 13 several lines, bit 25 a comb.
    const kind = random(4);
    const comb = kind === 3;
    return {
      name: `f${at}`,
      rect: [left, bottom, left + width, bottom + height],
      flags: kind === 1 || kind === 2 ? 1 << 12 : comb ? 1 << 24 : 0,
      size: random(3) === 0 ? 4 + random(14) : 0,
      quadding: random(3),
      maxLength: comb ? 1 + random(12) : null,
      border: random(2) === 0,
    };
  });
}
const fieldOf = ({ name, rect, flags, size, quadding, maxLength, border }: Box): string =>
  `/FT/Tx/T(${name})/Rect[${rect.join(' ')}]/Ff ${flags}/Q ${quadding}/DA(/Helv ${size} Tf 0 g)` +
  `${maxLength === null ? '' : `/MaxLen ${maxLength}`}${border ? '/MK<</BC[0.9]>>/BS<</W 1>>' : ''}`;

function valuesOf(boxes: readonly Box[], random: (maximum: number) => number): Record<string, string> {
  return Object.fromEntries(
    boxes.map(({ name, maxLength, flags }) => {
      if (maxLength !== null) return [name, 'AB12Cd'.repeat(3).slice(0, 1 + random(maxLength))];
      const text = Array.from({ length: 1 + random(flags ? 12 : 3) }, () => words[random(words.length)]!).join(' ');
      return [name, text];
    }),
  );
}
const bare = (text: string): string => text.normalize('NFC').replace(/\s+/g, '');

const seeds = Array.from({ length: 24 }, (_, at) => at + 1);
test.each(seeds)('page %i: no ink outside the boxes, and what fits is read back by pdf.js from within its own box', async (seed) => {
  const random = randomOf(seed);
  const boxes = boxesOf(random);
  const values = valuesOf(boxes, random);
  const pdf = formOf(boxes.map(fieldOf));
  const compiled = await compileTemplate(pdf, {
    ...options,
    characters: [Object.values(values).join('')],
    given: boxes.map(({ name }) => name),
  });
  const { bytes, notes } = fillCopy(compiled, values);
  const picture = await pictureOf(bytes);
  // A pixel of smoothing on each side belongs to the box.
  const inside = boxes.reduce(
    (sum, { rect: [left, bottom, right, top] }) => sum + inkIn(picture, [left - 0.5, bottom - 0.5, right + 0.5, top + 0.5]),
    0,
  );
  expect(inkIn(picture, [0, 0, 300, 200])).toBe(inside);

  const [page] = await readByOther(bytes);
  const unfit = new Set(notes.filter(({ fit, characters }) => fit === 'overflows' || characters.length > 0).map(({ field }) => field));
  for (const { name, rect } of boxes) {
    if (unfit.has(name)) continue;
    const [left, bottom, right, top] = rect;
    const read = page!.pieces
      .filter(({ x, y }) => x >= left - 1 && x <= right + 1 && y >= bottom - 3 && y <= top + 1)
      .map(({ text }) => text)
      .join('');
    // What another box has no room for is clipped away, but a reader may find it here.
    expect([seed, name, bare(read)]).toEqual([seed, name, expect.stringContaining(bare(values[name]!))]);
  }
  expect(unfit.size).toBeLessThan(boxes.length);
});

test.each(seeds.slice(0, 8))('page %i: locked and open copies hold the same values, and look as the flattened one does', async (seed) => {
  const random = randomOf(seed);
  const boxes = boxesOf(random);
  const values: FieldValues = valuesOf(boxes, random);
  const pdf = formOf(boxes.map(fieldOf));
  const more = { ...options, characters: [Object.values(values).join('')], given: boxes.map(({ name }) => name) };
  const flat = await pictureOf(fillCopy(await compileTemplate(pdf, more), values).bytes);
  for (const finish of ['locked', 'open'] as const) {
    const { bytes } = fillCopy(await compileTemplate(pdf, { ...more, finish }), values);
    expect([finish, await readValues(bytes)]).toEqual([finish, values]);
    const picture = await pictureOf(bytes);
    if (finish === 'locked') expect([finish, difference(flat, picture) < 0.001]).toEqual([finish, true]);
  }
});

test('where text stands in its box is what Q says (ISO 32000-2, table 228): left, in the middle, right', async () => {
  const places = [0, 1, 2].map((quadding): Box => ({
    name: `q${quadding}`,
    rect: [20, 20 + quadding * 40, 220, 40 + quadding * 40],
    flags: 0,
    size: 12,
    quadding,
    maxLength: null,
    border: false,
  }));
  const pdf = formOf(places.map(fieldOf));
  const { bytes } = fillCopy(await compileTemplate(pdf, options), { q0: 'Ada', q1: 'Ada', q2: 'Ada' });
  const picture = await pictureOf(bytes);
  const third = (at: number): number[] =>
    [0, 1, 2].map((part) => inkIn(picture, [20 + (part * 200) / 3, 20 + at * 40, 20 + ((part + 1) * 200) / 3, 40 + at * 40]));
  expect([0, 1, 2].map((at) => third(at).map((ink) => ink > 0))).toEqual([
    [true, false, false],
    [false, true, false],
    [false, false, true],
  ]);
});

/** Borders and backgrounds (ISO 32000-2, tables 168 and 192) by the pixels that show them. */
test.each<
  [style: string, mk: string, bs: string, edges: [left: boolean, bottom: boolean, right: boolean, top: boolean], ground: 'white' | 'dark']
>([
  ['solid', '/BC[0]', '/W 3/S/S', [true, true, true, true], 'white'],
  ['underlined', '/BC[0]', '/W 3/S/U', [false, true, false, false], 'white'],
  ['of no width', '/BC[0]', '/W 0/S/S', [false, false, false, false], 'white'],
  ['of no colour', '', '/W 3/S/S', [false, false, false, false], 'white'],
  ['with a ground', '/BC[0]/BG[0.2]', '/W 3/S/S', [true, true, true, true], 'dark'],
  ['in three colours', '/BC[0 0 0]', '/W 3/S/S', [true, true, true, true], 'white'],
  ['in four', '/BC[0 0 0 1]', '/W 3/S/S', [true, true, true, true], 'white'],
])('a border %s', async (_, mk, bs, edges, ground) => {
  const pdf = formOf([`/FT/Tx/T(a)/Rect[50 50 150 90]/DA(/Helv 4 Tf 1 g)/MK<<${mk}>>/BS<<${bs}>>`]);
  const picture = await pictureOf(fillCopy(await compileTemplate(pdf, options), { a: '.' }).bytes);
  const dark = (box: number[]): boolean => inkIn(picture, box) > 0;
  const isDark = ground === 'dark';
  // The middle of each edge, 1 to 2 points in.
  expect(
    [dark([51, 65, 52, 75]), dark([95, 51, 105, 52]), dark([148, 65, 149, 75]), dark([95, 88, 105, 89])].map(
      (one, at) => one === (edges[at]! || isDark),
    ),
  ).toEqual([true, true, true, true]);
  expect(dark([90, 65, 110, 75])).toBe(isDark);
});
