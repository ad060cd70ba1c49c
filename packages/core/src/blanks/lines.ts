import { near, overlap, shared, widthOf } from '../page/geometry.js';
import type { Box, Phrase } from '../page/page-reading.js';
import type { Found } from './blank.js';
import type { Ground } from './ground.js';
import { phraseBox } from './ground.js';

/** The shortest line to write on, and the least and the most room above it that is used, points. */
const [SHORTEST, LEAST, MOST] = [22, 7, 17];
/** How far lines of one text stand from each other, points. */
const [CLOSE, APART] = [11, 34];

interface Line {
  at: number;
  from: number;
  to: number;
  isSign: boolean;
}

/** Level lines that bound nothing, and those that are printed with characters. */
function linesOf(ground: Ground): Line[] {
  const { level, upright, places, phrases } = ground.reading;
  const isEdge = ({ at, from, to }: { at: number; from: number; to: number }): boolean =>
    ground.cells.some(
      (cell) =>
        (near(cell[1], at, 1.2) || near(cell[3], at, 1.2)) &&
        overlap(cell[0], cell[2], from, to) > Math.min(to - from, widthOf(cell)) * 0.5,
    );
  /** A corner with an upright line at one end alone makes an axis, or a bracket. */
  const isAxis = ({ at, from, to }: { at: number; from: number; to: number }): boolean => {
    const meets = (place: number): boolean =>
      upright.some((one) => near(one.at, place, 2) && one.to - one.from > 24 && (near(one.from, at, 3) || near(one.to, at, 3)));
    return meets(from) !== meets(to);
  };
  const drawn = level
    .filter((line) => line.to - line.from >= SHORTEST && !isEdge(line) && !isAxis(line))
    .map((line) => ({ ...line, isSign: false }));
  const signs = places
    .filter(({ sign }) => sign === 'rule' || sign === 'leader')
    .filter(({ sign, right, base, size }) => {
      if (sign === 'rule') return true;
      // A leader to the number of a page, or to a box, leads there.
      const next = phrases.filter((phrase) => near(phrase.base, base, 2) && phrase.left > right - 3).sort((a, b) => a.left - b.left)[0];
      if (next && next.left - right < 40 && /^[\divxlc.,\s]+$/i.test(next.text)) return false;
      return !ground.cells.some((cell) => cell[1] < base + size * 0.5 && cell[3] > base && cell[0] > right - 4 && cell[0] - right < 40);
    })
    .map(({ left, right, base }) => ({ at: base - 1.5, from: left, to: right, isSign: true }));
  return [...drawn, ...signs];
}

/** The part of a line above which nothing is printed; null: words stand on it. */
function freePart(line: Line, ground: Ground): Line | null {
  const on = ground.reading.phrases.filter(
    ({ base, size, left, right }) =>
      base > line.at - 1.5 && base < line.at + Math.max(5, size * 0.6) && overlap(left, right, line.from, line.to) > 1,
  );
  if (on.length === 0) return line;
  // A sentence that is underlined, whatever the line is long.
  if (on.some(({ text }) => text.length > 40 || /[.;!]$/.test(text))) return null;
  if (on.some((phrase) => phrase.isBold || phrase.size > ground.reading.bodySize * 1.15)) return null;
  const stops = [...on.map((phrase): [number, number] => [phrase.left - 3, phrase.right + 3]), [line.to, line.to] as [number, number]].sort(
    (a, b) => a[0] - b[0],
  );
  let best: [number, number] = [line.from, line.from];
  let from = line.from;
  for (const [start, end] of stops) {
    if (start - from > best[1] - best[0]) best = [from, start];
    from = Math.max(from, end);
  }
  const room = best[1] - best[0];
  return room >= Math.max(SHORTEST, 30) && room > (line.to - line.from) * 0.35 ? { ...line, from: best[0], to: best[1] } : null;
}

/** The room above a line. */
function roomAbove({ at, from, to }: Line, ground: Ground, lines: readonly Line[]): number {
  const box: Box = [from + 1, at + 1, to - 1, at + MOST + 4];
  const edges = [
    ...ground.phrasesTouching(box).map((phrase) => phraseBox(phrase)[1] - at),
    ...ground.reading.level
      .filter((one) => one.at > at + 1 && one.at < at + MOST + 4 && overlap(one.from, one.to, from, to) > (to - from) * 0.4)
      .map((one) => one.at - at),
    ...lines.filter((one) => one.at > at + 1 && overlap(one.from, one.to, from, to) > (to - from) * 0.4).map((one) => one.at - at),
  ];
  return Math.min(MOST, ...edges.map((edge) => edge - 0.5));
}

