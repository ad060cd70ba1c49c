import type { Fit, FitRule } from '../../value.js';
import type { CodedFace } from './coded-face.js';
import type { LineMetrics } from './coded-face.js';
import { advances, loadedString } from './coded-face.js';
import { graphemes } from '../../../text/graphemes.js';
import type { Ink } from './ink.js';
import type { FaceChoice, TextRun } from './text-run.js';
import { inkOf, isRightToLeft, runsWidth, shapeLine, visualOrder } from './text-run.js';

/** Where text may stand: a box in points with its origin at the lower left, already turned upright. */
export interface TextBox {
  width: number;
  height: number;
  /** Width of the border, points. */
  border: number;
  multiline: boolean;
  /** Number of cells; 0: no comb. */
  comb: number;
  /** Quadding: 0 left, 1 centred, 2 right (ISO 32000-2, 12.7.4.3). */
  quadding: 0 | 1 | 2;
  /** Points; 0: as large as fits. */
  size: number;
  /** The line of the font that the form asks for. */
  line: LineMetrics;
}

export const usualFit: FitRule = { tooLong: 'shrink', smallest: 5 };

export interface PlacedLine {
  x: number;
  /** Of the baseline. */
  y: number;
  runs: TextRun[];
}

export interface TextLayout {
  size: number;
  lines: PlacedLine[];
  fit: Fit;
  /** What of the text stands outside of the box or is left out; only where it overflows. Empty: characters are cut off above or below. */
  lost?: string;
  /** Each line is one character in its cell. */
  comb?: boolean;
}

/** Largest automatic size of a multi-line field, points; common practice, no source. */
const LARGEST_AUTO_MULTILINE = 12;
/**
 * Height of the line of automatic type over the inside of its box, as most producers save it themselves: 34.62 points in a box of 48.709 and 38.581 in one
 * of 54.079, both with a border of 1 and Helvetica's line of 1.156 (measured; docs/layout.md).
 */
const AUTO_SHARE = 0.8566;
/** Automatic type below this counts as tight, points. */
const TIGHT_AUTO = 7;

interface Atom {
  text: string;
  /** Of 1000 to the em, without and with the spaces that follow. */
  width: number;
  whole: number;
}

const widthOf = (text: string, choice: FaceChoice): number => {
  const plain = choice.coded[0].measure(text);
  return plain >= 0 ? plain : runsWidth(shapeLine(text, choice));
};

const isBlank = (text: string, at: number): boolean => text.charCodeAt(at) === 32 || text.charCodeAt(at) === 9;

/** Whether a line may end between two units without a blank: beside ideographs and kana, but not before what closes or after what opens (UAX #14, ID, CL, OP). */
const mayBreak = (text: string, at: number): boolean =>
  (isIdeographic(text.charCodeAt(at - 1)) || isIdeographic(text.charCodeAt(at))) &&
  !/[\u3001\u3002\uff0c\uff0e\uff1a\uff1b\uff01\uff1f\u300d\u300f\u3011\uff09\u30fc\u3005\u3063\u30c3\u3083\u3085\u3087\u30e3\u30e5\u30e7\udc00-\udfff]/.test(
    text[at]!,
  ) &&
  !/[\u300c\u300e\u3010\uff08]/.test(text[at - 1]!);
const isIdeographic = (unit: number): boolean =>
  (unit >= 0x2e80 && unit <= 0xa4cf) ||
  (unit >= 0xf900 && unit <= 0xfaff) ||
  (unit >= 0xff00 && unit <= 0xff60) ||
  (unit >= 0xd840 && unit <= 0xd88f);

/** Words of each paragraph with their widths, measured once for all sizes. */
function atomsOf(text: string, choice: FaceChoice): Atom[][] {
  const space = widthOf(' ', choice);
  return (/[\r\n\u2028\u2029]/.test(text) ? text.split(/\r\n|\r|\n|\u2028|\u2029/) : [text]).map((paragraph) => {
    const atoms: Atom[] = [];
    for (let from = 0; from < paragraph.length;) {
      let end = from;
      while (end < paragraph.length && !isBlank(paragraph, end) && !(end > from && mayBreak(paragraph, end))) end++;
      let to = end;
      while (to < paragraph.length && isBlank(paragraph, to)) to++;
      const width = end > from ? widthOf(paragraph.slice(from, end), choice) : 0;
      atoms.push({ text: paragraph.slice(from, to), width, whole: width + (to - end) * space });
      from = to;
    }
    return atoms;
  });
}

