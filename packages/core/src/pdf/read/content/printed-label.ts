import type { TextPiece } from './page-text.js';
import { trimEnds } from '../../../text/trim.js';

/** Words that stand together on one line. */
interface Phrase {
  text: string;
  left: number;
  right: number;
  base: number;
  size: number;
}

/** Pieces of one line whose gap is less than this many times the type size belong together. */
const WORD_GAP = 0.9;
/** How far a label may stand from its box, points; common practice, no source. */
const FARTHEST_BESIDE = 160;
const FARTHEST_ABOVE = 22;
const LONGEST = 80;

/** Joins the pieces of a page to phrases. */
export function phrasesOf(pieces: readonly TextPiece[]): Phrase[] {
  const sorted = [...pieces].filter(({ size }) => size > 0).sort((a, b) => b.y - a.y || a.x - b.x);
  const lines: TextPiece[][] = [];
  for (const piece of sorted) {
    const line = lines.at(-1);
    if (line && Math.abs(line[0]!.y - piece.y) < Math.max(1, piece.size * 0.25)) line.push(piece);
    else lines.push([piece]);
  }
  return lines.flatMap((line) => {
    const phrases: Phrase[] = [];
    for (const { text, x, y, width, size } of line.sort((a, b) => a.x - b.x)) {
      const last = phrases.at(-1);
      const gap = last ? x - last.right : Infinity;
      if (last && gap < WORD_GAP * size && gap > -size) {
        last.text += (gap > size * 0.12 && !/\s$/.test(last.text) ? ' ' : '') + text;
        last.right = Math.max(last.right, x + width);
      } else phrases.push({ text, left: x, right: x + width, base: y, size });
    }
    return phrases;
  });
}

const cleaned = (text: string): string | null => {
  const line = text.replace(/[_.…\u2026]{3,}/g, ' ').replace(/\s+/g, ' ');
  const label = trimEnds(line, /[\s:*]/).replace(/^[\s:*•\-–—]+/, '');
  return label && /[\p{L}\p{N}]/u.test(label) ? (label.length > LONGEST ? `${label.slice(0, LONGEST - 1).trimEnd()}…` : label) : null;
};

type Rect = readonly [left: number, bottom: number, right: number, top: number];

/** Text of this size and more is a heading, points; common practice, no source. */
const HEADING = 13;

/**
 * The text that tells what a box is for: for tick boxes what stands right of it, for others what stands above it at its left edge or left of it
 * on its line, whichever is nearer. Text beyond another box belongs to that one.
 * @param boxes of all fields on the page, among them possibly the box itself
 */
export function printedLabel(phrases: readonly Phrase[], box: Rect, boxes: readonly Rect[], isTick: boolean): string | null {
  const [left, bottom, right, top] = box;
  const others = boxes.filter((other) => other !== box);
  const beside = others.filter((other) => other[1] < top && other[3] > bottom);
  const isBetween = (from: number, to: number): boolean => beside.some((other) => other[0] < to - 1 && other[2] > from + 1);
  let best: { text: string; distance: number } | null = null;
  const offer = (phrase: Phrase, distance: number): void => {
    const text = cleaned(phrase.text);
    if (text && (!best || distance < best.distance)) best = { text, distance };
  };
  for (const phrase of phrases) {
    const isOnLine = phrase.base + phrase.size * 0.7 > bottom && phrase.base < top;
    const gap = phrase.left - right;
    if (isTick && isOnLine && gap > -3 && gap < FARTHEST_BESIDE / 2 && !isBetween(right, phrase.left)) offer(phrase, gap / 2);
    const before = left - phrase.right;
    if (isOnLine && before > -3 && before < FARTHEST_BESIDE && !isBetween(phrase.right, left))
      offer(phrase, Math.max(0, before) + (isTick ? 12 : 0));
    const over = phrase.base - top;
    const isAbove =
      over > -phrase.size * 0.4 && over < FARTHEST_ABOVE && phrase.left < right && phrase.right > left && phrase.size < HEADING;
    if (
      isAbove &&
      !isTick &&
      !others.some((other) => other[0] < phrase.right && other[2] > phrase.left && other[1] >= top && other[1] < phrase.base)
    )
      offer(phrase, Math.max(0, over) * 1.5 + Math.abs(phrase.left - left) * 0.4);
  }
  return (best as { text: string } | null)?.text ?? null;
}
