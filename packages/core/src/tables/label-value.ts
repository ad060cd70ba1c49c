import type { Cell } from './record.js';
import { emptyCell } from './record.js';
import type { SheetRow } from './sheet-book.js';

/** A column of labels with the column of their values. 0-based. */
export interface PairOfColumns {
  label: number;
  value: number;
  /** A hidden column of technical names; they are used in place of the labels. */
  name: number | null;
}

/** Columns of a sheet of labels and values, with hidden ones of names and with empty ones between. */
const MOST_COLUMNS = 60;

const isLabel = (cell: Cell | undefined): boolean =>
  cell !== undefined && typeof cell.value === 'string' && /\p{L}/u.test(cell.text) && cell.text.trim().length <= 120;

/**
 * Finds pairs of label and value that run down a sheet: a column of texts that all differ, with values to its right.
 * Empty when the sheet looks like a table, with headings across.
 */
export function findPairs(rows: readonly SheetRow[], hiddenColumns: readonly number[]): PairOfColumns[] {
  const width = rows.reduce((most, { cells }) => Math.max(most, cells.length), 0);
  if (width > MOST_COLUMNS) return [];
  const filled = (column: number): Cell[] => rows.flatMap(({ cells }) => (cells[column]?.text.trim() ? [cells[column]] : []));
  const columns = Array.from({ length: width }, (_, column) => column).filter((column) => filled(column).length > 0);
  const seen = columns.filter((column) => !hiddenColumns.includes(column));
  const labels = (column: number): boolean => {
    const cells = filled(column);
    // What has digits in it is a key or a value, not a label.
    const wordy = cells.filter(({ text }) => !/\d/.test(text)).length >= cells.length / 2;
    return (
      wordy &&
      cells.length >= 2 &&
      cells.every(isLabel) &&
      new Set(cells.map(({ text }) => text.trim().toLowerCase())).size === cells.length
    );
  };
  const pairs: PairOfColumns[] = [];
  for (let index = 0; index + 1 < seen.length; index++) {
    const [label, value] = [seen[index]!, seen[index + 1]!];
    if (!labels(label) || filled(value).length === 0) continue;
    // Values stand only where labels do; a title above may stand alone.
    const lonely = rows.filter(({ cells }) => cells[value]?.text.trim() && !cells[label]?.text.trim()).length;
    if (lonely > 0) continue;
    const name = columns.find(
      (column) =>
        hiddenColumns.includes(column) && (column === label - 1 || column === label + 1 || column === value + 1) && labels(column),
    );
    pairs.push({ label, value, name: name ?? null });
    index++;
  }
  // A table of texts looks like pairs too, but has more columns than a form has pairs, and a first row that names the others.
  const covered = pairs.length * 2;
  if (covered !== seen.length || pairs.length > 4) return [];
  const deep = rows.filter(({ cells }) => cells.some((cell) => cell?.text.trim())).length;
  if (pairs.length === 1 && deep > 400) return [];
  return pairs;
}

/** Whether headings across the first row would tell the columns as well: then a sheet of two columns is taken for a table. */
export function looksLikeTable(rows: readonly SheetRow[], pairs: readonly PairOfColumns[]): boolean {
  const [first, ...rest] = rows.filter(({ cells }) => cells.some((cell) => cell?.text.trim()));
  if (!first || rest.length < 2) return true;
  // The values of a record are of several kinds; those of a table's column are of one.
  return pairs.every(({ value }) => {
    const kinds = new Set(
      rest.map(({ cells: { [value]: cell = emptyCell } }) =>
        cell.text.trim() === ''
          ? 'none'
          : typeof cell.value === 'string'
            ? /@/.test(cell.text)
              ? 'mail'
              : /^\d{4}-\d\d-\d\d/.test(cell.value)
                ? 'date'
                : 'text'
            : typeof cell.value,
      ),
    );
    kinds.delete('none');
    return kinds.size <= 1 && isLabel(first.cells[value]);
  });
}

/** The record of one sheet: values by label. */
export function recordOfPairs(rows: readonly SheetRow[], pairs: readonly PairOfColumns[]): Map<string, Cell> {
  const record = new Map<string, Cell>();
  for (const { label, value, name } of pairs) {
    for (const { cells } of rows) {
      const called =
        (name === null ? '' : (cells[name]?.text ?? '').trim()) || (cells[label]?.text ?? '').trim().replace(/:$/, '').trimEnd();
      if (called && (cells[value]?.text.trim() || cells[label]?.text.trim())) {
        let own = called;
        for (let count = 2; record.has(own); count++) own = `${called} ${count}`;
        record.set(own, cells[value] ?? emptyCell);
      }
    }
  }
  return record;
}
