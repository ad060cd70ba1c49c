import { copyFileSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { SourceRecord } from '@mailbag/core';
import { utils, write } from '@e965/xlsx';
import { execFileSync } from 'node:child_process';

const folder = mkdtempSync(join(tmpdir(), 'mailbag-tables-'));
afterAll(() => rmSync(folder, { recursive: true }));

/** The thread that reads the older formats runs only as it was built, so a built command is asked. */
function read(path: string): { columns: { name: string; kind: string }[]; records: { text: string; value: unknown }[][]; notes: string[] } {
  const out = execFileSync(process.execPath, ['apps/cli/bin/mailbag.mjs', 'records', path, '--json'], { encoding: 'utf8' });
  return JSON.parse(out) as ReturnType<typeof read>;
}
const texts = ({ records }: { records: { text: string }[][] }): SourceRecord['cells'][number]['text'][][] =>
  records.map((cells) => cells.map(({ text }) => text));

test('an .xls written by LibreOffice gives what its .xlsx gives', () => {
  const fixtures = 'packages/core/src/testing/workbooks';
  copyFileSync(join(fixtures, 'libreoffice.xls'), join(folder, 'members.xls'));
  copyFileSync(join(fixtures, 'libreoffice.xlsx'), join(folder, 'members.xlsx'));
  expect(read(join(folder, 'members.xls'))).toEqual(read(join(folder, 'members.xlsx')));
});
test('an .xlsb gives texts as they are shown and typed values', () => {
  const sheet = utils.aoa_to_sheet([
    ['Plot', 'Rent', 'Since'],
    ['A-1', 164.5, 22354],
    ['A-2', 20, 36525],
  ]);
  for (const row of [2, 3]) {
    (sheet[`B${row}`] as { z: string }).z = '#,##0.00 "€"';
    (sheet[`C${row}`] as { z: string }).z = 'dd.mm.yyyy';
  }
  const book = utils.book_new();
  utils.book_append_sheet(book, sheet, 'x');
  const path = join(folder, 'x.xlsb');
  writeFileSync(path, new Uint8Array(write(book, { type: 'array', bookType: 'xlsb' }) as ArrayBuffer));
  const result = read(path);
  expect(texts(result)).toEqual([
    ['A-1', '164.50 €', '14.03.1961'],
    ['A-2', '20.00 €', '31.12.1999'],
  ]);
  expect(result.records.map((cells) => cells.map(({ value }) => value))).toEqual([
    ['A-1', 164.5, '1961-03-14'],
    ['A-2', 20, '1999-12-31'],
  ]);
});
test('a table of HTML under the name of a workbook keeps its leading zeros', () => {
  const path = join(folder, 'export.xls');
  writeFileSync(
    path,
    '<html><body><table><tr><th>Plot</th><th>PLZ</th></tr><tr><td>A-1</td><td>01067</td></tr><tr><td>A-2</td><td>5512</td></tr></table></body></html>',
  );
  expect(texts(read(path))).toEqual([
    ['A-1', '01067'],
    ['A-2', '5512'],
  ]);
});
