import type { Bands } from './bands.js';
import { overlap } from './geometry.js';
import type { Phrase } from './page-reading.js';
import type { Place } from './printed-label.js';

/** How far words before a box may stand, points. */
const BEFORE = 60;
const hasWordsBefore = ({ box: [left, bottom, , top] }: Place, phrasesAt: Bands<Phrase>): boolean =>
  phrasesAt
    .between(bottom, top)
    .some(({ base, right, text }) => base > bottom - 2 && base < top && left - right > -4 && left - right < BEFORE && /\p{L}/u.test(text));

/**
 * Between two boxes that stand on each other a caption may belong to either. Where the uppermost box has none above it and the lowest one has one below it,
 * all of them have theirs below.
 * @param isSpoken whether a phrase cannot be such a caption
 * @returns boxes whose words stand below them
 */
export function boxesOverWords(places: readonly Place[], phrasesAt: Bands<Phrase>, isSpoken: (phrase: Phrase) => boolean): Place[] {
  const turned = new Set<Place>();
  const boxes = places.filter(({ isTick }) => !isTick);
  const touching = (place: Place, relation: 'above' | 'below'): Phrase | undefined =>
    phrasesAt.between(place.box[1] - 30, place.box[3] + 10).find((phrase) => {
      const [left, bottom, right, top] = place.box;
      if (overlap(phrase.left, phrase.right, left, right) <= 0 || isSpoken(phrase) || !/\p{L}/u.test(phrase.text)) return false;
      const gap = relation === 'above' ? phrase.base - top : bottom - phrase.base - phrase.size * 0.75;
      return gap > -3 && gap < 6;
    });
  const above = new Map(boxes.map((place) => [place, touching(place, 'above')]));
  const below = new Map(boxes.map((place) => [place, touching(place, 'below')]));
  /** Boxes that touch a phrase from either side. */
  const around = new Map<Phrase, Place[]>();
  for (const place of boxes)
    for (const phrase of [above.get(place), below.get(place)]) if (phrase) around.set(phrase, [...(around.get(phrase) ?? []), place]);
  const seen = new Set<Place>();
  for (const start of boxes) {
    if (seen.has(start)) continue;
    const stack = [start];
    seen.add(start);
    for (let at = 0; at < stack.length; at++)
      for (const phrase of [above.get(stack[at]!), below.get(stack[at]!)])
        for (const other of (phrase && around.get(phrase)) ?? []) {
          if (seen.has(other)) continue;
          seen.add(other);
          stack.push(other);
        }
    const without = (words: typeof above): number => stack.filter((place) => !words.get(place)).length;
    // One box by itself says nothing where words stand before it.
    const isTold = stack.length === 1 && hasWordsBefore(start, phrasesAt);
    if (!isTold && without(above) > without(below)) for (const place of stack) turned.add(place);
  }
  return [...turned];
}
