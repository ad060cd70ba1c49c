import { readFileSync } from 'node:fs';
import { parentPort, workerData } from 'node:worker_threads';
import type { ForeignBook, ForeignCell } from '@mailbag/core';
import { read } from '@e965/xlsx';
import type { CellObject, WorkSheet } from '@e965/xlsx';

/** Rows of a sheet that are read; a sheet of the older formats has at most as many. */
const MOST_ROWS = 1_048_576;
/** Cells of a workbook that are handed on. */
const MOST_CELLS = 5_000_000;

/** Names of error values by their codes in the binary formats ([MS-XLS], 2.5.10, BErr). */
const errorNames: Record<number, string> = {
  0x00: '#NULL!',
  0x07: '#DIV/0!',
  0x0f: '#VALUE!',
  0x17: '#REF!',
  0x1d: '#NAME?',
  0x24: '#NUM!',
  0x2a: '#N/A',
};

function cellOf(cell: CellObject | undefined): ForeignCell | null {
  if (!cell) return null;
  switch (cell.t) {
    case 'n':
      return { type: 'number', value: Number(cell.v), format: typeof cell.z === 'string' ? cell.z : 'General' };
    case 'b':
      return { type: 'truth', value: cell.v === true };
    case 'e':
      return { type: 'error', text: cell.w ?? errorNames[Number(cell.v)] ?? '#VALUE!' };
    case 's':
      return { type: 'text', text: String(cell.v ?? '') };
    default:
      return null;
  }
}

function sheetOf(name: string, hidden: boolean, sheet: WorkSheet): ForeignBook['sheets'][number] {
  const data = (sheet['!data'] ?? []) as (CellObject | undefined)[][];
  return {
    name,
    hidden,
    hiddenColumns: (sheet['!cols'] ?? []).flatMap((column, index) => (column?.hidden ? [index] : [])),
    merges: (sheet['!merges'] ?? []).map(({ s, e }) => ({ top: s.r + 1, left: s.c, bottom: e.r + 1, right: e.c })),
    rows: data.slice(0, MOST_ROWS).flatMap((cells, index) => {
      if (!cells?.some((cell) => cell !== undefined && cell.t !== 'z')) return [];
      return [{ row: index + 1, hidden: sheet['!rows']?.[index]?.hidden ?? false, cells: Array.from(cells, cellOf) }];
    }),
  };
}

const { path } = workerData as { path: string };
const book = read(readFileSync(path), {
  dense: true,
  // Text tables keep what stands in them; leading zeros would be lost otherwise.
  raw: true,
  cellNF: true,
  cellText: false,
  cellHTML: false,
  cellFormula: false,
  cellStyles: true,
  bookVBA: true,
});
const answer: ForeignBook = {
  sheets: book.SheetNames.map((name, index) => sheetOf(name, (book.Workbook?.Sheets?.[index]?.Hidden ?? 0) !== 0, book.Sheets[name]!)),
  date1904: book.Workbook?.WBProps?.date1904 ?? false,
  hasMacros: book.vbaraw !== undefined,
};
const cells = answer.sheets.reduce((sum, { rows }) => sum + rows.reduce((own, row) => own + row.cells.length, 0), 0);
parentPort!.postMessage(cells > MOST_CELLS ? null : answer);
