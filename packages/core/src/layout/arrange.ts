import type { SeenBox } from '../page/seen.js';

export const alignments = ['left', 'centre', 'right', 'top', 'middle', 'bottom'] as const;
export type Alignment = (typeof alignments)[number];

const widthOf = ({ left, right }: SeenBox): number => right - left;
const heightOf = ({ top, bottom }: SeenBox): number => bottom - top;
const movedBy = ({ left, right, top, bottom }: SeenBox, dx: number, dy: number): SeenBox => ({
  left: left + dx,
  right: right + dx,
  top: top + dy,
  bottom: bottom + dy,
});

/** Moves boxes so that the same edge, or the middle, of each lies where that of all of them together does. */
export function aligned(boxes: readonly SeenBox[], how: Alignment): SeenBox[] {
  const left = Math.min(...boxes.map((box) => box.left));
  const right = Math.max(...boxes.map((box) => box.right));
  const top = Math.min(...boxes.map((box) => box.top));
  const bottom = Math.max(...boxes.map((box) => box.bottom));
  return boxes.map((box) => {
    const [dx, dy] = {
      left: [left - box.left, 0],
      right: [right - box.right, 0],
      centre: [(left + right - box.left - box.right) / 2, 0],
      top: [0, top - box.top],
      bottom: [0, bottom - box.bottom],
      middle: [0, (top + bottom - box.top - box.bottom) / 2],
    }[how] as [number, number];
    return movedBy(box, dx, dy);
  });
}

/** Moves the boxes between the outermost two so that the gaps between them are the same. Fewer than three stay as they are. */
export function distributed(boxes: readonly SeenBox[], along: 'x' | 'y'): SeenBox[] {
  if (boxes.length < 3) return [...boxes];
  const [start, size] = along === 'x' ? (['left', widthOf] as const) : (['top', heightOf] as const);
  const order = boxes.map((_, index) => index).sort((a, b) => boxes[a]![start] - boxes[b]![start]);
  const [first, last] = [boxes[order[0]!]!, boxes[order.at(-1)!]!];
  const taken = order.reduce((sum, index) => sum + size(boxes[index]!), 0);
  const gap = (last[start] + size(last) - first[start] - taken) / (boxes.length - 1);
  const placed = [...boxes];
  let at = first[start];
  for (const index of order) {
    const box = boxes[index]!;
    placed[index] = movedBy(box, along === 'x' ? at - box.left : 0, along === 'y' ? at - box.top : 0);
    at += size(box) + gap;
  }
  return placed;
}

/** Gives boxes the size of the first, from their left upper corner on. */
export const sameSized = (boxes: readonly SeenBox[]): SeenBox[] =>
  boxes.map(({ left, top }) => ({ left, top, right: left + widthOf(boxes[0]!), bottom: top + heightOf(boxes[0]!) }));
