import type { Box } from './page-reading.js';

/** Heights that differ by less than this count as one row, points. */
const ROW = 6;

/** In the order in which boxes of a page are read from the left: rows from the top down, each from its left. */
export const inReadingOrder = (one: Box, other: Box): number => Math.round(other[3] / ROW) - Math.round(one[3] / ROW) || one[0] - other[0];
