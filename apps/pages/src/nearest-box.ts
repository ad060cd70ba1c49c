/** Sides of a box, CSS pixels. */
export interface Spot {
  left: number;
  top: number;
  right: number;
  bottom: number;
}
/** CSS pixels beside a box at which a finger still means it: half of a target that everybody hits (WCAG 2.2, 2.5.8). */
const REACH = 12;

const beyond = (at: number, from: number, to: number): number => Math.max(from - at, at - to, 0);

/** The question whose box is meant by who taps a place; null: none is near. Of two that overlap, the smaller. */
export function nearestBox(boxes: readonly { question: string; place: Spot }[], x: number, y: number): string | null {
  const near = boxes
    .map(({ question, place: { left, top, right, bottom } }) => ({
      question,
      far: Math.hypot(beyond(x, left, right), beyond(y, top, bottom)),
      size: (right - left) * (bottom - top),
    }))
    .filter(({ far }) => far <= REACH)
    .sort((one, other) => one.far - other.far || one.size - other.size);
  return near[0]?.question ?? null;
}