/** Breaks text into lines no wider than `room` (of 1000 to the em); a word that is too long is broken anywhere. */
function wrap(paragraphs: readonly Atom[][], choice: FaceChoice, room: number): string[] {
  const lines: string[] = [];
  for (const atoms of paragraphs) {
    let line = '';
    let used = 0;
    for (const atom of atoms) {
      if (line !== '' && used + atom.width > room) {
        lines.push(line.trimEnd());
        line = '';
        used = 0;
      }
      let { text, width, whole } = atom;
      while (width > room && text.length > 1) {
        const chars = graphemes(text.trimEnd());
        let count = 0;
        let taken = 0;
        while (count < chars.length) {
          taken += widthOf(chars[count]!, choice);
          if (taken > room && count > 0) break;
          count++;
        }
        if (count >= chars.length) break;
        lines.push(chars.slice(0, count).join(''));
        text = text.slice(chars.slice(0, count).join('').length);
        width = widthOf(text.trimEnd(), choice);
        whole = widthOf(text, choice);
      }
      line += text;
      used += whole;
    }
    lines.push(line.trimEnd());
  }
  return lines;
}

const place = (box: TextBox, padding: number, width: number): number =>
  box.quadding === 0 ? padding : box.quadding === 1 ? (box.width - width) / 2 : box.width - padding - width;

/** Space around text inside the box: twice the border, at least 2 points (measured; docs/layout.md). */
const paddingOf = ({ border }: TextBox): number => Math.max(2, 2 * border);

/** Baseline of one line that stands in the middle of its box (measured; docs/layout.md). */
export const middleLine = ({ height, line }: TextBox, size: number): number => height / 2 + ((line.foot - line.height / 2) * size) / 1000;

/** Where ink may stand: all of the box but its border. */
const clipOf = (box: TextBox): number => Math.max(0, box.height - 2 * box.border);

/** Whether all that a face can draw at a size stays inside the box. */
export const reachFits = (box: TextBox, { top, bottom }: Ink, size: number, y: number): boolean =>
  y - (bottom * size) / 1000 >= box.border && y + (top * size) / 1000 <= box.height - box.border;

/** How far lines have to move up (or down, negative) so that no ink of theirs is cut off; what is too high stays with its foot in the box. */
function settle(box: TextBox, size: number, first: { y: number; ink: Ink }, last: { y: number; ink: Ink }): number {
  const top = first.y + (first.ink.top * size) / 1000;
  const bottom = last.y - (last.ink.bottom * size) / 1000;
  if (bottom < box.border) return box.border - bottom;
  return Math.min(0, Math.max(box.height - box.border - top, box.border - bottom));
}

const heightOf = ({ top, bottom }: Ink): number => top + bottom;
const OVER = 0.01;

/** Cells of a comb that stay empty before the text; text from right to left begins at the right end unless it is centred. */
const emptyCells = ({ quadding, comb }: TextBox, count: number, rtl: boolean): number =>
  Math.max(0, quadding === 1 ? Math.floor((comb - count) / 2) : quadding === 2 || rtl ? comb - count : 0);

/** How much wider than its cell a character of a comb may be, and type than a cell for which none is: as wide as in automatic size. */
const [CELL_WIDTHS, CELL_SIZES] = [1.15, 1.1];

function layoutComb(text: string, box: TextBox, choice: FaceChoice, rule: FitRule): TextLayout {
  const cell = box.width / box.comb;
  const all = graphemes(text.normalize('NFC'));
  const chars = visualOrder(all.slice(0, box.comb));
  const shaped = chars.map((char) => shapeLine(char, choice));
  const inks = shaped.map(inkOf);
  const ink = { top: Math.max(0, ...inks.map(({ top }) => top)), bottom: Math.max(0, ...inks.map(({ bottom }) => bottom)) };
  const wanted = box.size || combSize(box, rule);
  const tallest = (clipOf(box) * 1000) / Math.max(1, heightOf(ink));
  const widest = Math.max(1, ...shaped.map(runsWidth));
  const largest = Math.min(tallest, (cell * CELL_WIDTHS * 1000) / widest);
  const size = rule.tooLong === 'clip' && box.size > 0 ? wanted : Math.min(wanted, Math.max(rule.smallest, largest));
  const isCut = heightOf(ink) * size > clipOf(box) * 1000 + OVER || widest * size > cell * CELL_WIDTHS * 1000 + OVER;
  const first = emptyCells(box, chars.length, isRightToLeft(text));
  const middle = { y: middleLine(box, size), ink };
  const y = middle.y + settle(box, size, middle, middle);
  const lines = shaped.map((runs, index) => ({ x: (first + index + 0.5) * cell - (runsWidth(runs) * size) / 2000, y, runs }));
  if (all.length > box.comb || isCut) return { size, lines, fit: 'overflows', lost: all.slice(box.comb).join(''), comb: true };
  return { size, lines, fit: size < wanted && box.size > 0 ? 'tight' : 'fits', comb: true };
}

