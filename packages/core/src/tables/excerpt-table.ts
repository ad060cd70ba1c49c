import { MailbagError } from '../errors/catalogue.js';
import type { FormRecord } from '../formdata/form-record.js';
import { Allowance } from './allowance.js';
import { firstCsvRows, openCsv } from './csv.js';
import { formRecords, pairsFor } from './form-records.js';
import { guessHeadingRow, twoHeadingRows, upperHeadings } from './headings.js';
import { looksLikeTable, rolesOf } from './label-value.js';
import { LOOK_ROWS, bookOf, firstRows, mergesOf, pickSheet } from './open-book.js';
import type { SheetBook, SheetRow } from './sheet-book.js';
import type { TableExcerpt, TableFile, TableKind, TableReading } from './table-file.js';
import { sizeOf, tableKind } from './table-file.js';

/** Rows, columns and UTF-16 units of a cell that an excerpt shows. */
const EXCERPT_ROWS = 30;
const EXCERPT_COLUMNS = 2000;
const EXCERPT_UNITS = 300;

const shownText = (text: string): string => (text.length > EXCERPT_UNITS ? `${text.slice(0, EXCERPT_UNITS)}…` : text);

const textsOf = (rows: readonly SheetRow[]): { row: number; cells: string[] }[] =>
  rows.map(({ row, cells }) => ({ row, cells: Array.from(cells.slice(0, EXCERPT_COLUMNS), (cell) => shownText(cell?.text ?? '')) }));

/** Records of differing values as rows below their names. */
const asRows = (records: readonly FormRecord[]): { row: number; cells: string[] }[] => {
  const names = [...new Set(records.flatMap((record) => [...record.keys()]))].slice(0, EXCERPT_COLUMNS);
  return [names, ...records.map((record) => names.map((name) => shownText(record.get(name)?.text ?? '')))].map((cells, index) => ({
    row: index,
    cells,
  }));
};

/** The first rows of a file, with sheet, layout and heading row guessed. @throws MailbagError sheet-*, formdata-* */
export const excerptTable = async (file: TableFile, reading: TableReading = {}): Promise<TableExcerpt> => {
  const kind = tableKind(file);
  return (await lookInto(file, kind, await bookOf(file, kind), reading)).excerpt;
};

/** What a look at the first rows tells. */
export interface Look {
  excerpt: TableExcerpt;
  /** Texts of the upper one of two rows of headings, by column; null: there is only one. */
  upper: string[] | null;
}

export async function lookInto(file: TableFile, kind: TableKind, book: SheetBook | null, reading: TableReading): Promise<Look> {
  const base = { kind, layout: 'table' as const, roles: null, sheets: [], sheet: null, encoding: null, delimiter: null };
  const only = (excerpt: TableExcerpt): Look => ({ excerpt, upper: null });
  if (kind === 'csv') {
    const table = openCsv(file.bytes, file.name, reading);
    const head = firstCsvRows(table, EXCERPT_ROWS);
    const { encoding, delimiter } = table;
    const rows = head.map((cells, index) => ({ row: index + 1, cells: cells.map(shownText) }));
    return only({ ...base, headingRow: reading.headingRow ?? guessHeadingRow(head) + 1, encoding, delimiter, rows });
  }
  if (!book) {
    const { records } = (await formRecords(file, kind, reading))!;
    return only({ ...base, headingRow: 0, rows: asRows(records.slice(0, EXCERPT_ROWS)) });
  }
  const sheets = book.sheets.map(({ name, hidden }) => ({ name, hidden }));
  const sheet = pickSheet(book, file.name, reading.sheet);
  const { rows, facts } = await firstRows(book, sheet.name, new Allowance(file.name, sizeOf(file)), LOOK_ROWS);
  const pairs = reading.layout === 'table' ? [] : pairsFor(rows, facts, file, reading);
  if (pairs.length > 0 && (reading.layout === 'pairs' || (reading.headingRow === undefined && !looksLikeTable(rows, pairs))))
    return only({
      ...base,
      sheets,
      sheet: sheet.name,
      layout: 'pairs',
      roles: rolesOf(
        pairs,
        rows.reduce((widest, { cells }) => Math.max(widest, cells.length), 0),
      ),
      headingRow: 0,
      rows: textsOf(rows.slice(0, EXCERPT_ROWS)),
    });
  if (reading.layout === 'pairs') throw new MailbagError('sheet-no-pairs', { where: `${file.name}, sheet “${sheet.name}”` });
  const texts = textsOf(rows.slice(0, EXCERPT_ROWS));
  const merges = await mergesOf(book, sheet.name, rows, facts);
  const at = twoHeadingRows(texts, merges) ?? guessHeadingRow(texts.map((row) => row.cells));
  const excerpt = { ...base, sheets, sheet: sheet.name, headingRow: reading.headingRow ?? texts[at]?.row ?? 1, rows: texts };
  return { excerpt, upper: upperHeadings(excerpt, merges) };
}
