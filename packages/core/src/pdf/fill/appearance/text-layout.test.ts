import { standardFace } from './coded-face.js';
import type { FitRule } from '../../value.js';
import type { TextBox } from './text-layout.js';
import { fittingBlock, layoutText } from './text-layout.js';
import { runsWidth } from './text-run.js';

const helvetica = standardFace('Helvetica');
const choice = { coded: [helvetica] as const, extras: [] };
const box = (more: Partial<TextBox> = {}): TextBox => ({
  width: 104,
  height: 20,
  border: 0,
  multiline: false,
  comb: 0,
  quadding: 0,
  size: 10,
  line: helvetica.line,
  ...more,
});
const rule = (tooLong: FitRule['tooLong'], smallest = 5): FitRule => ({ tooLong, smallest });
const lines = (text: string, where: TextBox, how?: FitRule): string[] =>
  layoutText(text, where, choice, how).lines.map(({ runs }) => runs.map((run) => run.text).join(''));

test('widths are those of the AFM file of Helvetica: “A” 667, “V” 667, “l” 222 thousandths', () => {
  expect(helvetica.measure('A')).toBe(667);
  expect(helvetica.measure('AVl')).toBe(667 + 667 + 222);
});

describe('text that is too long for its line', () => {
  const long = 'A value that is clearly too long for a box of this width';
  test('is shrunk, and said to be tight', () => {
    const { size, fit, lines: placed } = layoutText('Twenty-five letters or so', box({ width: 90 }), choice);
    expect(fit).toBe('tight');
    expect(size).toBeLessThan(10);
    expect((runsWidth(placed[0]!.runs) * size) / 1000).toBeLessThanOrEqual(86);
  });
  test('is never smaller than the caller allows, and then said to overflow', () => {
    expect(layoutText(long, box(), choice, rule('shrink', 8))).toMatchObject({ size: 8, fit: 'overflows' });
  });
  test('keeps its size and is clipped when the caller says so', () => {
    expect(layoutText(long, box(), choice, rule('clip'))).toMatchObject({ size: 10, fit: 'overflows' });
  });
  test('goes on in further lines when the caller says so', () => {
    const wrapped = lines(long, box({ height: 60 }), rule('wrap', 10));
    expect(wrapped.length).toBeGreaterThan(2);
    expect(wrapped.join(' ')).toBe(long);
  });
  test('is cut to what fits when the caller says so', () => {
    const [cut] = lines(long, box(), rule('cut', 10));
    expect(long.startsWith(cut!)).toBe(true);
    expect((helvetica.measure(cut!) * 10) / 1000).toBeLessThanOrEqual(100);
    expect((helvetica.measure(long.slice(0, cut!.length + 1)) * 10) / 1000).toBeGreaterThan(100);
  });
});

describe('several lines', () => {
  const block = box({ multiline: true, height: 60 });
  test('break at spaces, at the breaks of the value, and within a word that is longer than a line', () => {
    expect(lines('one\ntwo\r\nthree', block)).toEqual(['one', 'two', 'three']);
    expect(lines('Several words that want two lines', block)).toEqual(['Several words that', 'want two lines']);
    const broken = lines('Donaudampfschifffahrtsgesellschaft', block);
    expect(broken.length).toBeGreaterThan(1);
    expect(broken.join('')).toBe('Donaudampfschifffahrtsgesellschaft');
  });
  test.each([
    'Several words that want two lines',
    'a  b   c',
    'Donaudampfschifffahrtsgesellschaft in the line',
    ' leading',
    'trailing  ',
    'x',
  ])('are broken alike by the quick way and by the thorough one: %p', (text) => {
    helvetica.load(text);
    const quick = fittingBlock(block, helvetica)!;
    const found = Array.from({ length: quick.lines.length / 3 }, (_, index) =>
      text.slice(quick.lines[index * 3], quick.lines[index * 3 + 1]),
    );
    expect(found).toEqual(lines(text, block));
    const { lines: placed, size } = layoutText(text, block, choice);
    expect([quick.size, quick.top, quick.top - quick.lead]).toEqual([
      size,
      placed[0]!.y,
      expect.closeTo((placed[1] ?? { y: quick.top - quick.lead }).y, 6),
    ]);
  });
});

test.each([
  [0, 2],
  [1, (104 - 6.67) / 2],
  [2, 104 - 2 - 6.67],
])('quadding %i puts the text at %d points (ISO 32000-2, 12.7.4.3)', (quadding, x) => {
  expect(layoutText('A', box({ quadding: quadding as 0 | 1 | 2 }), choice).lines[0]!.x).toBeCloseTo(x, 5);
});