/** `__/__/____`: three parts with a stroke, a full stop or a dash between them are one date. */
function joinDates(found: Found[], ground: Ground): Found[] {
  const sorted = [...found].sort((a, b) => Math.round(b.box[1]) - Math.round(a.box[1]) || a.box[0] - b.box[0]);
  const out: Found[] = [];
  const between = (one: Found, other: Found): Phrase | undefined =>
    ground.reading.phrases.find(
      ({ text, left, right, base }) =>
        /^[/.\-–]$/.test(text) && left > one.box[2] - 4 && right < other.box[0] + 4 && near(base, one.box[1], 6),
    );
  for (let at = 0; at < sorted.length; at++) {
    const [one, two, three] = sorted.slice(at, at + 3);
    if (one && two && three && near(one.box[1], three.box[1], 2) && between(one, two) && between(two, three)) {
      out.push({ ...one, box: [one.box[0], one.box[1], three.box[2], Math.max(one.box[3], three.box[3])] });
      at += 2;
    } else if (one) out.push(one);
  }
  return out;
}

/** Lines of the same length that follow each other without words between them are one text of several lines. */
function joinTexts(found: readonly Found[], ground: Ground): Found[] {
  const sorted = [...found].sort((a, b) => b.box[1] - a.box[1] || a.box[0] - b.box[0]);
  const out: Found[] = [];
  const hasWords = (box: Box, upper: Found): boolean => {
    const [left, bottom, right, top] = box;
    return ground.reading.phrases.some((phrase) => {
      if (!/\p{L}/u.test(phrase.text)) return false;
      const [from, low, to, high] = phraseBox(phrase);
      const isBefore = to < left + 2 && left - to < 160 && overlap(low, high, bottom, top) > 2;
      const isBelow = overlap(from, to, left, right) > 0 && high < bottom + 1 && bottom - high < 4 && phrase.size < 9;
      const isBetween = overlap(from, to, left, right) > 0 && low > bottom && high < upper.box[1] + 1;
      return isBefore || isBelow || isBetween;
    });
  };
  for (const one of sorted) {
    const upper = out.findLast(
      (other) =>
        near(other.box[0], one.box[0], 4) &&
        near(other.box[2], one.box[2], 4) &&
        other.box[1] - one.box[1] >= CLOSE &&
        other.box[1] - one.box[1] <= APART,
    );
    if (upper && !hasWords(one.box, upper)) {
      upper.box = [Math.min(upper.box[0], one.box[0]), one.box[1], Math.max(upper.box[2], one.box[2]), upper.box[3]];
      upper.kind = 'multiline';
      continue;
    }
    // The first line began behind its words, this one below them.
    const first = out.findLast(
      (other) =>
        near(other.box[2], one.box[2], 30) &&
        one.box[0] < other.box[0] - 4 &&
        other.box[1] - one.box[1] >= CLOSE &&
        other.box[1] - one.box[1] <= APART,
    );
    out.push({
      ...one,
      ...(first && !hasWords(one.box, { ...first, box: [one.box[0], first.box[1], one.box[2], first.box[3]] }) && { continues: first }),
    });
  }
  return out;
}

/** Lines to write on. @param others what was found of other kinds, on which no line is looked for */
export function findLines(ground: Ground, others: readonly Found[]): Found[] {
  const lines = linesOf(ground).flatMap((line) => freePart(line, ground) ?? []);
  const found: Found[] = [];
  for (const line of lines) {
    const room = roomAbove(line, ground, lines);
    const isShort = line.to - line.from < SHORTEST && !line.isSign;
    if (room < LEAST || isShort) continue;
    const box: Box = [line.from, line.at, line.to, line.at + room];
    const isTaken = others.some(
      (other) =>
        shared(other.box, box) > 0.3 * Math.min(widthOf(box) * room, widthOf(other.box) * (other.box[3] - other.box[1])) ||
        (near(other.box[1], line.at, 2) && overlap(other.box[0], other.box[2], line.from, line.to) > widthOf(box) * 0.3),
    );
    if (!isTaken && !ground.isShaded(box)) found.push({ box, kind: 'text', cells: null, by: line.isSign ? 'sign' : 'line' });
  }
  return joinTexts(joinDates(found, ground), ground);
}
