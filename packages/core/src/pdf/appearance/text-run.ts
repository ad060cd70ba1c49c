import bidiFactory from 'bidi-js';
import type { ShapedGlyph, ShapingFace } from '../../platform/ports.js';
import type { StandardFace } from './standard-face.js';
import { winAnsiCode } from './standard-face.js';

/** A bundled face opened for one template, with its number in the faces' order. */
export interface ExtraFace {
  index: number;
  name: string;
  face: ShapingFace;
}

/** A stretch of text drawn with one face in one direction. Width of 1000 to the em. */
export type TextRun = { text: string; width: number } & (
  { kind: 'standard'; face: StandardFace; codes: number[] } | { kind: 'extra'; extra: ExtraFace; glyphs: ShapedGlyph[]; rtl: boolean }
);

/** The faces which a field may use: the standard one nearest to its own font, then the bundled ones. */
export interface FaceChoice {
  standard: StandardFace;
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
const isRtlText = (text: string): boolean => /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff]/.test(text);

/** Characters that none of the faces can draw, each once. */
export function undrawable(text: string, choice: FaceChoice): string[] {
  const missing = new Set<string>();
  for (const char of text) {
    const codePoint = char.codePointAt(0)!;
    if (codePoint < 0x20 || isJoiner(codePoint) || winAnsiCode(codePoint) !== undefined) continue;
    if (!choice.extras.some((extra) => extra.face.covers(codePoint))) missing.add(char);
  }
  return [...missing];
}

type Drawer = 'standard' | ExtraFace;

function drawerOf(word: string, choice: FaceChoice): Drawer | null {
  let standard = true;
  const points: number[] = [];
  for (const char of word) {
    const codePoint = char.codePointAt(0)!;
    if (winAnsiCode(codePoint) === undefined) standard = false;
    if (!isJoiner(codePoint)) points.push(codePoint);
  }
  if (standard) return 'standard';
  return choice.extras.find((extra) => points.every((codePoint) => extra.face.covers(codePoint))) ?? null;
}

/** Splits text into pieces of one face. A word keeps to one face where one can draw all of it. */
function byFace(text: string, choice: FaceChoice): { text: string; drawer: Drawer }[] {
  const pieces: { text: string; drawer: Drawer }[] = [];
  const push = (piece: string, drawer: Drawer): void => {
    const last = pieces.at(-1);
    if (last && last.drawer === drawer) last.text += piece;
    else pieces.push({ text: piece, drawer });
  };
  for (const word of text.match(/\s+|[^\s]+/gu) ?? []) {
    const whole = /^\s/.test(word) ? (pieces.at(-1)?.drawer ?? 'standard') : drawerOf(word, choice);
    if (whole) push(word, whole);
    else for (const char of word) push(drawerOf(char, choice) ? char : '', drawerOf(char, choice) ?? pieces.at(-1)?.drawer ?? 'standard');
  }
  return pieces.filter((piece) => piece.text);
}

function makeRun(text: string, drawer: Drawer, choice: FaceChoice, rtl: boolean): TextRun {
  if (drawer === 'standard') {
    const codes: number[] = [];
    let width = 0;
    for (const char of rtl ? [...text].reverse().join('') : text) {
      const code = winAnsiCode(char.codePointAt(0)!) ?? 32;
      codes.push(code);
      width += choice.standard.widths[code]!;
    }
    return { kind: 'standard', text, width, face: choice.standard, codes };
  }
  const glyphs = drawer.face.shape(text, rtl ? 'rtl' : 'ltr');
  const scale = 1000 / drawer.face.unitsPerEm;
  return { kind: 'extra', text, width: glyphs.reduce((sum, glyph) => sum + glyph.advance, 0) * scale, extra: drawer, glyphs, rtl };
}

/**
 * Runs of one line in the order in which they are drawn, left to right (UAX #9).
 * Characters that no face can draw are left out; `undrawable` names them.
 */
export function shapeLine(line: string, choice: FaceChoice): TextRun[] {
  const text = line.replace(/[\u0000-\u001f\u007f]/g, ' ');
  if (!isRtlText(text)) return byFace(text, choice).map((piece) => makeRun(piece.text, piece.drawer, choice, false));
  const { levels } = bidi.getEmbeddingLevels(text);
  const stretches: { text: string; level: number }[] = [];
  for (let index = 0; index < text.length; index++) {
    const level = levels[index]!;
    const last = stretches.at(-1);
    if (last && last.level === level) last.text += text[index];
    else stretches.push({ text: text[index]!, level });
  }
  const ordered = reorder(stretches);
  return ordered.flatMap(({ text: stretch, level }) => {
    const rtl = level % 2 === 1;
    const mirrored = rtl ? [...stretch].map((char) => bidi.getMirroredCharacter(char) ?? char).join('') : stretch;
    const isShaped = byFace(stretch, choice).every((piece) => piece.drawer !== 'standard');
    const runs = byFace(isShaped ? stretch : mirrored, choice).map((piece) => makeRun(piece.text, piece.drawer, choice, rtl));
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

export const runsWidth = (runs: readonly TextRun[]): number => runs.reduce((sum, run) => sum + run.width, 0);
