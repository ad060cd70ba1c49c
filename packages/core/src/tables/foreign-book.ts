import { numberCell } from './number-cell.js';
import type { Cell, SourceNote } from './record.js';
import { emptyCell } from './record.js';
import type { ForeignBook, ForeignCell, SheetBook } from './sheet-book.js';

function cellOf(cell: ForeignCell | null, date1904: boolean): Cell {
  if (cell === null) return emptyCell;
  switch (cell.type) {
    case 'number':
      return numberCell(String(cell.value), cell.format, date1904);
    case 'truth':
      return { text: cell.value ? 'TRUE' : 'FALSE', value: cell.value };
    default:
      return { text: cell.text, value: cell.text };
  }
}

/** A workbook that a library has read in whole: the older binary formats. */
export function openForeign({ sheets, date1904, hasMacros }: ForeignBook): SheetBook {
  const notes: SourceNote[] = hasMacros ? [{ code: 'macros', count: 1, names: [] }] : [];
  return {
    sheets: sheets.map(({ name, hidden }) => ({ name, hidden })),
    notes,
    rows(name, onRow) {
      const { rows, hiddenColumns, merges } = sheets.find((sheet) => sheet.name === name)!;
      for (const { row, hidden, cells } of rows) if (!onRow({ row, hidden, cells: cells.map((cell) => cellOf(cell, date1904)) })) break;
      return Promise.resolve({ hiddenColumns, merges, notes: [] });
    },
  };
}
