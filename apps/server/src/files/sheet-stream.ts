import { PassThrough } from 'node:stream';
import type { Readable } from 'node:stream';

/** Texts are strings of the format, which are never run as formulas; numbers, dates and truth values keep their kind. */
export type SheetValue = string | number | boolean | Date;
export interface SheetColumn {
  heading: string;
  /** In characters; as wide as the program that opens it likes when it is left out. */
  width?: number;
}

/**
 * A workbook (ECMA-376) of one sheet under a bold heading that stays in view, written block by block as it is taken: a million rows take no more memory than ten.
 * @param rows in blocks
 */
export function sheetStream(
  name: string,
  columns: readonly SheetColumn[],
  rows: AsyncIterable<readonly (readonly SheetValue[])[]>,
): Readable {
  const out = new PassThrough();
  const written = async (): Promise<void> => {
    // Only who exports needs it, and it takes a quarter of a second to load.
    const { default: ExcelJS } = await import('exceljs');
    const book = new ExcelJS.stream.xlsx.WorkbookWriter({ stream: out, useStyles: true });
    const sheet = book.addWorksheet(name, { views: [{ state: 'frozen', ySplit: 1 }] });
    columns.forEach(({ width }, index) => {
      if (width !== undefined) sheet.getColumn(index + 1).width = width;
    });
    const heading = sheet.addRow(columns.map((column) => column.heading));
    heading.font = { bold: true };
    heading.commit();
    for await (const block of rows) {
      for (const values of block) {
        const row = sheet.addRow([...values]);
        row.eachCell((cell) => {
          if (cell.value instanceof Date) cell.numFmt = 'yyyy-mm-dd';
        });
        row.commit();
      }
      // The file is written as fast as it is taken.
      if (out.writableNeedDrain) await new Promise((done) => out.once('drain', done));
    }
    sheet.commit();
    await book.commit();
  };
  void written().catch((error: Error) => out.destroy(error));
  return out;
}
