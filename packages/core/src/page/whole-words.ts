import type { Bands } from './bands.js';
import type { Phrase } from './page-reading.js';
import type { Place, Relation } from './printed-label.js';

/** Whether a line begins below the words of the one above it, whose number stands out to the left: “1. wages for / overtime”. */
const isHanging = (upper: Phrase, lower: Phrase): boolean =>
  /^\(?(?:\d{1,2}[a-z]?|[a-z])[.)]\s/i.test(upper.text) && lower.left > upper.left && lower.left - upper.left < upper.size * 2.5;

/** A phrase with the lines that it goes on from or into, as far as they belong to the same box. */
export function wholeWords(
  phrase: Phrase,
  relation: Relation,
  place: Place,
  { phrasesAt, placesAt, isRightToLeft }: { phrasesAt: Bands<Phrase>; placesAt: Bands<Place>; isRightToLeft: boolean },
): string {
  const words = [phrase];
  const isNext = (upper: Phrase, lower: Phrase): boolean => {
    const step = upper.base - lower.base;
    return (
      step > upper.size * 0.7 &&
      step < upper.size * 1.6 &&
      Math.abs(upper.size - lower.size) < 0.6 &&
      upper.isBold === lower.isBold &&
      (isRightToLeft ? Math.abs(upper.right - lower.right) < 4 : Math.abs(upper.left - lower.left) < 4 || isHanging(upper, lower))
    );
  };
  /** Whether the lower of two lines goes on with what the upper one began. */
  const goesOn = (upper: Phrase, lower: Phrase): boolean => /^[\p{Ll}(]/u.test(lower.text) && !/[.:;?!]$/.test(upper.text);
  const isBesideOther = (one: Phrase): boolean =>
    placesAt
      .between(one.base - 2, one.base + one.size)
      .some(
        ({ box, isTick }) =>
          box !== place.box &&
          box[1] < one.base + one.size * 0.5 &&
          box[3] > one.base &&
          (isTick ? Math.abs(one.left - box[2]) < 20 : box[0] > one.right && box[0] - one.right < 40),
      );
  if (relation !== 'below')
    for (let guard = 0; guard < 3; guard++) {
      const upper = phrasesAt
        .between(words[0]!.base, words[0]!.base + 2 * words[0]!.size)
        .find((one) => isNext(one, words[0]!) && goesOn(one, words[0]!) && !isBesideOther(one));
      if (!upper) break;
      words.unshift(upper);
    }
  if (relation !== 'above')
    for (let guard = 0; guard < 3; guard++) {
      const lower = phrasesAt
        .between(words.at(-1)!.base - 2 * words.at(-1)!.size, words.at(-1)!.base)
        .find((one) => isNext(words.at(-1)!, one) && goesOn(words.at(-1)!, one) && !isBesideOther(one));
      if (!lower) break;
      words.push(lower);
    }
  return words
    .map(({ text }) => text)
    .join(' ')
    .replace(/(\p{Ll})- (\p{Ll})/gu, '$1$2');
}
