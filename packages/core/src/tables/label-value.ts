import { isCommonWord } from './heading-words.js';
import { t } from '../words/words.js';
import type { Cell } from './record.js';
import { emptyCell } from './record.js';
import { columnLetters } from './headings.js';
import type { SheetRow } from './sheet-book.js';

/** A column of labels with the column of their values. 0-based. */
export interface PairOfColumns {
  label: number;
  value: number;
  /** A column of technical names, hidden or found by the fields of templates; they are used in place of the labels. */
  name: number | null;
}

/** Columns of a sheet of labels and values, with hidden ones of names and with empty ones between. */
const MOST_COLUMNS = 60;
/** Rows of the form that a sheet of labels and values is; longer ones are tables. */
const MOST_ROWS = 400;

const isLabel = (cell: Cell | undefined): boolean =>
  cell !== undefined && typeof cell.value === 'string' && /\p{L}/u.test(cell.text) && cell.text.trim().length <= 120;

/** Names as forms have them: words joined by dots, underscores or brackets, or running together in mixed case. */
const isTechnical = (text: string): boolean => /^[\p{L}_][\p{L}\p{N}_.[\]#-]*$/u.test(text) && /[._[]|\p{Ll}\p{Lu}/u.test(text);

/** A sheet by columns, those without anything left out. */
class Columns {
  readonly all: number[];
  constructor(
    private readonly rows: readonly SheetRow[],
    private readonly known: ReadonlySet<string>,
  ) {
    const width = rows.reduce((widest, { cells }) => Math.max(widest, cells.length), 0);
    this.all = Array.from({ length: width }, (_, column) => column).filter((column) => this.filled(column).length > 0);
  }
  filled(column: number): Cell[] {
    return this.rows.flatMap(({ cells }) => (cells[column]?.text.trim() ? [cells[column]] : []));
  }
  isDistinct(column: number): boolean {
    const cells = this.filled(column);
    return cells.length >= 2 && new Set(cells.map(({ text }) => text.trim().toLowerCase())).size === cells.length;
  }
  /** Texts that all differ and are no keys or values, which have digits in them. */
  areLabels(column: number): boolean {
    const cells = this.filled(column);
    const wordy = cells.filter(({ text }) => !/\d/.test(text)).length >= cells.length / 2;
    return wordy && this.isDistinct(column) && cells.every(isLabel);
  }
  /** Names of fields of the templates that are there, or what looks like such names. */
  areNames(column: number): boolean {
    const cells = this.filled(column).map(({ text }) => text.trim());
    if (!this.isDistinct(column)) return false;
    const ofForm = cells.filter((text) => this.known.has(text)).length;
    return ofForm >= Math.max(2, cells.length / 2) || cells.filter(isTechnical).length >= cells.length * 0.8;
  }
  /** Whether values stand only where labels do; a title above may stand alone. */
  goes(value: number, label: number): boolean {
    return !this.rows.some(({ cells }) => cells[value]?.text.trim() && !cells[label]?.text.trim());
  }
}

/** Columns of names that stand apart: each names what stands in a column of values to the right of them, in the same order. */
function namedPairs(columns: Columns, hiddenColumns: readonly number[]): PairOfColumns[] {
  const all = columns.all.filter((column) => columns.areNames(column));
  const hidden = all.filter((column) => hiddenColumns.includes(column));
  // Values may look like names too; what was hidden was hidden because nobody has to read it.
  const names = hidden.length > 0 ? hidden : all;
  if (names.length === 0) return [];
  const rest = columns.all.filter((column) => !names.includes(column));
  const label = rest.find((column) => columns.areLabels(column) && column < Math.max(...names) + 2) ?? null;
  const values = rest.filter((column) => column !== label && column > names[0]!);
  if (values.length !== names.length) return [];
  const pairs = names.map((name, index) => ({ label: label ?? name, value: values[index]!, name }));
  return pairs.every(({ value, name }) => columns.goes(value, name)) ? pairs : [];
}

/** Pairs of a label and what stands to its right. */
function labelledPairs(columns: Columns, hiddenColumns: readonly number[]): PairOfColumns[] {
  const seen = columns.all.filter((column) => !hiddenColumns.includes(column));
  const pairs: PairOfColumns[] = [];
  for (let index = 0; index + 1 < seen.length; index++) {
    const [label, value] = [seen[index]!, seen[index + 1]!];
    if (!columns.areLabels(label) || columns.filled(value).length === 0 || !columns.goes(value, label)) continue;
    const name = columns.all.find(
      (column) =>
        hiddenColumns.includes(column) &&
        (column === label - 1 || column === label + 1 || column === value + 1) &&
        columns.areLabels(column),
    );
    pairs.push({ label, value, name: name ?? null });
    index++;
  }
  // A table of texts looks like pairs too, but has more columns than a form has pairs, and a first row that names the others.
  return pairs.length * 2 === seen.length && pairs.length <= 4 ? pairs : [];
}

/**
 * Finds pairs of label and value that run down a sheet: a column of texts that all differ, with values to its right.
 * Empty when the sheet looks like a table, with headings across.
 * @param known names of the fields of the templates that are there
 */
export function findPairs(
  rows: readonly SheetRow[],
  hiddenColumns: readonly number[],
  known: ReadonlySet<string> = new Set(),
): PairOfColumns[] {
  const width = rows.reduce((widest, { cells }) => Math.max(widest, cells.length), 0);
  if (width > MOST_COLUMNS) return [];
  const columns = new Columns(rows, known);
  const named = namedPairs(columns, hiddenColumns);
  const pairs = named.length > 0 ? named : labelledPairs(columns, hiddenColumns);
  const deep = rows.filter(({ cells }) => cells.some((cell) => cell?.text.trim())).length;
  return pairs.length === 1 && deep > MOST_ROWS ? [] : pairs;
}

/** Words that head columns and label lines of forms, beside those of which several mean the same. Common practice, no source. */
const HEADING_WORDS = new Set(
  [
    'last full sur user company file site plot post fax day month year time age title key names code rate price total sum fee rent to type state status note',
    'remark comment iban bic grade school department role anrede firma kunde',
  ].flatMap((line) => line.split(' ')),
);
const isHeading = (text: string): boolean => {
  const words = text
    .trim()
    .replace(/:$/, '')
    .split(/[\s_./-]+/);
  return words.length <= 4 && words.some((word) => HEADING_WORDS.has(word.toLowerCase()) || isCommonWord(word));
};

/** Of a column's values by what they are. */
const kindOf = ({ text, value }: Cell): string =>
  text.trim() === ''
    ? 'none'
    : typeof value !== 'string'
      ? typeof value
      : /@/.test(text)
        ? 'mail'
        : /^\d{4}-\d\d-\d\d/.test(value)
          ? 'date'
          : 'text';

/** Whether headings across the first row that is as wide as the others would tell the columns as well: then a sheet of two columns is taken for a table. */
export function looksLikeTable(rows: readonly SheetRow[], pairs: readonly PairOfColumns[]): boolean {
  if (pairs.some(({ name }) => name !== null)) return false;
  const filled = rows.filter(({ cells }) => cells.some((cell) => cell?.text.trim()));
  // A title may stand above.
  const from = filled.findIndex(({ cells }) => pairs.every(({ label, value }) => cells[label]?.text.trim() && cells[value]?.text.trim()));
  const [first, ...rest] = filled.slice(Math.max(0, from));
  if (!first || rest.length < 2) return true;
  const labels = pairs.flatMap(({ label }) => rest.flatMap(({ cells }) => (cells[label]?.text.trim() ? [cells[label].text] : [])));
  const headings = labels.filter(isHeading).length;
  const isHeaded = pairs.every(
    ({ label, value }) => isLabel(first.cells[value]) && isHeading(first.cells[value]!.text) && isHeading(first.cells[label]?.text ?? ''),
  );
  // Below headings stand values; below a label stand other labels.
  if (isHeaded && headings < labels.length / 2) return true;
  if (headings >= labels.length / 2 && !isHeaded) return false;
  if (labels.filter((text) => /:\s*$/.test(text)).length >= labels.length / 2) return false;
  // The values of a record are of several kinds; those of a table's column are of one.
  return pairs.every(({ value }) => {
    const kinds = new Set(rest.map(({ cells: { [value]: cell = emptyCell } }) => kindOf(cell)));
    kinds.delete('none');
    return kinds.size <= 1 && isLabel(first.cells[value]);
  });
}

/** What pairs make of the columns of a sheet, a letter a column: l labels, n names, v values, - none of them. */
export function rolesOf(pairs: readonly PairOfColumns[], width: number): string {
  const roles = Array.from({ length: Math.min(width, MOST_COLUMNS) }, () => '-');
  for (const { label, value, name } of pairs) {
    roles[label] = 'l';
    roles[value] = 'v';
    if (name !== null) roles[name] = 'n';
  }
  return roles.join('');
}

/** The pairs that a person has pointed out: each column of values goes with the name, or the label, of the same place in their order. */
export function pairsOfRoles(roles: string): PairOfColumns[] {
  const columns = (role: string): number[] => [...roles].flatMap((one, index) => (one === role ? [index] : []));
  const [labels, names, values] = [columns('l'), columns('n'), columns('v')];
  return values.flatMap((value, index): PairOfColumns[] => {
    const name = names[index] ?? null;
    const label = labels[index] ?? labels.at(-1) ?? name;
    return label === null || label === undefined ? [] : [{ label, value, name }];
  });
}

/** What was taken for what, in the letters of columns. */
export function pairsSentence(pairs: readonly PairOfColumns[]): string {
  const letters = (columns: readonly number[]): string => [...new Set(columns)].map(columnLetters).join(t` and `);
  const names = pairs.flatMap(({ name }) => (name === null ? [] : [name]));
  const labels = pairs.flatMap(({ label, name }) => (label === name ? [] : [label]));
  return [
    ...(labels.length > 0 ? [t`labels in ${letters(labels)}`] : []),
    ...(names.length > 0 ? [t`names in ${letters(names)}`] : []),
    t`values in ${letters(pairs.map(({ value }) => value))}`,
  ].join(', ');
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
