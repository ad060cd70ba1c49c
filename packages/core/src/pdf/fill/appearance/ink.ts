import { standardExtents } from './standard-extents.js';

/** How far ink reaches above the baseline, and below it (positive: downwards), of 1000 to the em. */
export interface Ink {
  top: number;
  bottom: number;
}

/** First code of the tables of extents, and what is added to each number in them. */
const FIRST = 32;
const RAISED = 300;
/** Digits a number, and numbers a code. */
const DIGITS = 2;

/** Highest and lowest ink by code of WinAnsiEncoding, of 1000 to the em; 0 and 0 where nothing is drawn. */
export interface CodeExtents {
  tops: Int16Array;
  bottoms: Int16Array;
}

const known = new Map<string, CodeExtents>();

/** The extents of a standard font; those of an upright one for a slanted one. */
export function extentsOf(baseFont: string): CodeExtents {
  const upright = baseFont.replace(/(-?)(Bold)?Oblique$/, (_, dash: string, bold?: string) => (bold ? `${dash}${bold}` : ''));
  const found = known.get(upright);
  if (found) return found;
  const table = standardExtents[upright] ?? standardExtents.Helvetica!;
  const extents = { tops: new Int16Array(256), bottoms: new Int16Array(256) };
  for (let code = FIRST; code < 256; code++) {
    const at = (code - FIRST) * 2 * DIGITS;
    extents.tops[code] = parseInt(table.slice(at, at + DIGITS), 36) - RAISED;
    extents.bottoms[code] = RAISED - parseInt(table.slice(at + DIGITS, at + 2 * DIGITS), 36);
  }
  known.set(upright, extents);
  return extents;
}

/** Of a capital and of a small letter with a mark above; letters beyond WinAnsi are no higher in usual faces (common practice, no source). */
const MARKED_CAPITAL = 940;
const MARKED_SMALL = 760;
const DEEP = 220;

/** About how high and low a character is in any face for text whose outlines are not looked at: as in Helvetica, or by what it is put together from. */
export function roughInk(codePoint: number, winAnsi: Uint8Array): Ink {
  const { tops, bottoms } = extentsOf('Helvetica');
  const code = codePoint < 0x10000 ? winAnsi[codePoint]! : 0;
  if (code !== 0) return { top: tops[code]!, bottom: bottoms[code]! };
  const [base = ''] = String.fromCodePoint(codePoint).normalize('NFD');
  return { top: base !== base.toLowerCase() ? MARKED_CAPITAL : MARKED_SMALL, bottom: DEEP };
}
