import { t } from '../words/words.js';
import { MailbagError } from '../errors/catalogue.js';
import type { Allowance } from './allowance.js';
import { openForeign } from './foreign-book.js';
import type { SheetFacts } from './gather.js';
import { openOds } from './ods.js';
import type { SheetBook, SheetRow } from './sheet-book.js';
import type { TableFile, TableKind } from './table-file.js';
import { openXlsx } from './xlsx.js';

/** Rows of a sheet that are looked at to tell labels and values from a table. */
export const LOOK_ROWS = 400;

/** A workbook of any format; null: the file is none. @throws MailbagError sheet-* */
export async function bookOf(file: TableFile, kind: TableKind): Promise<SheetBook | null> {
  let book: SheetBook;
  if (kind === 'foreign') {
    if (!file.foreign) throw new MailbagError('sheet-old-workbook', { file: file.name });
    book = openForeign(await file.foreign());
  } else if (kind === 'xlsx' || kind === 'ods') {
    if (!file.zip) throw new MailbagError('sheet-damaged', { file: file.name, part: t`the zip directory` });
    book = await (kind === 'xlsx' ? openXlsx(file.zip, file.name) : openOds(file.zip, file.name));
  } else return null;
  if (book.sheets.length === 0) throw new MailbagError('sheet-damaged', { file: file.name, part: t`the list of sheets` });
  return book;
}

/** The sheet that is wanted, or the first that is not hidden. @throws MailbagError sheet-missing */
export function pickSheet(book: SheetBook, file: string, wanted?: string): SheetBook['sheets'][number] {
  if (wanted === undefined) return book.sheets.find((sheet) => !sheet.hidden) ?? book.sheets[0]!;
  const found = book.sheets.find((sheet) => sheet.name === wanted);
  if (!found) throw new MailbagError('sheet-missing', { file, sheet: wanted, sheets: book.sheets.map((sheet) => sheet.name) });
  return found;
}

/** The first rows of a sheet that hold anything. */
export async function firstRows(
  book: SheetBook,
  sheet: string,
  allowance: Allowance,
  limit: number,
): Promise<{ rows: SheetRow[]; facts: SheetFacts }> {
  const rows: SheetRow[] = [];
  const facts = await book.rows(sheet, (row) => {
    allowance.take(row.row, row.cells);
    if (row.cells.some((cell) => cell?.text)) rows.push(row);
    return rows.length < limit;
  });
  return { rows, facts };
}

/**
 * Merged ranges of a sheet. Workbooks tell them after all rows, so a long sheet is gone through for them, but only where the first rows look as if headings
 * were merged.
 */
export async function mergesOf(
  book: SheetBook,
  sheet: string,
  rows: readonly SheetRow[],
  facts: SheetFacts,
): Promise<SheetFacts['merges']> {
  if (facts.merges.length > 0 || rows.length < LOOK_ROWS) return facts.merges;
  const count = ({ cells }: SheetRow): number => cells.filter((cell) => cell?.text.trim()).length;
  const hasGaps = rows
    .slice(0, 10)
    .some((row, index) => count(row) >= 1 && count(row) < count(rows[index + 1]!) && rows[index + 1]!.row === row.row + 1);
  return hasGaps ? (await book.rows(sheet, () => true)).merges : [];
}
