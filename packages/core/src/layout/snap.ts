import type { SeenBox } from '../page/seen.js';

/** Places on one axis to which edges go by themselves, points, and what each belongs to. */
export interface Guides {
  /** Upright lines and edges, from the left. */
  x: readonly number[];
  /** Level lines, edges and baselines, from the top. */
  y: readonly number[];
}

/** A box as it was drawn to what is near, and the guides that it lies along. */
export interface Snapped {
  box: SeenBox;
  x: number | null;
  y: number | null;
}

/** The guides of a page: its own lines, and the edges and middles of the other boxes on it. */
export function guidesOf(lines: readonly SeenBox[], others: readonly SeenBox[]): Guides {
  const x = new Set<number>();
  const y = new Set<number>();
  for (const { left, right, top, bottom } of lines) {
    // The ends of a level line are edges too.
    x.add(left).add(right);
    y.add(top).add(bottom);
  }
  for (const { left, right, top, bottom } of others) {
    x.add(left)
      .add(right)
      .add((left + right) / 2);
    y.add(top)
      .add(bottom)
      .add((top + bottom) / 2);
  }
  const sorted = (values: Set<number>): number[] => [...values].sort((a, b) => a - b);
  return { x: sorted(x), y: sorted(y) };
}

/** The nearest of sorted guides; null: none is within reach. */
function nearest(sorted: readonly number[], at: number, reach: number): number | null {
  let [from, to] = [0, sorted.length];
  while (from < to) {
    const middle = (from + to) >> 1;
    if (sorted[middle]! < at) from = middle + 1;
    else to = middle;
  }
  const near = [sorted[from - 1], sorted[from]].filter((one) => one !== undefined && Math.abs(one - at) <= reach) as number[];
  return near.sort((a, b) => Math.abs(a - at) - Math.abs(b - at))[0] ?? null;
}

/** How far the best of several edges is from a guide. */
function shift(sorted: readonly number[], edges: readonly number[], reach: number): { by: number; at: number } | null {
  let best: { by: number; at: number } | null = null;
  for (const edge of edges) {
    const at = nearest(sorted, edge, reach);
    if (at !== null && (best === null || Math.abs(at - edge) < Math.abs(best.by))) best = { by: at - edge, at };
  }
  return best;
}

/** Moves a box to the guides that its edges or its middle are near. @param reach points within which something is near */
export function snapMove(box: SeenBox, guides: Guides, reach: number): Snapped {
  const { left, right, top, bottom } = box;
  const x = shift(guides.x, [left, right, (left + right) / 2], reach);
  const y = shift(guides.y, [top, bottom, (top + bottom) / 2], reach);
  const [dx, dy] = [x?.by ?? 0, y?.by ?? 0];
  return {
    box: { left: left + dx, right: right + dx, top: top + dy, bottom: bottom + dy },
    x: x?.at ?? null,
    y: y?.at ?? null,
  };
}

export type Edge = keyof SeenBox;

/** Moves only some edges of a box to the guides that they are near. */
export function snapEdges(box: SeenBox, edges: readonly Edge[], guides: Guides, reach: number): Snapped {
  const snapped: Snapped = { box: { ...box }, x: null, y: null };
  for (const edge of edges) {
    const axis = edge === 'left' || edge === 'right' ? 'x' : 'y';
    const at = nearest(guides[axis], box[edge], reach);
    if (at === null) continue;
    snapped.box[edge] = at;
    snapped[axis] = at;
  }
  return snapped;
}

/** A box whose edges are the right way round, and which is nowhere smaller than this. */
export function upright({ left, top, right, bottom }: SeenBox, least = 0): SeenBox {
  const [l, r] = [Math.min(left, right), Math.max(left, right)];
  const [t, b] = [Math.min(top, bottom), Math.max(top, bottom)];
  return { left: l, top: t, right: Math.max(r, l + least), bottom: Math.max(b, t + least) };
}

/** A box pushed back onto its page. */
export function onPage(box: SeenBox, page: { width: number; height: number }): SeenBox {
  const dx = Math.max(-box.left, Math.min(0, page.width - box.right));
  const dy = Math.max(-box.top, Math.min(0, page.height - box.bottom));
  return { left: box.left + dx, right: box.right + dx, top: box.top + dy, bottom: box.bottom + dy };
}
