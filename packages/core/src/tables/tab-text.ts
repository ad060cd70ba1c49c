import Papa from 'papaparse';

/**
 * Cells as spreadsheet programs put them on the clipboard as text and take them from it: columns divided by tabs, rows by lines, and cells in quotes
 * where they hold either (as RFC 4180 with tabs; common practice, no source).
 */
export const tabText = (cells: readonly (readonly string[])[]): string =>
  Papa.unparse(cells as string[][], { delimiter: '\t', newline: '\r\n', quotes: false });

/** The cells of such a text; rows may differ in length. The line break at its end, which most programs add, is no row. */
export function tabCells(text: string): string[][] {
  if (text === '') return [];
  const { data } = Papa.parse<string[]>(text.replace(/\r?\n$/, ''), { delimiter: '\t' });
  return data;
}