/** As many characters as fit into `room` (of 1000 to the em). */
function cutToFit(text: string, choice: FaceChoice, room: number): string {
  const chars = graphemes(text);
  let [low, high] = [0, chars.length];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (widthOf(chars.slice(0, middle).join(''), choice) <= room) low = middle;
    else high = middle - 1;
  }
  return chars.slice(0, low).join('');
}

function layoutLine(text: string, box: TextBox, choice: FaceChoice, rule: FitRule): TextLayout {
  const padding = paddingOf(box);
  const line = /[\r\n]/.test(text) ? text.replace(/\r\n|\r|\n/g, ' ') : text;
  let runs = shapeLine(line, choice);
  let width = runsWidth(runs) / 1000;
  const ink = inkOf(runs);
  const room = Math.max(1, box.width - 2 * padding);
  const wanted = box.size || Math.max(rule.smallest, autoSize(box));
  const mayShrink = rule.tooLong !== 'clip' || box.size === 0;
  const tallest = (clipOf(box) * 1000) / Math.max(1, heightOf(ink));
  const limit = Math.min(width * wanted > room ? Math.floor((room / width) * 20) / 20 : Infinity, tallest);
  const size = mayShrink && limit < wanted ? Math.max(Math.min(rule.smallest, wanted), limit) : wanted;
  const fits = width * size <= room + OVER;
  const isCut = heightOf(ink) * size > clipOf(box) * 1000 + OVER;
  if (!fits && rule.tooLong === 'wrap') return layoutBlock(text, { ...box, multiline: true }, choice, rule);
  let lost = '';
  if (!fits) {
    // What is only clipped goes on to the border.
    const kept = cutToFit(line, choice, ((rule.tooLong === 'cut' ? room : box.width - padding - box.border) * 1000) / size);
    lost = line.slice(kept.length);
    if (rule.tooLong === 'cut') {
      runs = shapeLine(kept, choice);
      width = runsWidth(runs) / 1000;
    }
  }
  const isSmall = box.size > 0 ? size < box.size : size < Math.min(TIGHT_AUTO, wanted);
  const middle = { y: middleLine(box, size), ink };
  const y = middle.y + settle(box, size, middle, middle);
  const x = width * size <= room + OVER ? place(box, padding, width * size) : padding;
  const lines = [{ x, y, runs }];
  return !fits || isCut ? { size, lines, fit: 'overflows', lost } : { size, lines, fit: isSmall ? 'tight' : 'fits' };
}

/** Type size of one line that fills its box (measured; docs/layout.md). */
const autoSize = ({ height, border, line }: TextBox): number => ((height - 2 * Math.max(1, border)) * AUTO_SHARE * 1000) / line.height;

/** Sizes to try, from the wanted one down to the smallest. */
function* sizesFrom(wanted: number, smallest: number): Generator<number> {
  yield wanted;
  for (let size = Math.ceil(wanted * 2) / 2 - 0.5; size >= smallest; size -= 0.5) yield size;
}

function layoutBlock(text: string, box: TextBox, choice: FaceChoice, rule: FitRule): TextLayout {
  const padding = paddingOf(box);
  const lead = box.line.height / 1000;
  const room = Math.max(1, box.width - 2 * padding);
  const tall = Math.max(1, clipOf(box));
  const wanted = box.size || LARGEST_AUTO_MULTILINE;
  const mayShrink = rule.tooLong !== 'clip' || box.size === 0;
  const paragraphs = atomsOf(text, choice);
  let chosen = { size: wanted, lines: [] as string[], fits: false };
  for (const size of sizesFrom(wanted, mayShrink ? rule.smallest : Infinity)) {
    const lines = wrap(paragraphs, choice, (room * 1000) / size);
    chosen = { size, lines, fits: blockFits(lines, lead * size, size, tall, choice) };
    if (chosen.fits) break;
  }
  const { size } = chosen;
  const step = lead * size;
  const maximum = chosen.fits || rule.tooLong !== 'cut' ? chosen.lines.length : Math.max(1, Math.floor((tall - step) / step) + 1);
  const shaped = chosen.lines.slice(0, maximum).map((line) => shapeLine(line, choice));
  const top = box.height - padding - step;
  const last = shaped.length - 1;
  const rise = last < 0 ? 0 : settle(box, size, { y: top, ink: inkOf(shaped[0]!) }, { y: top - last * step, ink: inkOf(shaped[last]!) });
  // Lines that do not fit begin at the top all the same.
  const shift = chosen.fits ? rise : Math.min(rise, Math.max(0, padding + step - box.border - (inkOf(shaped[0] ?? []).top * size) / 1000));
  const lines = shaped.map((runs, index) => ({
    x: place(box, padding, (runsWidth(runs) * size) / 1000),
    y: top + shift - index * step,
    runs,
  }));
  const isSmall = size < (box.size || TIGHT_AUTO);
  if (chosen.fits) return { size, lines, fit: isSmall ? 'tight' : 'fits' };
  const seen = lines.filter(({ y }) => y > box.border).length;
  return { size, lines, fit: 'overflows', lost: chosen.lines.slice(seen).join(' ') };
}

