import type { Edge, Guides, SeenBox } from '@mailbag/core';
import { onPage, snapEdges, snapMove, upright } from '@mailbag/core';

/** What a hand does on a page from where it took hold. `band`: it encloses what is chosen, or the blanks that are taken. */
export type Hold =
  | { what: 'move'; boxes: ReadonlyMap<string, SeenBox>; guides: Guides }
  | { what: 'resize'; key: string; box: SeenBox; edges: readonly Edge[]; guides: Guides; isSquare: boolean }
  | { what: 'draw' | 'band'; at: { x: number; y: number }; guides: Guides };

/** What it has come to. */
export interface Dragged {
  boxes: ReadonlyMap<string, SeenBox>;
  /** What is being drawn or enclosed. */
  band: SeenBox | null;
  /** Guides along which it lies. */
  x: number | null;
  y: number | null;
}

/** Least width and height of what is drawn, points. */
const LEAST = 4;
const none: ReadonlyMap<string, SeenBox> = new Map();

/** The box around all of them. */
export const around = (boxes: Iterable<SeenBox>): SeenBox => {
  const all = [...boxes];
  return {
    left: Math.min(...all.map(({ left }) => left)),
    top: Math.min(...all.map(({ top }) => top)),
    right: Math.max(...all.map(({ right }) => right)),
    bottom: Math.max(...all.map(({ bottom }) => bottom)),
  };
};

const moved = ({ left, right, top, bottom }: SeenBox, dx: number, dy: number): SeenBox => ({
  left: left + dx,
  right: right + dx,
  top: top + dy,
  bottom: bottom + dy,
});

/** @param dx how far the hand went, points @param reach points within which guides draw; 0: none does */
export function dragged(hold: Hold, dx: number, dy: number, reach: number, page: { width: number; height: number }): Dragged {
  if (hold.what === 'move') {
    const all = around(hold.boxes.values());
    const { box, x, y } = snapMove(moved(all, dx, dy), hold.guides, reach);
    const held = onPage(box, page);
    const [byX, byY] = [held.left - all.left, held.top - all.top];
    return { boxes: new Map([...hold.boxes].map(([key, one]) => [key, moved(one, byX, byY)])), band: null, x, y };
  }
  if (hold.what === 'resize') {
    const { key, box, edges } = hold;
    const next = { ...box };
    for (const edge of edges) next[edge] += edge === 'left' || edge === 'right' ? dx : dy;
    const snapped = snapEdges(next, edges, hold.guides, reach);
    const shaped = upright(snapped.box, LEAST);
    if (hold.isSquare) {
      const side = Math.max(shaped.right - shaped.left, shaped.bottom - shaped.top);
      shaped.right = shaped.left + side;
      shaped.bottom = shaped.top + side;
    }
    return { boxes: new Map([[key, shaped]]), band: null, x: snapped.x, y: snapped.y };
  }
  const { x, y } = hold.at;
  const raw = { left: x, top: y, right: x + dx, bottom: y + dy };
  if (hold.what === 'band') return { boxes: none, band: upright(raw), x: null, y: null };
  const start = snapEdges(raw, ['left', 'top'], hold.guides, reach);
  const end = snapEdges(start.box, ['right', 'bottom'], hold.guides, reach);
  return { boxes: none, band: upright(end.box), x: end.x ?? start.x, y: end.y ?? start.y };
}

/** Whether a box lies more than half within another. */
export const isWithin = (box: SeenBox, band: SeenBox): boolean => {
  const wide = Math.min(box.right, band.right) - Math.max(box.left, band.left);
  const high = Math.min(box.bottom, band.bottom) - Math.max(box.top, band.top);
  return wide > 0 && high > 0 && wide * high > 0.5 * (box.right - box.left) * (box.bottom - box.top);
};
