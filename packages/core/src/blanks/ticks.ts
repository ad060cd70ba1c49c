import { areaOf, heightOf, near, shared, widthOf } from '../page/geometry.js';
import { isUnit } from '../page/label-words.js';
import type { Box } from '../page/page-reading.js';
import type { Found } from './blank.js';
import type { Ground } from './ground.js';

/** Sides of a box to tick, points (common practice, no source). */
const [SMALLEST, LARGEST] = [4.5, 18];
/** A line of underscores that is no longer stands for a box to tick, points. */
const SHORT_LINE = 32;

export const isSquare = (box: Box): boolean => {
  const [width, height] = [widthOf(box), heightOf(box)];
  return (
    width >= SMALLEST &&
    height >= SMALLEST &&
    width <= LARGEST &&
    height <= LARGEST &&
    Math.abs(width - height) <= Math.max(1.6, 0.22 * Math.max(width, height))
  );
};

/** Boxes and circles to tick: drawn small squares and circles without anything in them, and the signs that stand for them. */
export function findTicks(ground: Ground): Found[] {
  const { reading } = ground;
  const drawn = [
    ...ground.cells.filter(isSquare),
    ...reading.shapes
      .filter((shape) => {
        const { box, isStroked, fill } = shape;
        if (!isSquare(box)) return false;
        const isLight = fill === null || fill > 0.85;
        return isStroked ? isLight : fill !== null && fill > 0.99 ? ground.isOnDarker(shape) : false;
      })
      .map(({ box }) => box),
  ].filter((box) => ground.phrasesIn(box).length === 0);
  const signs = reading.places
    .filter(({ sign }) => sign === 'box' || sign === 'round')
    .map(({ left, right, base, size }): Box => [left, base - size * 0.1, right, base + size * 0.72]);
  // “___ Yes ___ No”: a short line right before a word.
  const short = reading.places
    .filter(
      ({ sign, left, right, base, size }) =>
        sign === 'rule' &&
        right - left <= SHORT_LINE &&
        reading.phrases.some(
          (phrase) =>
            Math.abs(phrase.base - base) < 2 &&
            Math.abs(phrase.left - right) < size * 0.6 &&
            /^\p{L}{2}/u.test(phrase.text) &&
            !isUnit(phrase.text),
        ),
    )
    .map(({ left, right, base, size }): Box => [left, base - size * 0.2, right, base + size * 0.8]);
  const found: Box[] = [...short];
  for (const box of [...drawn.sort((a, b) => areaOf(b) - areaOf(a)), ...signs])
    if (!found.some((other) => near(other[1], box[1], 20) && shared(other, box) > areaOf(box) * 0.4)) found.push(box);
  return found.map((box) => ({ box, kind: 'checkbox', cells: null, by: 'sign' }));
}