/** Whether no ink of lines is cut off that stand as high or low as they must. @param step from baseline to baseline, points */
function blockFits(lines: readonly string[], step: number, size: number, tall: number, choice: FaceChoice): boolean {
  const between = (lines.length - 1) * step;
  if (between + step <= tall) return true;
  if (between > tall) return false;
  const [first, last] = [inkOf(shapeLine(lines[0]!, choice)), inkOf(shapeLine(lines.at(-1)!, choice))];
  return between + ((first.top + last.bottom) * size) / 1000 <= tall + OVER;
}

/** Lines of the loaded text, as from, to and width (of 1000 to the em) one after the other. */
export interface UnitLines {
  size: number;
  /** Baseline of the first line, and from line to line, points. */
  top: number;
  lead: number;
  lines: number[];
}

/** Wraps the loaded text: greedy, at blanks, words that are too long anywhere. */
function wrapLoaded(room: number): number[] {
  const lines: number[] = [];
  const text = loadedString();
  const { length } = text;
  let from = 0;
  let width = 0;
  let wordAt = 0;
  let wordWidth = 0;
  const push = (to: number, whole: number): void => {
    let end = to;
    let left = whole;
    while (end > from && text.charCodeAt(end - 1) === 32) left -= advances[--end]!;
    lines.push(from, end, left);
  };
  for (let at = 0; at < length; at++) {
    const one = advances[at]!;
    const isSpace = text.charCodeAt(at) === 32;
    if (!isSpace && width + one > room && at > from) {
      const end = wordAt > from ? wordAt : at;
      push(end, wordAt > from ? width - wordWidth : width);
      from = wordAt = end;
      width = wordWidth = end === at ? 0 : wordWidth;
    }
    width += one;
    if (isSpace) {
      wordAt = at + 1;
      wordWidth = 0;
    } else wordWidth += one;
  }
  push(length, width);
  return lines;
}

/** The quick way for the loaded text as a block of one paragraph that fits at the size the form asks for. Null: it has to be laid out. */
export function fittingBlock(box: TextBox, face: CodedFace): UnitLines | null {
  const size = box.size || LARGEST_AUTO_MULTILINE;
  const padding = paddingOf(box);
  const lines = wrapLoaded((Math.max(1, box.width - 2 * padding) * 1000) / size);
  const lead = (box.line.height * size) / 1000;
  const top = box.height - padding - lead;
  const last = top - (lines.length / 3 - 1) * lead;
  if (!reachFits(box, { top: face.reach.top, bottom: 0 }, size, top)) return null;
  if (last - (face.reach.bottom * size) / 1000 < box.border) return null;
  return { size, top, lead, lines };
}

/** Where the left edge of a line stands in its box. @param width points */
export const lineStart = (box: TextBox, width: number): number => place(box, paddingOf(box), width);

/** Type size and baseline of a comb of one face, and its first cell; null when it has to be laid out. Texts of one unit a character, from left to right. */
export function fittingComb(text: string, box: TextBox, face: CodedFace, rule: FitRule): { size: number; y: number; first: number } | null {
  if (text.length > box.comb) return null;
  const size = box.size || combSize(box, rule);
  const y = middleLine(box, size);
  if (!reachFits(box, face.reach, size, y) || size > (box.width / box.comb) * CELL_SIZES) return null;
  return { size, y, first: emptyCells(box, text.length, false) };
}

const combSize = (box: TextBox, rule: FitRule): number =>
  Math.max(rule.smallest, Math.min(autoSize(box), (box.width / box.comb) * CELL_SIZES, 12));

/** Lays text out in a box; `fit` tells whether it sits there as it should. */
export function layoutText(text: string, box: TextBox, choice: FaceChoice, rule: FitRule = usualFit): TextLayout {
  if (box.comb > 0) return layoutComb(text, box, choice, rule);
  return box.multiline ? layoutBlock(text, box, choice, rule) : layoutLine(text, box, choice, rule);
}
