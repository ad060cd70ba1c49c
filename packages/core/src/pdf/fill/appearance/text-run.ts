import type { ShapedGlyph, ShapingFace } from '../../../platform/ports.js';
import type { CodeTable } from '../composite-font.js';
import { graphemes } from '../../../text/graphemes.js';
import { embeddingLevel, embeddingLevels, mirrored } from './embedding-levels.js';
import type { Ink } from './ink.js';
import type { CodedFace } from './coded-face.js';
import { COMPOSES, CONTROL, INVISIBLE, JOINER, RTL, SPACE, traitsOf, unitTraits } from './unit-traits.js';

/** A bundled face opened for one template, with its number in the faces' order. */
export interface ExtraFace {
  index: number;
  name: string;
  face: ShapingFace;
  /** Codes that stand in every copy: those of the batch's characters and words. */
  table: CodeTable;
}

/** A stretch of text drawn with one face in one direction: coded ones in the order in which they are drawn. Width of 1000 to the em. */
export type TextRun = { text: string; width: number } & (
  { kind: 'coded'; face: CodedFace } | { kind: 'shaped'; extra: ExtraFace; glyphs: ShapedGlyph[] }
);

/** The faces which a field may use: its own where that is usable and the standard one nearest to it, then the bundled ones. */
export interface FaceChoice {
  coded: readonly [CodedFace, ...CodedFace[]];
  extras: readonly ExtraFace[];
}

type Drawer = CodedFace | ExtraFace;
/** Whether a character has one of some traits; none outside the basic plane has. */
const isOf = (codePoint: number, traits: number): boolean => codePoint < 0x10000 && (unitTraits(codePoint) & traits) !== 0;
export const isExtra = (drawer: Drawer): drawer is ExtraFace => 'face' in drawer;

/** The first face that draws all of a word; null: none does. */
export function drawerOf(word: string, choice: FaceChoice): Drawer | null {
  const points = Array.from(word, (char) => char.codePointAt(0)!).filter((point) => !isOf(point, JOINER));
  return (
    choice.coded.find((face) => face.measure(word) >= 0) ??
    choice.extras.find((extra) => points.every((codePoint) => extra.face.covers(codePoint))) ??
    null
  );
}

const WORDS = /\s+|[^\s]+/gu;

/** Characters that none of the faces can draw, each once. */
export function undrawable(text: string, choice: FaceChoice): string[] {
  if (choice.coded[0].measure(text) >= 0) return [];
  const missing = new Set<string>();
  for (const word of text.normalize('NFC').match(WORDS) ?? []) {
    if (drawerOf(word, choice)) continue;
    for (const char of word) {
      const codePoint = char.codePointAt(0)!;
      if (isOf(codePoint, CONTROL | JOINER | INVISIBLE)) continue;
      if (choice.coded.some((face) => face.has(codePoint)) || choice.extras.some((extra) => extra.face.covers(codePoint))) continue;
      missing.add(char);
    }
  }
  return [...missing];
}

/** A piece of text drawn by one face. */
interface Piece {
  text: string;
  drawer: Drawer;
}

function addPiece(pieces: Piece[], text: string, drawer: Drawer): void {
  const last = pieces.length > 0 ? pieces[pieces.length - 1]! : null;
  if (last && last.drawer === drawer) last.text += text;
  else pieces.push({ text, drawer });
}

/** Splits text into pieces of one face. A word keeps to one face where one can draw all of it. */
function byFace(text: string, choice: FaceChoice): Piece[] {
  const pieces: Piece[] = [];
  const { length } = text;
  for (let from = 0, to = 0; from < length; from = to) {
    const kind = unitTraits(text.charCodeAt(from)) & SPACE;
    for (to = from + 1; to < length && (unitTraits(text.charCodeAt(to)) & SPACE) === kind;) to++;
    const word = text.slice(from, to);
    const before = kind === SPACE && pieces.length > 0 ? pieces[pieces.length - 1]!.drawer : null;
    const whole = before && (isExtra(before) ? before.face.covers(0x20) : before.measure(word) >= 0) ? before : drawerOf(word, choice);
    if (whole) addPiece(pieces, word, whole);
    else {
      for (const char of word) {
        const drawer = drawerOf(char, choice);
        if (drawer) addPiece(pieces, char, drawer);
      }
    }
  }
  return pieces;
}

