/** A cell: the text as the person sees it in their own program, and the typed value. Dates are ISO 8601 text with `kind` of the column saying so. */
export interface Cell {
  text: string;
  value: string | number | boolean | null;
}

export type ColumnKind = 'text' | 'number' | 'date' | 'yes-no' | 'address';

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
}

/** One row of a source. `row` is the row in the sheet, 1-based, as the person sees it. */
export interface SourceRecord {
  row: number;
  cells: Cell[];
}

/** Something to know about a source that was read all the same. */
export interface SourceNote {
  code:
    | 'hidden-rows'
    | 'hidden-columns'
    | 'double-heading'
    | 'empty-heading'
    | 'error-cells'
    | 'ragged-rows'
    | 'encoding-guessed'
    | 'empty-rows'
    | 'hidden-sheet';
  count: number;
  names: string[];
}

const noteSentences: Record<SourceNote['code'], (note: SourceNote) => string> = {
  'hidden-rows': (note) => `${note.count} hidden rows were read too.`,
  'hidden-columns': (note) => `Hidden columns were read too: ${note.names.join(', ')}.`,
  'double-heading': (note) => `Headings that stood twice were numbered: ${note.names.join(', ')}.`,
  'empty-heading': (note) => `${note.count} columns without a heading were named after their place: ${note.names.join(', ')}.`,
  'error-cells': (note) => `${note.count} cells hold an error such as #N/A: ${note.names.join(', ')}. They came in as that text.`,
  'ragged-rows': (note) =>
    `${note.count} rows have more cells than there are headings; the surplus was left out: ${note.names.join(', ')}.`,
  'encoding-guessed': (note) => `The file does not say its encoding; it was read as ${note.names.join(', ')}.`,
  'empty-rows': (note) => `${note.count} empty rows were skipped.`,
  'hidden-sheet': (note) => `The sheet ${note.names.join(', ')} is hidden in the workbook.`,
};
export const sourceNoteSentence = (note: SourceNote): string => noteSentences[note.code](note);

export const emptyCell: Cell = { text: '', value: null };
export const cellText = (record: SourceRecord, index: number): string => record.cells[index]?.text ?? '';
