import { spawnSync } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync, statSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { fileURLToPath } from 'node:url';
import { read as libraryRead, utils } from '@e965/xlsx';
import { readTable } from '@mailbag/core';
import { tableFile } from '@mailbag/host';
import ExcelJS from 'exceljs';
import { option } from './option.js';

const COLUMNS = 20;

/** A sheet as people keep them: texts, numbers with formats, dates, truth, leading zeros. */
async function writeSheet(path: string, rows: number): Promise<void> {
  const book = new ExcelJS.stream.xlsx.WorkbookWriter({ filename: path, useSharedStrings: true, useStyles: true });
  const sheet = book.addWorksheet('Data');
  sheet.addRow(Array.from({ length: COLUMNS }, (_, index) => `Column ${index + 1}`)).commit();
  for (let row = 0; row < rows; row++) {
    const cells = Array.from({ length: COLUMNS }, (_, index) => {
      switch (index % 5) {
        case 0:
          return `Name ${row} of ${index}`;
        case 1:
          return row * 1.25 + index;
        case 2:
          return new Date(Date.UTC(1950 + (row % 70), row % 12, 1 + (row % 28)));
        case 3:
          return row % 3 === 0;
        default:
          return (row * 7 + index) % 100_000;
      }
    });
    const line = sheet.addRow(cells);
    for (let index = 0; index < COLUMNS; index++) {
      if (index % 5 === 1) line.getCell(index + 1).numFmt = '#,##0.00 "€"';
      if (index % 5 === 2) line.getCell(index + 1).numFmt = 'dd.mm.yyyy';
      if (index % 5 === 4) line.getCell(index + 1).numFmt = '00000';
    }
    line.commit();
  }
  await book.commit();
}

/** Each reader goes through all cells once; what it gives is counted, so that nothing is skipped. */
const readers: Record<string, (path: string) => Promise<number>> = {
  async ours(path) {
    let cells = 0;
    await readTable(await tableFile(path, 'sheet.xlsx'), {}, (records) => {
      for (const record of records) cells += record.cells.length;
    });
    return cells;
  },
  async exceljsStream(path) {
    let cells = 0;
    const reader = new ExcelJS.stream.xlsx.WorkbookReader(path, { sharedStrings: 'cache', styles: 'cache', worksheets: 'emit' });
    for await (const sheet of reader) for await (const row of sheet) row.eachCell({ includeEmpty: true }, () => void cells++);
    return cells;
  },
  sheetJs(path) {
    const book = libraryRead(readFileSync(path), { dense: true, cellDates: true, cellNF: true });
    const rows = utils.sheet_to_json<unknown[]>(book.Sheets[book.SheetNames[0]!]!, { header: 1 });
    return Promise.resolve(rows.reduce((sum, row) => sum + row.length, 0));
  },
};

interface Measured {
  seconds: number;
  peakMb: number;
  cells: number;
}

/** Heap in MB that a turn gets; `oursSmall` shows how little is enough, since a heap that may grow does. */
const heaps: Record<string, number> = { oursSmall: 128 };

/** Time and peak memory of reading one workbook, each reader in a process of its own, in turn. */
export async function sheetBench(): Promise<void> {
  const inside = option('inside', '');
  if (inside) {
    const from = performance.now();
    const cells = await readers[inside === 'oursSmall' ? 'ours' : inside]!(option('path', ''));
    const measured: Measured = { seconds: (performance.now() - from) / 1000, peakMb: process.resourceUsage().maxRSS / 1024, cells };
    console.log(JSON.stringify(measured));
    return;
  }
  const rows = Number(option('rows', '100000'));
  const folder = mkdtempSync(join(tmpdir(), 'mailbag-sheet-'));
  try {
    const path = join(folder, 'sheet.xlsx');
    await writeSheet(path, rows);
    const turns = 3;
    const results: Record<string, Measured[]> = {};
    for (let turn = 0; turn < turns; turn++) {
      for (const name of [...Object.keys(readers), ...Object.keys(heaps)]) {
        const { stdout, status } = spawnSync(
          process.execPath,
          [
            `--max-old-space-size=${heaps[name] ?? 8000}`,
            fileURLToPath(new URL('./main.js', import.meta.url)),
            'sheet',
            '--inside',
            name,
            '--path',
            path,
          ],
          { encoding: 'utf8', stdio: ['ignore', 'pipe', 'inherit'] },
        );
        if (status === 0) (results[name] ??= []).push(JSON.parse(stdout) as Measured);
      }
    }
    const median = (name: string, of: 'seconds' | 'peakMb'): number =>
      Number(
        [...(results[name] ?? [])]
          .map((one) => one[of])
          .sort((a, b) => a - b)
          [Math.floor(turns / 2)]!.toFixed(1),
      );
    console.log(
      JSON.stringify({
        case: `${rows} rows of ${COLUMNS} columns`,
        fileMb: Number((statSync(path).size / 1048576).toFixed(1)),
        ...Object.fromEntries(
          Object.keys(results).map((name) => [name, { seconds: median(name, 'seconds'), peakMb: median(name, 'peakMb') }]),
        ),
        timeToStream: Number((median('ours', 'seconds') / median('exceljsStream', 'seconds')).toFixed(2)),
        memoryToStream: Number((median('ours', 'peakMb') / median('exceljsStream', 'peakMb')).toFixed(2)),
      }),
    );
  } finally {
    rmSync(folder, { recursive: true });
  }
}