function makeRun({ text, drawer }: Piece, rtl: boolean): TextRun {
  if (!isExtra(drawer)) {
    // Shaping mirrors brackets by itself; coded faces need it done (UAX #9, rule L4).
    const drawn = rtl ? reversed(mirrored(text), drawer) : text;
    return { kind: 'coded', text: drawn, width: drawer.measure(drawn), face: drawer };
  }
  const glyphs = drawer.face.shape(text, rtl ? 'rtl' : 'ltr');
  const advance = glyphs.reduce((sum, glyph) => sum + glyph.advance, 0);
  return { kind: 'shaped', text, width: (advance * 1000) / drawer.face.unitsPerEm, extra: drawer, glyphs };
}

/** A text from its end, each letter with its marks; a mirrored character that the face lacks is left as it was. */
function reversed(text: string, face: CodedFace): string {
  const chars = graphemes(text).reverse();
  return chars.map((char) => (face.measure(char) >= 0 ? char : mirrored(char))).join('');
}

/** Words that are remembered in each direction: names and words of a batch come again and again. */
const MOST_REMEMBERED = 20_000;
const remembered = new WeakMap<FaceChoice, { ltr: Map<string, TextRun[]>; rtl: Map<string, TextRun[]> }>();

/** What is remembered of a choice's words, with the runs of each. */
function memoryOf(choice: FaceChoice, rtl: boolean): Map<string, TextRun[]> {
  let both = remembered.get(choice);
  if (!both) remembered.set(choice, (both = { ltr: new Map(), rtl: new Map() }));
  const memory = rtl ? both.rtl : both.ltr;
  if (memory.size >= MOST_REMEMBERED) memory.clear();
  return memory;
}

/** Adds a run after those before it; coded ones of one face become one. */
function addRun(runs: TextRun[], run: TextRun, rtl: boolean): void {
  const last = runs.length > 0 ? runs[runs.length - 1]! : null;
  if (run.kind === 'coded' && last?.kind === 'coded' && last.face === run.face)
    runs[runs.length - 1] = { ...run, text: rtl ? run.text + last.text : last.text + run.text, width: last.width + run.width };
  else runs.push(run);
}

/** Runs of a text in one direction, in the order of the text: word by word, each with the spaces after it. */
function runsOf(text: string, choice: FaceChoice, rtl: boolean): TextRun[] {
  const memory = memoryOf(choice, rtl);
  const face = choice.coded[0];
  const runs: TextRun[] = [];
  const { length } = text;
  for (let from = 0, to = 0; from < length; from = to) {
    while (to < length && (unitTraits(text.charCodeAt(to)) & SPACE) === 0) to++;
    while (to < length && (unitTraits(text.charCodeAt(to)) & SPACE) !== 0) to++;
    const word = from === 0 && to === length ? text : text.slice(from, to);
    if (face.measure(word) >= 0) {
      addRun(runs, makeRun({ text: word, drawer: face }, rtl), rtl);
      continue;
    }
    let known = memory.get(word);
    if (!known) memory.set(word, (known = byFace(word, choice).map((piece) => makeRun(piece, rtl))));
    for (const run of known) addRun(runs, run, rtl);
  }
  return runs;
}

/** A stretch of one level of embedding. */
interface Stretch {
  text: string;
  level: number;
}

/** @param levels of each UTF-16 unit of the text */
function stretchesOf(text: string, levels: Uint8Array): Stretch[] {
  const stretches: Stretch[] = [];
  const { length } = text;
  for (let from = 0, to = 0; from < length; from = to) {
    const level = levels[from]!;
    for (to = from + 1; to < length && levels[to] === level;) to++;
    stretches.push({ text: text.slice(from, to), level });
  }
  return stretches;
}

