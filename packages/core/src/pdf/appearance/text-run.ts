import bidiFactory from 'bidi-js';
import type { ShapedGlyph, ShapingFace } from '../../platform/ports.js';
import type { CodeTable } from '../composite-font.js';
import type { CodedFace } from './coded-face.js';

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

/** The package's types do not say that the module is the function. */
const bidi = (
  bidiFactory as unknown as () => {
    getEmbeddingLevels(text: string): { levels: Uint8Array };
    getMirroredCharacter(char: string): string | null;
  }
)();
const isJoiner = (codePoint: number): boolean =>
  codePoint === 0x200c || codePoint === 0x200d || (codePoint >= 0xfe00 && codePoint <= 0xfe0f);
/** Direction marks, isolates and embeddings (UAX #9, 2), the byte order mark and the soft hyphen's kin: they order text and are never drawn. */
const isInvisible = (codePoint: number): boolean =>
  (codePoint >= 0x200b && codePoint <= 0x200f) ||
  (codePoint >= 0x202a && codePoint <= 0x202e) ||
  (codePoint >= 0x2060 && codePoint <= 0x2069) ||
  codePoint === 0x061c ||
  codePoint === 0xfeff;
const INVISIBLE = /[\u200b\u200e\u200f\u202a-\u202e\u2060-\u2069\u061c\ufeff]/g;
const isRtlText = (text: string): boolean => /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff\u200f\u202b\u202e\u2067]/.test(text);

type Drawer = CodedFace | ExtraFace;
const isExtra = (drawer: Drawer): drawer is ExtraFace => 'face' in drawer;

/** Words and shaped pieces that are remembered: names and words of a batch come again and again. */
const MOST_REMEMBERED = 20_000;
const drawers = new WeakMap<FaceChoice, Map<string, Drawer | null>>();

/** The first face that draws all of a word; null: none does. */
function drawerOf(word: string, choice: FaceChoice): Drawer | null {
  let known = drawers.get(choice);
  if (!known) drawers.set(choice, (known = new Map()));
  const found = known.get(word);
  if (found !== undefined) return found;
  const points = Array.from(word, (char) => char.codePointAt(0)!).filter((point) => !isJoiner(point));
  const drawer =
    choice.coded.find((face) => face.measure(word) >= 0) ??
    choice.extras.find((extra) => points.every((codePoint) => extra.face.covers(codePoint))) ??
    null;
  if (known.size >= MOST_REMEMBERED) known.clear();
  known.set(word, drawer);
  return drawer;
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
      if (codePoint < 0x20 || codePoint === 0x7f || isJoiner(codePoint) || isInvisible(codePoint)) continue;
      if (choice.coded.some((face) => face.has(codePoint)) || choice.extras.some((extra) => extra.face.covers(codePoint))) continue;
      missing.add(char);
    }
  }
  return [...missing];
}

/** Splits text into pieces of one face. A word keeps to one face where one can draw all of it. */
function byFace(text: string, choice: FaceChoice): { text: string; drawer: Drawer }[] {
  const pieces: { text: string; drawer: Drawer }[] = [];
  const push = (piece: string, drawer: Drawer): void => {
    const last = pieces.at(-1);
    if (last && last.drawer === drawer) last.text += piece;
    else pieces.push({ text: piece, drawer });
  };
  for (const word of text.match(WORDS) ?? []) {
    const before = pieces.at(-1)?.drawer;
    const isSpace = /^\s/.test(word);
    const whole =
      isSpace && before && (isExtra(before) ? before.face.covers(0x20) : before.measure(word) >= 0) ? before : drawerOf(word, choice);
    if (whole) push(word, whole);
    else {
      for (const char of word) {
        const drawer = drawerOf(char, choice);
        if (drawer) push(char, drawer);
      }
    }
  }
  return pieces;
}

/** Glyphs with the sum of their advances in font units. */
interface Shape {
  glyphs: ShapedGlyph[];
  advance: number;
}
const shapes = new WeakMap<ShapingFace, Map<string, Shape>>();

function shape(face: ShapingFace, text: string, rtl: boolean): Shape {
  let known = shapes.get(face);
  if (!known) shapes.set(face, (known = new Map()));
  const key = rtl ? `\u202e${text}` : text;
  let found = known.get(key);
  if (!found) {
    if (known.size >= MOST_REMEMBERED) known.clear();
    const glyphs = face.shape(text, rtl ? 'rtl' : 'ltr');
    known.set(key, (found = { glyphs, advance: glyphs.reduce((sum, glyph) => sum + glyph.advance, 0) }));
  }
  return found;
}

function makeRun(text: string, drawer: Drawer, rtl: boolean): TextRun {
  if (!isExtra(drawer)) {
    const drawn = rtl ? [...text].reverse().join('') : text;
    return { kind: 'coded', text: drawn, width: drawer.measure(drawn), face: drawer };
  }
  const { glyphs, advance } = shape(drawer.face, text, rtl);
  return { kind: 'shaped', text, width: (advance * 1000) / drawer.face.unitsPerEm, extra: drawer, glyphs };
}

/**
 * Runs of one line in the order in which they are drawn, left to right (UAX #9).
 * Characters that no face can draw are left out; `undrawable` names them.
 */
export function shapeLine(line: string, choice: FaceChoice): TextRun[] {
  const face = choice.coded[0];
  const width = face.measure(line);
  if (width >= 0) return [{ kind: 'coded', text: line, width, face }];
  const text = line.replace(/[\u0000-\u001f\u007f]/g, ' ').normalize('NFC');
  if (!isRtlText(text)) return byFace(text.replace(INVISIBLE, ''), choice).map((piece) => makeRun(piece.text, piece.drawer, false));
  const { levels } = bidi.getEmbeddingLevels(text);
  const stretches: { text: string; level: number }[] = [];
  for (let index = 0; index < text.length; index++) {
    const level = levels[index]!;
    const last = stretches.at(-1);
    if (last && last.level === level) last.text += text[index];
    else stretches.push({ text: text[index]!, level });
  }
  return reorder(stretches).flatMap(({ text: whole, level }) => {
    const stretch = whole.replace(INVISIBLE, '');
    const rtl = level % 2 === 1;
    const isShaped = byFace(stretch, choice).every(({ drawer }) => isExtra(drawer));
    // Shaping mirrors brackets by itself; coded faces need it done (UAX #9, rule L4).
    const mirrored = rtl && !isShaped ? Array.from(stretch, (char) => bidi.getMirroredCharacter(char) ?? char).join('') : stretch;
    const runs = byFace(mirrored, choice).map((piece) => makeRun(piece.text, piece.drawer, rtl));
    return rtl ? runs.reverse() : runs;
  });
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

export function runsWidth(runs: readonly TextRun[]): number {
  let width = 0;
  for (const run of runs) width += run.width;
  return width;
}
