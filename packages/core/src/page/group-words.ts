import type { Bands } from './bands.js';
import { labelWords } from './label-words.js';
import type { Box, Phrase } from './page-reading.js';
import type { PrintedLabel } from './printed-label.js';

/** How far words may stand from the corner of a group that they name, and how long they may be; points and characters, common practice, no source. */
const [BESIDE, ABOVE, LONGEST] = [90, 9, 60];

/**
 * Words that stand to the left of a group, a little higher than its first: “Pays” before buttons below each other. A sentence is none.
 * @param own what single ones of the group are called
 */
export function wordsAtCorner(phrases: Bands<Phrase>, [left, , , top]: Box, own: ReadonlySet<string | undefined>): PrintedLabel | null {
  const found = phrases
    .between(top - 4, top + ABOVE)
    .filter(({ right, text }) => right < left && left - right < BESIDE && text.length <= LONGEST && !/[.;!]$/.test(text))
    .map(({ text, right }) => ({ text: labelWords(text), cost: (left - right) / 2 }))
    .filter(({ text }) => text !== null && !own.has(text))
    .sort((a, b) => a.cost - b.cost)[0];
  return found ? { text: found.text!, relation: 'left', cost: found.cost } : null;
}
