import { plural, t, translated } from '../words/words.js';

/** A cell: the text as the person sees it in their own program, and the typed value. Dates are ISO 8601 text with `kind` of the column saying so. */
export interface Cell {
  text: string;
  value: string | number | boolean | null;
}

export const columnKinds = ['text', 'number', 'date', 'yes-no', 'email', 'phone', 'postal-code', 'iban', 'address', 'key'] as const;
export type ColumnKind = (typeof columnKinds)[number];

const kindNames: Record<ColumnKind, string> = {
  text: 'text',
  number: 'number',
  date: 'date',
  'yes-no': 'yes or no',
  email: 'e-mail',
  phone: 'phone',
  'postal-code': 'postal code',
  iban: 'IBAN',
  address: 'address',
  key: 'key',
};
export const columnKindName = (kind: ColumnKind): string => translated(kindNames[kind]);

/** How a person says that a column is to be read. What is left out is found out. */
export interface ColumnReading {
  kind?: ColumnKind;
  /** Order of dates such as 3/4/2027. */
  dates?: 'day-first' | 'month-first';
  /** What stands before the decimals of numbers that are text. */
  decimals?: 'comma' | 'point';
}

/** A column of a source. */
export interface Column {
  /** The heading, cleaned of stray spaces; unique within the source. */
  name: string;
  /** The name in patterns: lower case, digits, underscores. */
  slug: string;
  kind: ColumnKind;
  /** Number of empty cells, of different values (counted up to 1000), and the longest text. */
  empty: number;
  distinct: number;
  longest: string;
  /** Up to five different values. */
  examples: string[];
  /** What its values tell of how they are to be read. */
  found?: Pick<ColumnReading, 'dates' | 'decimals'>;
  /** What a person has set, which goes first. */
  reading?: ColumnReading;
}

/** How what stands in a column is read, also what is typed into it later. */
export const readingOf = ({ found, reading }: Pick<Column, 'found' | 'reading'>): ColumnReading => ({ ...found, ...reading });

/** One row of a source. `row` is the row in the sheet, 1-based, as the person sees it. */
export interface SourceRecord {
  row: number;
  cells: Cell[];
}

/** Something to know about a source that was read all the same. */
export interface SourceNote {
  code: keyof typeof noteSentences;
  count: number;
  names: string[];
}

const named = (note: { names: string[] }): string => note.names.join(', ');
const noteSentences = {
  'hidden-rows': (note) => t`${plural(note.count, 'hidden row was', 'hidden rows were')} read too.`,
  'hidden-columns': (note) => t`Hidden columns were read too: ${named(note)}.`,
  'hidden-sheet': (note) => t`The sheet ${named(note)} is hidden in the workbook.`,
  'other-hidden-sheets': (note) => t`The workbook also has hidden sheets, which were not read: ${named(note)}.`,
  'double-heading': (note) => t`Headings that stood twice were numbered: ${named(note)}.`,
  'empty-heading': (note) => t`${plural(note.count, 'column', 'columns')} without a heading got a name after its place: ${named(note)}.`,
  'error-cells': (note) =>
    t`${plural(note.count, 'cell holds', 'cells hold')} an error such as #N/A and came in as that text: ${named(note)}.`,
  'ragged-rows': (note) =>
    t`${plural(note.count, 'row has', 'rows have')} cells beyond the last heading; they stand in columns of their own: ${named(note)}.`,
  'short-rows': (note) =>
    t`${plural(note.count, 'row has', 'rows have')} fewer cells than there are headings; what is missing came in empty: ${named(note)}.`,
  'encoding-guessed': (note) => t`The file does not say its encoding; it was read as ${named(note)}.`,
  'empty-rows': (note) => t`${plural(note.count, 'empty row was', 'empty rows were')} skipped.`,
  'rows-above': (note) => t`${plural(note.count, 'row above the headings was', 'rows above the headings were')} skipped.`,
  'merged-cells': (note) =>
    t`${plural(note.count, 'merged cell', 'merged cells')} below the headings hold their value in the first cell only: ${named(note)}.`,
  'formula-without-value': (note) =>
    t`${plural(note.count, 'cell holds', 'cells hold')} a formula whose result was never saved, and came in empty: ${named(note)}. Open the workbook, save it and read it again.`,
  'digits-lost': (note) =>
    t`${plural(note.count, 'number has', 'numbers have')} more than 15 digits, of which the workbook itself has lost the last ones: ${named(note)}. Keep such numbers as text there.`,
  'digits-kept': (note) =>
    t`${plural(note.count, 'long number', 'long numbers')} came in as text, so that no digit is lost: ${named(note)}.`,
  'dates-ambiguous': (note) =>
    t`Dates such as 3/4/2027 can be read two ways in ${named(note)}. Set whether the day or the month comes first.`,
  'broken-quotes': (note) =>
    t`${plural(note.count, 'row has', 'rows have')} a quote in the wrong place: ${named(note)}. Look there before you go on.`,
  macros: () => t`The workbook has macros. They were ignored.`,
  'external-links': () => t`The workbook has links to other workbooks. They were not followed; the last saved values were read.`,
  'values-left-out': (note) =>
    t`${plural(note.count, 'value lies', 'values lie')} too deep in the file to become a column and was left out: ${named(note)}.`,
  'files-skipped': (note) => t`${plural(note.count, 'file was', 'files were')} skipped: ${named(note)}.`,
  'read-as-pairs': (note) =>
    t`The sheet was read as labels and values down the page (${named(note)}). If its first row holds headings, choose “A table” in its place.`,
  'two-heading-rows': (note) => t`Two rows of headings were joined, such as ${named(note)}.`,
  'rows-gathered': (note) =>
    t`${plural(note.count, 'row was', 'rows were')} gathered into the record of an earlier one with the same ${named(note)}; what differs stands in numbered columns.`,
  'rows-capped': (note) => t`Only the first ${named(note)} rows were read; the rest was left out.`,
} satisfies Record<string, (note: { count: number; names: string[] }) => string>;
export const sourceNoteSentence = (note: SourceNote): string => (noteSentences[note.code] as (note: SourceNote) => string)(note);

export const emptyCell: Cell = { text: '', value: null };
export const cellText = (record: SourceRecord, index: number): string => record.cells[index]?.text ?? '';
