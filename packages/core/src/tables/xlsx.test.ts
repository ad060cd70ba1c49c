import ExcelJS from 'exceljs';
import type { ZipParts } from '../platform/ports.js';
import { unzip } from '../testing/unzip.js';
import { readTable } from './read-table.js';
import type { SourceRecord } from './record.js';
import { serialDate } from './number-cell.js';

async function read(bytes: Uint8Array, reading = {}) {
  const records: SourceRecord[] = [];
  const result = await readTable({ name: 'x.xlsx', bytes, zip: unzip(bytes) }, reading, (block) => records.push(...block));
  return { ...result, records, texts: records.map(({ cells }) => cells.map((cell) => cell.text)) };
}
async function workbook(fill: (sheet: ExcelJS.Worksheet, book: ExcelJS.Workbook) => void): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  fill(book.addWorksheet('Data'), book);
  return new Uint8Array(await book.xlsx.writeBuffer());
}

test('cells come as they are seen and as typed values: dates, money, percent, leading zeros, truth, formulas, links', async () => {
  const bytes = await workbook((sheet) => {
    sheet.addRow(['Born', 'Rent', 'Share', 'Postcode', 'Water', 'Sum', 'Mail', 'Rich', 'Long']);
    sheet.addRow([
      new Date(Date.UTC(1961, 2, 14)),
      164,
      0.25,
      4471,
      true,
      { formula: '1+1', result: 2 },
      { text: 'a@example.org', hyperlink: 'mailto:a@example.org' },
      { richText: [{ text: 'Ay' }, { text: 'umi' }] },
      '1234567890123456789',
    ]);
    const row = sheet.getRow(2);
    row.getCell(1).numFmt = 'dd.mm.yyyy';
    row.getCell(2).numFmt = '#,##0.00 "€"';
    row.getCell(3).numFmt = '0%';
    row.getCell(4).numFmt = '00000';
  });
  const { texts, records } = await read(bytes);
  expect(texts[0]).toEqual(['14.03.1961', '164.00 €', '25%', '04471', 'TRUE', '2', 'a@example.org', 'Ayumi', '1234567890123456789']);
  expect(records[0]!.cells.map((cell) => cell.value)).toEqual([
    '1961-03-14',
    164,
    0.25,
    4471,
    true,
    2,
    'a@example.org',
    'Ayumi',
    '1234567890123456789',
  ]);
});

test('hidden rows and columns are read and said, errors too', async () => {
  const bytes = await workbook((sheet) => {
    sheet.addRow(['Plot', 'Secret', 'Sum']);
    sheet.addRow(['A-1', 'x', { error: '#N/A' }]);
    sheet.addRow(['A-2', 'y', 2]);
    sheet.getRow(3).hidden = true;
    sheet.getColumn(2).hidden = true;
  });
  const { notes, texts } = await read(bytes);
  expect(texts).toHaveLength(2);
  expect(notes).toEqual(
    expect.arrayContaining([
      { code: 'hidden-rows', count: 1, names: [] },
      { code: 'hidden-columns', count: 1, names: ['Secret'] },
      { code: 'error-cells', count: 1, names: ['C2'] },
    ]),
  );
});

test('the sheet is chosen by name, and a wrong name is told with those there are', async () => {
  const bytes = await workbook((sheet, book) => {
    sheet.addRow(['A']);
    sheet.addRow(['1']);
    book.addWorksheet('Other').addRows([['B'], ['2']]);
  });
  expect((await read(bytes, { sheet: 'Other' })).columns[0]!.name).toBe('B');
  await expect(read(bytes, { sheet: 'Missing' })).rejects.toThrow('no sheet named “Missing”. It has “Data”, “Other”');
});

test('a file that would unpack to more than a machine holds is refused by its directory, unread', async () => {
  const zip: ZipParts = {
    parts: [{ name: 'xl/workbook.xml', size: 4_000_000_000, compressedSize: 4_000_000 }],
    read: () => {
      throw new Error('was read');
    },
  };
  await expect(readTable({ name: 'bomb.xlsx', bytes: Uint8Array.from([0x50, 0x4b]), zip }, {}, () => undefined)).rejects.toMatchObject({
    code: 'sheet-zip-bomb',
  });
});

test('a part with a doctype is refused, so that entities cannot grow', async () => {
  const xml = '<!DOCTYPE x [<!ENTITY a "aaaa">]><workbook/>';
  const zip: ZipParts = {
    parts: [{ name: 'xl/workbook.xml', size: 9, compressedSize: 9 }],
    async *read() {
      yield new TextEncoder().encode(xml);
    },
  };
  await expect(readTable({ name: 'x.xlsx', bytes: Uint8Array.from([0x50, 0x4b]), zip }, {}, () => undefined)).rejects.toMatchObject({
    code: 'sheet-damaged',
  });
});

// ECMA-376, part 1, 18.17.4.1: serial 1 is 1 January 1900, 61 is 1 March 1900; in the 1904 system 0 is 1 January 1904.
test('serial dates follow both date systems', () => {
  expect([serialDate(1, false), serialDate(61, false), serialDate(44197, false), serialDate(0, true), serialDate(44197.5, false)]).toEqual([
    '1900-01-01',
    '1900-03-01',
    '2021-01-01',
    '1904-01-01',
    '2021-01-01T12:00:00',
  ]);
});
