import type { Box } from './page-reading.js';

/** A level or upright line: `at` a height or a place, between two places or heights. */
export interface Rule {
  at: number;
  from: number;
  to: number;
}

/** Lines that miss each other by less than this meet, points. */
const MEET = 2.5;
/** Cells of one page; more are a pattern. */
const MOST = 20_000;

/** The smallest boxes that lines of a page enclose, points. */
export function cellsOf(level: readonly Rule[], upright: readonly Rule[]): Box[] {
  const cells: Box[] = [];
  const uprights = [...upright].sort((a, b) => a.at - b.at);
  const levels = [...level].sort((a, b) => a.at - b.at);
  for (const [index, left] of uprights.entries()) {
    const crossing = levels.filter(
      ({ at, from, to }) => at > left.from - MEET && at < left.to + MEET && from < left.at + MEET && to > left.at + MEET,
    );
    for (let lower = 0; lower + 1 < crossing.length; lower++) {
      const low = crossing[lower]!;
      // The next line that is more than a double of it.
      for (let upper = lower + 1; upper < crossing.length; upper++) {
        const high = crossing[upper]!;
        if (high.at - low.at < MEET) continue;
        const reach = Math.min(low.to, high.to) + MEET;
        let right = index + 1;
        while (
          right < uprights.length &&
          uprights[right]!.at <= reach &&
          (uprights[right]!.at < left.at + MEET || uprights[right]!.from > low.at + MEET || uprights[right]!.to < high.at - MEET)
        )
          right++;
        const end = uprights[right];
        if (end && end.at <= reach) {
          cells.push([left.at, low.at, end.at, high.at]);
          if (cells.length >= MOST) return cells;
        }
        break;
      }
    }
  }
  return cells;
}