const stretchRuns = ({ text, level }: Stretch, choice: FaceChoice): TextRun[] =>
  level % 2 === 0 ? runsOf(text, choice, false) : runsOf(text, choice, true).reverse();

/**
 * Runs of one line in the order in which they are drawn, left to right (UAX #9).
 * Characters that no face can draw are left out; `undrawable` names them.
 */
export function shapeLine(line: string, choice: FaceChoice): TextRun[] {
  const face = choice.coded[0];
  const width = face.measure(line);
  if (width >= 0) return [{ kind: 'coded', text: line, width, face }];
  const traits = traitsOf(line);
  let text = line;
  if ((traits & CONTROL) !== 0) text = text.replace(/[\u0000-\u001f\u007f]/g, ' ');
  if ((traits & COMPOSES) !== 0) text = text.normalize('NFC');
  const visible = (part: string): string =>
    (traits & INVISIBLE) === 0 ? part : Array.from(part, (char) => (isOf(char.codePointAt(0)!, INVISIBLE) ? '' : char)).join('');
  if ((traits & RTL) === 0) return runsOf(visible(text), choice, false);
  const runs: TextRun[] = [];
  for (const stretch of reorder(stretchesOf(text, embeddingLevels(text))))
    for (const run of stretchRuns({ text: visible(stretch.text), level: stretch.level }, choice)) runs.push(run);
  return runs;
}

/** UAX #9, rule L2, over stretches of one level. */
function reorder<T extends { level: number }>(stretches: T[]): T[] {
  const result = [...stretches];
  const highest = Math.max(0, ...result.map((stretch) => stretch.level));
  for (let level = highest; level >= 1; level--) {
    for (let from = 0; from < result.length; from++) {
      if (result[from]!.level < level) continue;
      let to = from;
      while (to + 1 < result.length && result[to + 1]!.level >= level) to++;
      result.splice(from, to - from + 1, ...result.slice(from, to + 1).reverse());
      from = to;
    }
  }
  return result;
}

/** Whether a text is one from right to left: its first letter is (UAX #9, P2, P3). */
export const isRightToLeft = (text: string): boolean => (traitsOf(text) & RTL) !== 0 && embeddingLevel(text) % 2 === 1;

/** Characters in the order in which they stand from left to right (UAX #9, rule L2). */
export function visualOrder(chars: string[]): string[] {
  const text = chars.join('');
  if ((traitsOf(text) & RTL) === 0) return chars;
  const levels = embeddingLevels(text);
  let at = 0;
  const placed = chars.map((char) => {
    const level = levels[at]!;
    at += char.length;
    return { char: level % 2 === 1 ? mirrored(char) : char, level };
  });
  return reorder(placed).map(({ char }) => char);
}

/** By the shaped glyphs, which are remembered and come again with the same words. */
const inks = new WeakMap<readonly ShapedGlyph[], Ink>();

function shapedInk(glyphs: readonly ShapedGlyph[], face: ShapingFace): Ink {
  let [top, bottom] = [0, 0];
  for (const { glyph, dy } of glyphs) {
    const ink = face.ink(glyph);
    if (ink.top === 0 && ink.bottom === 0) continue;
    top = Math.max(top, ink.top + dy);
    bottom = Math.max(bottom, ink.bottom - dy);
  }
  return { top: (top * 1000) / face.unitsPerEm, bottom: (bottom * 1000) / face.unitsPerEm };
}

/** How high and low runs are drawn, of 1000 to the em. */
export function inkOf(runs: readonly TextRun[]): Ink {
  let [top, bottom] = [0, 0];
  for (const run of runs) {
    let ink = run.kind === 'coded' ? run.face.ink(run.text) : inks.get(run.glyphs);
    if (!ink && run.kind === 'shaped') inks.set(run.glyphs, (ink = shapedInk(run.glyphs, run.extra.face)));
    if (ink!.top > top) top = ink!.top;
    if (ink!.bottom > bottom) bottom = ink!.bottom;
  }
  return { top, bottom };
}

export function runsWidth(runs: readonly TextRun[]): number {
  let width = 0;
  for (const run of runs) width += run.width;
  return width;
}
