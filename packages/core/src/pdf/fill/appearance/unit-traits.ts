import { bidi } from './bidi-package.js';

/** Traits of a UTF-16 unit that tell whether a text can be drawn as it stands. */
export const SPACE = 1;
/** Drawn as a space. */
export const CONTROL = 2;
/** Changed, or put in order with what stands beside it, by composing (Unicode Standard Annex #15, NFC). */
export const COMPOSES = 4;
/** Direction marks, isolates and embeddings (UAX #9, 2), the byte order mark and the soft hyphen's kin: they order text and are never drawn. */
export const INVISIBLE = 8;
/** Joiners and variation selectors, which a face need not have a glyph for. */
export const JOINER = 16;
/** Of a script from right to left, or a mark that turns the direction there. */
export const RTL = 32;
/** What a text may have whose levels can be told unit by unit: a letter from right to left, a digit, a mark, a space. */
export const RTL_LETTER = 64;
export const RTL_DIGIT = 128;
export const RTL_MARK = 256;
export const RTL_SPACE = 512;
export const RTL_COMPANION = RTL_DIGIT | RTL_MARK | RTL_SPACE;

/** By class (UAX #9, table 4). */
const DIRECTIONS: Readonly<Record<string, number>> = {
  R: RTL_LETTER,
  AL: RTL_LETTER,
  EN: RTL_DIGIT,
  AN: RTL_DIGIT,
  NSM: RTL_MARK,
  WS: RTL_SPACE,
};

const KNOWN = 1 << 15;
const traits = new Uint16Array(65_536);

function lookUp(unit: number): number {
  const char = String.fromCharCode(unit);
  let found = KNOWN;
  if (/\s/.test(char)) found |= SPACE;
  if (unit < 0x20 || unit === 0x7f) found |= CONTROL;
  // Halves of characters outside the basic plane are left to the thorough way. Jamo are put together by rule, not by a table.
  if (/[\p{M}\u1100-\u11ff\ud800-\udfff]/u.test(char) || char.normalize('NFC') !== char) found |= COMPOSES;
  if (/[\u200b\u200e\u200f\u202a-\u202e\u2060-\u2069\u061c\ufeff]/.test(char)) found |= INVISIBLE;
  if (/[\u200c\u200d\ufe00-\ufe0f]/.test(char)) found |= JOINER;
  if (/[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff\u200f\u202b\u202e\u2067]/.test(char)) found |= RTL;
  found |= DIRECTIONS[bidi.getBidiCharTypeName(char)] ?? 0;
  return (traits[unit] = found);
}

/** The traits of one UTF-16 unit, looked up once. */
export function unitTraits(unit: number): number {
  const known = traits[unit]!;
  return known === 0 ? lookUp(unit) : known;
}

/** The traits of all units of a text together. */
export function traitsOf(text: string): number {
  let all = 0;
  for (let index = 0; index < text.length; index++) all |= unitTraits(text.charCodeAt(index));
  return all;
}
