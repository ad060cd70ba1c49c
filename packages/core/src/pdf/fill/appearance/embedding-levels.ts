import { bidi } from './bidi-package.js';
import { RTL_COMPANION, RTL_DIGIT, RTL_LETTER, RTL_MARK, unitTraits } from './unit-traits.js';

/**
 * Levels of a text of letters from right to left, marks, spaces and digits only; null: it has something else. In such a text the paragraph has
 * level 1 (UAX #9, P2, P3), digits have level 2 (I2), marks what stands before them (W1) and spaces 1 (N1, L1).
 */
function plainLevels(text: string): Uint8Array | null {
  const { length } = text;
  const levels = new Uint8Array(length).fill(1);
  let hasLetter = false;
  for (let index = 0; index < length; index++) {
    const traits = unitTraits(text.charCodeAt(index));
    if ((traits & (RTL_LETTER | RTL_COMPANION)) === 0) return null;
    if ((traits & RTL_LETTER) !== 0) hasLetter = true;
    else if ((traits & RTL_DIGIT) !== 0) levels[index] = 2;
    else if ((traits & RTL_MARK) !== 0 && index > 0) levels[index] = levels[index - 1]!;
  }
  return hasLetter ? levels : null;
}

/** Level of embedding of each UTF-16 unit of a paragraph (UAX #9); odd ones run from right to left. */
export const embeddingLevels = (text: string): Uint8Array => plainLevels(text) ?? bidi.getEmbeddingLevels(text).levels;

/** Level of a paragraph as a whole: 0 from left to right, 1 from right to left. */
export const embeddingLevel = (text: string): number => (plainLevels(text) ? 1 : (bidi.getEmbeddingLevels(text).paragraphs[0]?.level ?? 0));

/** A text whose brackets and their like are mirrored (UAX #9, rule L4). */
export const mirrored = (text: string): string => Array.from(text, (char) => bidi.getMirroredCharacter(char) ?? char).join('');
