import type { ReactNode } from 'react';

/** What a cell is ordered by; null comes last, whichever way the list is ordered. */
export type Sortable = string | number | null;

/** A column of a list. */
export interface ListColumn<T> {
  id: string;
  head: string;
  /** What is shown; left out: its text. */
  cell?: (row: T) => ReactNode;
  /** What is searched and exported. */
  text: (row: T) => string;
  /** What it is ordered by; left out: its text. */
  value?: (row: T) => Sortable;
  /** Pixels that it takes at least. */
  minWidth: number;
  /** Its part of the room that is left over; 0: none. */
  share?: number;
  isNumber?: boolean;
  /** It cannot be put away, such as the name that leads to the thing itself. */
  isFixed?: boolean;
  /** Nothing can be ordered by it. */
  isUnordered?: boolean;
  /** Buttons: it has no heading that is seen, and is not exported. */
  isTools?: boolean;
  /** The list shows it only when asked to. */
  isExtra?: boolean;
}

/** The widths of columns, as in `grid-template-columns`. */
export const tracksOf = (columns: readonly Pick<ListColumn<never>, 'minWidth' | 'share'>[]): string =>
  columns.map(({ minWidth, share = 0 }) => (share > 0 ? `minmax(${minWidth}px, ${share}fr)` : `${minWidth}px`)).join(' ');

/** Pixels below which the list scrolls sideways. @param gap between two columns, px */
export const smallestWidth = (columns: readonly Pick<ListColumn<never>, 'minWidth'>[], gap: number): number =>
  columns.reduce((sum, { minWidth }) => sum + minWidth + gap, gap);
