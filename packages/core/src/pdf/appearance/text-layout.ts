import type { Fit } from '../value.js';
import type { CodedFace } from './coded-face.js';
import { advances, loadedString } from './coded-face.js';
import type { FaceChoice, TextRun } from './text-run.js';
import { runsWidth, shapeLine } from './text-run.js';

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
}

/** What is done with text that does not fit its box at the size the form asks for. Each is told by `Fit` all the same. */
export type TooLong =
  /** Smaller type, down to `smallest`; what is still too long is clipped by the box. */
  | 'shrink'
  /** The size stays and the box clips. */
  | 'clip'
  /** Smaller type, then further lines, where the box is high enough for them. */
  | 'wrap'
  /** Smaller type, then only as many characters as fit. */
  | 'cut';

export interface FitRule {
  tooLong: TooLong;
  /** Smallest type size, points. */
  smallest: number;
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
  /** Each line is one character in its cell. */
  comb?: boolean;
}

/** Largest automatic size of a multi-line field, points; common practice, no source. */
const LARGEST_AUTO_MULTILINE = 12;
/** Line height over ascender less descender; common practice, no source. */
const LEADING = 1.1;
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

/** Words of each paragraph with their widths, measured once for all sizes. */
function atomsOf(text: string, choice: FaceChoice): Atom[][] {
  const space = widthOf(' ', choice);
  return (/[\r\n\u2028\u2029]/.test(text) ? text.split(/\r\n|\r|\n|\u2028|\u2029/) : [text]).map((paragraph) => {
    const atoms: Atom[] = [];
    for (let from = 0; from < paragraph.length;) {
      let end = from;
      while (end < paragraph.length && !isBlank(paragraph, end)) end++;
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
        const chars = [...text.trimEnd()];
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

function layoutComb(text: string, box: TextBox, choice: FaceChoice, rule: FitRule): TextLayout {
  const cell = box.width / box.comb;
  const { ascender, descender } = choice.coded[0];
  const size = box.size || combSize(box, choice.coded[0], rule);
  const chars = [...text];
  const first = box.quadding === 0 ? 0 : box.quadding === 1 ? Math.floor((box.comb - chars.length) / 2) : box.comb - chars.length;
  const y = (box.height - ((ascender + descender) * size) / 1000) / 2;
  const lines = chars.slice(0, box.comb).map((char, index) => {
    const runs = shapeLine(char, choice);
    return { x: (Math.max(0, first) + index + 0.5) * cell - (runsWidth(runs) * size) / 2000, y, runs };
  });
  return { size, lines, fit: chars.length > box.comb ? 'overflows' : 'fits', comb: true };
}

/** As many characters as fit into `room` (of 1000 to the em). */
function cutToFit(text: string, choice: FaceChoice, room: number): string {
  const chars = [...text];
  let [low, high] = [0, chars.length];
  while (low < high) {
    const middle = Math.ceil((low + high) / 2);
    if (widthOf(chars.slice(0, middle).join(''), choice) <= room) low = middle;
    else high = middle - 1;
  }
  return chars.slice(0, low).join('');
}

function layoutLine(text: string, box: TextBox, choice: FaceChoice, rule: FitRule): TextLayout {
  const padding = Math.max(2, 2 * box.border);
  const line = /[\r\n]/.test(text) ? text.replace(/\r\n|\r|\n/g, ' ') : text;
  let runs = shapeLine(line, choice);
  let width = runsWidth(runs) / 1000;
  const { ascender, descender } = choice.coded[0];
  const room = Math.max(1, box.width - 2 * padding);
  const tallest = Math.max(rule.smallest, ((box.height - 2 * box.border) * 1000) / (ascender - descender));
  const wanted = box.size || Math.min(tallest, Math.max(12, tallest * 0.8));
  const mayShrink = rule.tooLong !== 'clip' || box.size === 0;
  let size = wanted;
  if (width * wanted > room && mayShrink) size = Math.max(Math.min(rule.smallest, wanted), Math.floor((room / width) * 20) / 20);
  const fits = width * size <= room + 0.01;
  if (!fits && rule.tooLong === 'wrap') return layoutBlock(text, { ...box, multiline: true }, choice, rule);
  if (!fits && rule.tooLong === 'cut') {
    runs = shapeLine(cutToFit(line, choice, (room * 1000) / size), choice);
    width = runsWidth(runs) / 1000;
  }
  const isSmall = box.size > 0 ? size < box.size : size < Math.min(TIGHT_AUTO, wanted);
  const y = (box.height - ((ascender + descender) * size) / 1000) / 2;
  const x = width * size <= room + 0.01 ? place(box, padding, width * size) : padding;
  return { size, lines: [{ x, y, runs }], fit: !fits ? 'overflows' : isSmall ? 'tight' : 'fits' };
}

/** Sizes to try, from the wanted one down to the smallest. */
function* sizesFrom(wanted: number, smallest: number): Generator<number> {
  yield wanted;
  for (let size = Math.ceil(wanted * 2) / 2 - 0.5; size >= smallest; size -= 0.5) yield size;
}

function layoutBlock(text: string, box: TextBox, choice: FaceChoice, rule: FitRule): TextLayout {
  const padding = Math.max(2, 2 * box.border);
  const em = (choice.coded[0].ascender - choice.coded[0].descender) / 1000;
  const room = Math.max(1, box.width - 2 * padding);
  const tall = Math.max(1, box.height - 2 * Math.max(1, box.border));
  const wanted = box.size || LARGEST_AUTO_MULTILINE;
  const mayShrink = rule.tooLong !== 'clip' || box.size === 0;
  const paragraphs = atomsOf(text, choice);
  let chosen = { size: wanted, lines: [] as string[], fits: false };
  for (const size of sizesFrom(wanted, mayShrink ? rule.smallest : Infinity)) {
    const lines = wrap(paragraphs, choice, (room * 1000) / size);
    chosen = { size, lines, fits: ((lines.length - 1) * LEADING + 1) * em * size <= tall + 0.01 };
    if (chosen.fits) break;
  }
  const lead = em * LEADING * chosen.size;
  const most = chosen.fits || rule.tooLong !== 'cut' ? chosen.lines.length : Math.max(1, Math.floor((tall - em * chosen.size) / lead) + 1);
  const top = box.height - Math.max(1, box.border) - (choice.coded[0].ascender * chosen.size) / 1000;
  const lines = chosen.lines.slice(0, most).map((line, index) => {
    const runs = shapeLine(line, choice);
    return { x: place(box, padding, (runsWidth(runs) * chosen.size) / 1000), y: top - index * lead, runs };
  });
  const isSmall = chosen.size < (box.size || TIGHT_AUTO);
  return { size: chosen.size, lines, fit: !chosen.fits ? 'overflows' : isSmall ? 'tight' : 'fits' };
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
  const padding = Math.max(2, 2 * box.border);
  const lines = wrapLoaded((Math.max(1, box.width - 2 * padding) * 1000) / size);
  const em = (face.ascender - face.descender) / 1000;
  const tall = Math.max(1, box.height - 2 * Math.max(1, box.border));
  if (((lines.length / 3 - 1) * LEADING + 1) * em * size > tall + 0.01) return null;
  return { size, top: box.height - Math.max(1, box.border) - (face.ascender * size) / 1000, lead: em * LEADING * size, lines };
}

/** Where the left edge of a line stands in its box. @param width points */
export const lineStart = (box: TextBox, width: number): number => place(box, Math.max(2, 2 * box.border), width);

/** Type size and baseline of a comb of one face, and its first cell; null when there are more characters than cells. */
export function fittingComb(text: string, box: TextBox, face: CodedFace, rule: FitRule): { size: number; y: number; first: number } | null {
  if (text.length > box.comb) return null;
  const size = box.size || combSize(box, face, rule);
  const first = box.quadding === 0 ? 0 : box.quadding === 1 ? Math.floor((box.comb - text.length) / 2) : box.comb - text.length;
  return { size, y: (box.height - ((face.ascender + face.descender) * size) / 1000) / 2, first };
}

const combSize = (box: TextBox, { ascender, descender }: CodedFace, rule: FitRule): number =>
  Math.max(rule.smallest, Math.min(((box.height - 2 * box.border) * 1000) / (ascender - descender), (box.width / box.comb) * 1.1, 12));

/** Lays text out in a box; `fit` tells whether it sits there as it should. */
export function layoutText(text: string, box: TextBox, choice: FaceChoice, rule: FitRule = usualFit): TextLayout {
  if (box.comb > 0) return layoutComb(text, box, choice, rule);
  return box.multiline ? layoutBlock(text, box, choice, rule) : layoutLine(text, box, choice, rule);
}
