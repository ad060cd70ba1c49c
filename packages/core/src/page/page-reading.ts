import type { PageMarks, Segment, Shape, TextPiece } from './page-marks.js';
import type { Rule } from './cells.js';
import type { WritingPlace } from './writing-places.js';
import { takePlaces } from './writing-places.js';

/** A box in an upright space, points: left, bottom, right, top. */
export type Box = readonly [left: number, bottom: number, right: number, top: number];
export type Direction = TextPiece['direction'];

/** Words that stand together on one line. */
export interface Phrase {
  text: string;
  left: number;
  right: number;
  /** Of its baseline. */
  base: number;
  size: number;
  isBold: boolean;
}

/** A page as a person reads it whose head is where text of one direction has its top: phrases from the top down, and the lines between them. */
export interface PageReading {
  direction: Direction;
  phrases: Phrase[];
  level: Rule[];
  upright: Rule[];
  /** Level lines as they were drawn, before those that go on in one another were joined. */
  strokes: Rule[];
  /** Boxes and circles, in the order of drawing. */
  shapes: Shape[];
  pictures: Box[];
  /** Places to write on or to tick that are printed with characters. */
  places: WritingPlace[];
  /** The type size that most of the text has. */
  bodySize: number;
  /** Whether the page is written from right to left. */
  isRightToLeft: boolean;
}

/** Pieces of one line whose gap is less than this many times the type size belong together. */
const WORD_GAP = 0.9;
/** A gap that is wider than between words, and behind which a capital begins something else. */
const WIDE_GAP = 0.6;

/** A point as it lies for who holds the page so that text of a direction is upright. */
function upright(x: number, y: number, direction: Direction): [number, number] {
  if (direction === 90) return [y, -x];
  if (direction === 180) return [-x, -y];
  return direction === 270 ? [-y, x] : [x, y];
}

/** A box of the page's own space in the space of a reading. */
export function uprightBox([left, bottom, right, top]: Box, direction: Direction): Box {
  const [a, b] = upright(left, bottom, direction);
  const [c, d] = upright(right, top, direction);
  return [Math.min(a, c), Math.min(b, d), Math.max(a, c), Math.max(b, d)];
}

const RIGHT_TO_LEFT = /[\u0590-\u08ff\ufb1d-\ufdff\ufe70-\ufeff]/;
/** Text that was shown from its visual left on, in the order in which it is read. */
const inReadingOrder = (text: string): string => (RIGHT_TO_LEFT.test(text) ? [...text].reverse().join('') : text);

type Placed = TextPiece & { x: number; y: number };

/** The pieces of one direction as they lie for who reads them. */
const placedPieces = (pieces: readonly TextPiece[], direction: Direction): Placed[] =>
  pieces
    .filter(({ size, direction: own }) => size > 0 && own === direction)
    .map((piece) => {
      const [x, y] = upright(piece.x, piece.y, direction);
      return { ...piece, x, y };
    });

