import { bareWords } from '../page/label-words.js';
import type { Box, Phrase } from '../page/page-reading.js';
import type { EditionPage } from './edition.js';

interface Anchor {
  x: number;
  y: number;
  dx: number;
  dy: number;
}
/** Anchors that tell where a place went. */
const NEAREST = 5;
/** Anchors that are nearer than this to a box count alike, points. */
const CLOSE = 4;

/** Where the print of one page went on another one. */
export class PageShift {
  private readonly anchors: Anchor[] = [];

  constructor(was: EditionPage, now: EditionPage) {
    const byWords = new Map<string, Phrase[]>();
    for (const phrase of now.phrases) {
      const key = bareWords(phrase.text);
      if (key === '') continue;
      byWords.set(key, [...(byWords.get(key) ?? []), phrase]);
    }
    const used = new Map<string, number>();
    for (const phrase of was.phrases) {
      const key = bareWords(phrase.text);
      const there = byWords.get(key);
      if (!there) continue;
      // What stands several times is matched in the order of reading.
      const at = used.get(key) ?? 0;
      used.set(key, at + 1);
      const found = there[at];
      if (found) this.anchors.push({ x: phrase.left, y: phrase.base, dx: found.left - phrase.left, dy: found.base - phrase.base });
    }
  }

  /** Whether anything of the page was found again. */
  get isKnown(): boolean {
    return this.anchors.length > 0;
  }

  /** Where a box would stand now if it had kept its place among the words. */
  expected(box: Box): Box {
    const outside = (at: number, from: number, to: number): number => Math.max(0, from - at, at - to);
    const nearest = this.anchors
      .map((anchor) => ({ anchor, far: outside(anchor.x, box[0], box[2]) * 0.4 + outside(anchor.y, box[1], box[3]) }))
      .sort((a, b) => a.far - b.far)
      .slice(0, NEAREST)
      .map(({ anchor, far }) => ({ anchor, weight: 1 / (far + CLOSE) ** 2 }));
    // What stands right at the box tells more than all that is further off.
    const middle = (value: (anchor: Anchor) => number): number => {
      const sorted = nearest.map(({ anchor, weight }) => ({ value: value(anchor), weight })).sort((a, b) => a.value - b.value);
      let left = sorted.reduce((sum, { weight }) => sum + weight, 0) / 2;
      return sorted.find(({ weight }) => (left -= weight) <= 0)?.value ?? 0;
    };
    const [dx, dy] = [middle(({ dx: value }) => value), middle(({ dy: value }) => value)];
    return [box[0] + dx, box[1] + dy, box[2] + dx, box[3] + dy];
  }
}

const wordsOf = (page: EditionPage): Set<string> => new Set(page.phrases.map(({ text }) => bareWords(text)).filter(Boolean));

/** Share of the words of each two pages that both have; pairs that have none are left out. */
function likenesses(was: readonly EditionPage[], now: readonly EditionPage[]): { from: number; to: number; likeness: number }[] {
  const [before, after] = [was.map(wordsOf), now.map(wordsOf)];
  const pagesWith = new Map<string, number[]>();
  for (const [to, words] of after.entries()) for (const word of words) pagesWith.set(word, [...(pagesWith.get(word) ?? []), to]);
  return before.flatMap((words, from) => {
    const common = new Map<number, number>();
    for (const word of words) for (const to of pagesWith.get(word) ?? []) common.set(to, (common.get(to) ?? 0) + 1);
    return [...common].map(([to, count]) => ({ from, to, likeness: count / (words.size + after[to]!.size - count) }));
  });
}

/** For each page of the old edition the page of the new one that has become of it, both 0-based; -1: none has. */
export function matchPages(was: readonly EditionPage[], now: readonly EditionPage[]): number[] {
  const pairs = likenesses(was, now)
    .map((pair) => ({ ...pair, likeness: pair.likeness + (pair.from === pair.to ? 0.02 : 0) }))
    .filter((pair) => pair.likeness > 0.08)
    .sort((a, b) => b.likeness - a.likeness || Math.abs(a.from - a.to) - Math.abs(b.from - b.to));
  const found = was.map(() => -1);
  const taken = new Set<number>();
  for (const { from, to } of pairs) {
    if (found[from] !== -1 || taken.has(to)) continue;
    found[from] = to;
    taken.add(to);
  }
  // Pages without words keep their number.
  for (const [from, to] of found.entries())
    if (to === -1 && from < now.length && !taken.has(from) && was[from]!.phrases.length < 3) found[from] = from;
  return found;
}
