import type { Box } from './page-reading.js';

/** How much of two stretches is common to both; less than 0: how far they are apart. */
export const overlap = (from: number, to: number, otherFrom: number, otherTo: number): number =>
  Math.min(to, otherTo) - Math.max(from, otherFrom);
/** How much two boxes have in common, square points. */
export const shared = (one: Box, other: Box): number =>
  Math.max(0, overlap(one[0], one[2], other[0], other[2])) * Math.max(0, overlap(one[1], one[3], other[1], other[3]));
export const areaOf = ([left, bottom, right, top]: Box): number => (right - left) * (top - bottom);
export const widthOf = ([left, , right]: Box): number => right - left;
export const heightOf = ([, bottom, , top]: Box): number => top - bottom;
/** Whether two lengths are the same for who looks at them. */
export const near = (a: number, b: number, by = 1.5): boolean => Math.abs(a - b) <= by;
