import type { SheetFacts } from './gather.js';
import type { Cell, SourceNote } from './record.js';

export interface SheetRow {
  /** 1-based, as in the sheet. */
  row: number;
  hidden: boolean;
  /** Gaps are empty cells. */
  cells: Cell[];
}

/** A workbook that has been opened, of whatever format. */
export interface SheetBook {
  sheets: readonly { name: string; hidden: boolean }[];
  /** What is to be known of the workbook as a whole. */
  notes: readonly SourceNote[];
  /** Goes through the rows of a sheet. @param onRow returns false to stop */
  rows(sheet: string, onRow: (row: SheetRow) => boolean): Promise<SheetFacts>;
}

/** A workbook that the host has read with a library, as it crosses from its thread: cells as raw value and number format. */
export interface ForeignBook {
  sheets: {
    name: string;
    hidden: boolean;
    hiddenColumns: number[];
    merges: { top: number; left: number; bottom: number; right: number }[];
    rows: { row: number; hidden: boolean; cells: (ForeignCell | null)[] }[];
  }[];
  date1904: boolean;
  hasMacros: boolean;
}
export type ForeignCell =
  | { type: 'text'; text: string }
  | { type: 'number'; value: number; format: string }
  | { type: 'truth'; value: boolean }
  | { type: 'error'; text: string };
