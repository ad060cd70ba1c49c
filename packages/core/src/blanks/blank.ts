import type { Box } from '../page/page-reading.js';

/** What a blank is for. */
export type BlankKind = 'text' | 'multiline' | 'comb' | 'checkbox' | 'signature' | 'date';

/** A place on a printed page that waits for something to be written or ticked. */
export interface Blank {
  /** 1-based. */
  page: number;
  /** Left, bottom, right, top in points of the page's own space. */
  rect: [number, number, number, number];
  kind: BlankKind;
  /** Characters of a comb; null for other kinds. */
  cells: number | null;
  /** What a person would call it; null: nothing is printed for it. */
  label: string | null;
  /** What a row of ticks is about; null: nothing is printed for all of them, or it is no tick. */
  group: string | null;
}

/** A blank as it is found, in the space of a reading, before it has words. */
export interface Found {
  box: Box;
  kind: 'text' | 'multiline' | 'comb' | 'checkbox';
  cells: number | null;
  /** A line that nothing encloses is only a blank where words name it. */
  by: 'line' | 'box' | 'sign';
  /** The line above it that it goes on from, though it begins elsewhere. */
  continues?: Found;
}
