import { areaOf, heightOf, near, shared, widthOf } from '../page/geometry.js';
import type { Box } from '../page/page-reading.js';
import type { Rule } from '../page/cells.js';
import type { Found } from './blank.js';
import type { Ground } from './ground.js';

/** Sides of the cell of one character, points (common practice, no source). */
const [NARROWEST, WIDEST, LOWEST, HIGHEST] = [6.5, 24, 7, 34];
const isCell = (box: Box): boolean =>
  widthOf(box) >= NARROWEST && widthOf(box) <= WIDEST && heightOf(box) >= LOWEST && heightOf(box) <= HIGHEST;

/** Runs of boxes of one size that stand beside each other, at most so far apart. */
function runs(boxes: readonly Box[], apart: number): Box[][] {
  const sorted = [...boxes].sort((a, b) => Math.round(b[1] / 2) - Math.round(a[1] / 2) || a[0] - b[0]);
  const found: Box[][] = [];
  for (const box of sorted) {
    const last = found.at(-1)?.at(-1);
    const gap = last ? box[0] - last[2] : Infinity;
    const isNext =
      last !== undefined &&
      near(last[1], box[1]) &&
      near(last[3], box[3]) &&
      near(widthOf(last), widthOf(box), Math.max(1.2, widthOf(box) * 0.16)) &&
      gap > -2 &&
      gap <= apart;
    const gapBefore = isNext && found.at(-1)!.length > 1 ? last[0] - found.at(-1)!.at(-2)![2] : gap;
    if (isNext && near(gapBefore, gap, 1.2)) found.at(-1)!.push(box);
    else found.push([box]);
  }
  return found;
}

const around = (boxes: readonly Box[]): Box => [
  boxes[0]![0],
  Math.min(...boxes.map((box) => box[1])),
  boxes.at(-1)![2],
  Math.max(...boxes.map((box) => box[3])),
];
const comb = (box: Box, cells: number): Found => ({ box, kind: 'comb', cells, by: 'sign' });

/** Lines with short strokes that stand on them, one between two characters. */
function* toothed(ground: Ground): Generator<Found & { line: Rule }> {
  const { level, upright } = ground.reading;
  const teeth = upright.filter(({ from, to }) => to - from >= 2.5 && to - from <= 16);
  if (teeth.length < 3) return;
  for (const line of level) {
    const own = teeth
      .filter(({ at, from }) => near(from, line.at, 1.8) && at > line.from - 1.5 && at < line.to + 1.5)
      .map(({ at }) => at)
      .sort((a, b) => a - b)
      .filter((at, index, all) => index === 0 || at - all[index - 1]! > 1);
    if (own.length < 2) continue;
    const step = (own.at(-1)! - own[0]!) / (own.length - 1);
    if (step < NARROWEST || step > WIDEST) continue;
    if (own.some((at, index) => index > 0 && !near(at - own[index - 1]!, step, step * 0.18))) continue;
    // The strokes at the ends may be left out.
    const [first, last] = [
      near(own[0]! - line.from, step, step * 0.25) ? line.from : own[0]!,
      near(line.to - own.at(-1)!, step, step * 0.25) ? line.to : own.at(-1)!,
    ];
    const cells = Math.round((last - first) / step);
    if (cells >= 3 || (cells === 2 && line.to - line.from < 60))
      yield { ...comb([first, line.at, last, line.at + Math.max(12, Math.min(18, step * 1.2))], cells), line };
  }
}

/** Rows of short strokes, one a character. */
function* dashes(ground: Ground): Generator<Found> {
  const boxes = ground.reading.strokes
    .filter(({ from, to }) => to - from >= NARROWEST && to - from <= WIDEST)
    .map(({ at, from, to }): Box => [from, at, to, at + 14]);
  for (const run of runs(boxes, 8)) {
    const gap = run.length > 1 ? run[1]![0] - run[0]![2] : 0;
    if (run.length >= 4 && gap > 1 && ground.phrasesIn(around(run)).length === 0) yield comb(around(run), run.length);
  }
}

/**
 * Combs: cells of one character each, that touch or stand in a close row, lines with teeth, rows of dashes, and those printed with characters.
 * @param ticks small squares that stand by themselves are boxes to tick
 */
export function findCombs(ground: Ground, ticks: readonly Found[]): Found[] {
  const isEmpty = (box: Box): boolean => ground.phrasesIn(box).length === 0 && !ground.isShaded(box);
  const cells = [...ground.cells.filter(isCell), ...ticks.map(({ box }) => box)];
  const unique = cells.filter((box, at) => cells.findIndex((other) => near(other[0], box[0]) && near(other[1], box[1])) === at);
  const found: Found[] = [];
  const used = new Set<Box>();
  for (const run of runs(unique.filter(isEmpty), 1.6))
    if (run.length >= 3 || (run.length === 2 && run.every((box) => widthOf(box) < 20 && heightOf(box) < 24))) {
      for (const box of run) used.add(box);
      found.push(comb(around(run), run.length));
    }
  for (const run of runs(
    unique.filter((box) => !used.has(box) && isEmpty(box) && widthOf(box) > 9),
    6,
  ))
    if (run.length >= 4) found.push(comb(around(run), run.length));
  for (const one of toothed(ground)) if (isEmpty(one.box)) found.push({ box: one.box, kind: one.kind, cells: one.cells, by: one.by });
  found.push(...dashes(ground));
  for (const { sign, left, right, base, size, cells: own } of ground.reading.places)
    if (sign === 'comb') found.push(comb([left, base - size * 0.2, right, base + size], own ?? 1));
  return found.filter((one, at) => !found.slice(0, at).some((other) => shared(one.box, other.box) > areaOf(one.box) * 0.5));
}
