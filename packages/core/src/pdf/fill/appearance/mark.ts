import { num } from './number.js';

/** A point of thousandths of the em. */
type Point = readonly [number, number];

/** A mark as it is drawn in ZapfDingbats: its advance (AFM file), and its outline, as straight lines or as a circle. */
interface Mark {
  advance: number;
  outline: readonly Point[] | { centre: Point; radius: number };
}

/** Points of a star from its top, outer and inner ones in turn. */
const star = (centre: Point, outer: number, inner: number): Point[] =>
  Array.from({ length: 10 }, (_, index): Point => {
    const [angle, radius] = [(Math.PI * index) / 5, index % 2 === 0 ? outer : inner];
    return [centre[0] + radius * Math.sin(angle), centre[1] + radius * Math.cos(angle)];
  });

const tick: Mark = {
  advance: 846,
  outline: [
    [36, 266],
    [150, 352],
    [288, 200],
    [700, 705],
    [811, 690],
    [330, -14],
    [250, -14],
  ],
};
const cross: Mark = {
  advance: 677,
  outline: [
    [36, 90],
    [236, 350],
    [60, 600],
    [170, 705],
    [339, 455],
    [520, 705],
    [642, 610],
    [440, 345],
    [630, 90],
    [510, -14],
    [335, 235],
    [150, -14],
  ],
};
/** By their codes in ZapfDingbats, which is how MK/CA names them (ISO 32000-2, table 192 and annex D.6). */
const marks: Readonly<Record<string, Mark>> = {
  '3': tick,
  '4': tick,
  '5': cross,
  '6': cross,
  '7': cross,
  '8': cross,
  H: { advance: 816, outline: star([408, 318], 387, 150) },
  l: { advance: 791, outline: { centre: [396, 346], radius: 360 } },
  n: {
    advance: 761,
    outline: [
      [35, 0],
      [726, 0],
      [726, 692],
      [35, 692],
    ],
  },
  u: {
    advance: 788,
    outline: [
      [35, 346],
      [394, 705],
      [754, 346],
      [394, -14],
    ],
  },
};

/** Height of the font's box, and of its baseline above the foot of the box, of 1000 to the em (FontBBox of the AFM file). */
const LINE = { height: 963, foot: 143 };

/** Factor by which Bézier arms approach a circle: 4/3 (sqrt 2 - 1). */
const ARM = 0.5523;

/** A circle as a path. */
export function circle(x: number, y: number, radius: number): string {
  const arm = radius * ARM;
  const p = (...values: number[]): string => values.map(num).join(' ');
  return (
    `${p(x + radius, y)} m\n${p(x + radius, y + arm, x + arm, y + radius, x, y + radius)} c\n` +
    `${p(x - arm, y + radius, x - radius, y + arm, x - radius, y)} c\n${p(x - radius, y - arm, x - arm, y - radius, x, y - radius)} c\n` +
    `${p(x + arm, y - radius, x + radius, y - arm, x + radius, y)} c\nh\n`
  );
}

/**
 * Operators for the mark of a chosen tick box or radio button that has no appearance of its own, in the middle of its box. It is drawn as a path, so that
 * no reader finds a letter in it.
 * @param caption MK/CA; none means a tick, for a radio button a dot
 * @param look of DA: its colour operator, and its type size in points; 0: as large as the box allows
 * @param border of the box, points
 */
export function stateMark(
  box: { width: number; height: number; border: number },
  isRadio: boolean,
  caption: string | undefined,
  look: { colour: string; size: number },
): string {
  const mark = marks[caption ?? ''] ?? marks[isRadio ? 'l' : '4']!;
  // Producers leave twice the border on each side: 14.532 points in a box of 18 with a border of 1 (measured; docs/layout.md).
  const room = Math.min(box.width, box.height) - 4 * Math.max(1, box.border);
  const size = look.size || Math.max(3, (room * 1000) / LINE.height);
  const left = box.width / 2 - (mark.advance * size) / 2000;
  const bottom = box.height / 2 + ((LINE.foot - LINE.height / 2) * size) / 1000;
  const at = ([x, y]: Point): [number, number] => [left + (x * size) / 1000, bottom + (y * size) / 1000];
  if ('radius' in mark.outline) return `${look.colour}\n${circle(...at(mark.outline.centre), (mark.outline.radius * size) / 1000)}f\n`;
  const path = mark.outline.map((point, index) => `${at(point).map(num).join(' ')} ${index === 0 ? 'm' : 'l'}`).join(' ');
  return `${look.colour}\n${path} h f\n`;
}