/** Joins pieces to phrases; an upright line or a place to write on between two of them keeps them apart. */
function phrasesOf(pieces: readonly Placed[], lines: readonly Rule[], places: readonly WritingPlace[]): Phrase[] {
  const placed = [...pieces].sort((a, b) => b.y - a.y || a.x - b.x);
  const rows: (typeof placed)[] = [];
  for (const piece of placed) {
    const row = rows.at(-1);
    if (row && Math.abs(row[0]!.y - piece.y) < Math.max(1, piece.size * 0.25)) row.push(piece);
    else rows.push([piece]);
  }
  return rows.flatMap((row) => {
    const phrases: (Phrase & { parts: { text: string; gap: boolean }[] })[] = [];
    for (const { text, x, y, width, size, isBold } of row.sort((a, b) => a.x - b.x)) {
      const last = phrases.at(-1);
      const gap = last ? x - last.right : Infinity;
      const isApart =
        last !== undefined &&
        gap > 1 &&
        (lines.some(({ at, from, to }) => at > last.right - 1 && at < x + 1 && from < y + size * 0.5 && to > y) ||
          places.some(({ left, right, base }) => Math.abs(base - y) < size * 0.5 && left > last.right - 2 && right < x + 2));
      const isNew = gap > WIDE_GAP * size && /^\p{Lu}/u.test(text.trimStart()) && !/\p{Lu}$/u.test(last?.parts.at(-1)?.text ?? '');
      if (last && gap < WORD_GAP * size && gap > -size && !isApart && !isNew) {
        last.parts.push({ text, gap: gap > size * 0.12 });
        last.right = Math.max(last.right, x + width);
        last.size = Math.max(last.size, size);
      } else phrases.push({ text: '', parts: [{ text, gap: false }], left: x, right: x + width, base: y, size, isBold });
    }
    return phrases.map(({ parts, ...phrase }) => {
      const isBackwards = parts.filter(({ text }) => RIGHT_TO_LEFT.test(text)).length > parts.length / 2;
      const inOrder = isBackwards ? [...parts].reverse() : parts;
      const joined = inOrder.map(({ text, gap }, at) => {
        const next = isBackwards ? inOrder[at - 1]?.gap : gap;
        return (at > 0 && next ? ' ' : '') + (isBackwards ? inReadingOrder(text) : text);
      });
      return { ...phrase, text: joined.join('').replace(/\s+/g, ' ').trim() };
    });
  });
}

/** Lines that lie on each other or go on in one another, as one. */
function joined(lines: readonly Rule[]): Rule[] {
  const sorted = [...lines].sort((a, b) => a.at - b.at);
  const found: Rule[] = [];
  for (let from = 0; from < sorted.length;) {
    let to = from + 1;
    while (to < sorted.length && sorted[to]!.at - sorted[from]!.at < 1.5) to++;
    let last: Rule | null = null;
    for (const line of sorted.slice(from, to).sort((a, b) => a.from - b.from)) {
      if (last && line.from <= last.to + 2) last.to = Math.max(last.to, line.to);
      else found.push((last = { ...line }));
    }
    from = to;
  }
  return found;
}

/** The direction in which most letters of a page run. */
export function mainDirection({ pieces }: PageMarks): Direction {
  const letters = new Map<Direction, number>([[0, 0]]);
  for (const { text, direction } of pieces) letters.set(direction, (letters.get(direction) ?? 0) + text.length);
  return [...letters].sort((a, b) => b[1] - a[1])[0]![0];
}

/** Reads a page for who holds it so that text of a direction is upright. */
export function readPage({ pieces, segments, shapes, pictures }: PageMarks, direction: Direction): PageReading {
  const lines = segments.map(({ x1, y1, x2, y2 }): Segment => {
    const [left, bottom, right, top] = uprightBox([x1, y1, x2, y2], direction);
    return { x1: left, y1: bottom, x2: right, y2: top };
  });
  const strokes = lines.filter(({ x1, x2, y1, y2 }) => x2 - x1 > y2 - y1).map(({ x1, x2, y1 }) => ({ at: y1, from: x1, to: x2 }));
  const upward = joined(lines.filter(({ x1, x2, y1, y2 }) => x2 - x1 <= y2 - y1).map(({ x1, y1, y2 }) => ({ at: x1, from: y1, to: y2 })));
  const { text, places } = takePlaces(placedPieces(pieces, direction));
  const phrases = phrasesOf(text, upward, places);
  const sizes = new Map<number, number>();
  let backwards = 0;
  let all = 0;
  for (const { text, size } of phrases) {
    sizes.set(Math.round(size * 2) / 2, (sizes.get(Math.round(size * 2) / 2) ?? 0) + text.length);
    all += text.length;
    if (RIGHT_TO_LEFT.test(text)) backwards += text.length;
  }
  const bodySize = [...sizes].sort((a, b) => b[1] - a[1])[0]?.[0] ?? 10;
  return {
    direction,
    phrases,
    level: joined(strokes),
    upright: upward,
    strokes,
    shapes: shapes.map((shape) => ({ ...shape, box: uprightBox(shape.box, direction) })),
    pictures: pictures.map((box) => uprightBox(box, direction)),
    places,
    bodySize,
    isRightToLeft: backwards > all / 2,
  };
}
