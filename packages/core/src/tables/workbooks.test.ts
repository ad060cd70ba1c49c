import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { utils, write } from '@e965/xlsx';
import ExcelJS from 'exceljs';
import { unzip } from '../testing/unzip.js';
import { excerptTable } from './excerpt-table.js';
import { readTable } from './read-table.js';
import type { TableReading } from './table-file.js';
import type { SourceRecord } from './record.js';
import type { ForeignBook } from './sheet-book.js';

const fixture = (name: string): Uint8Array => new Uint8Array(readFileSync(join(__dirname, '../testing/workbooks', name)));
async function read(name: string, bytes: Uint8Array, reading: TableReading = {}, foreign?: ForeignBook) {
  const records: SourceRecord[] = [];
  const zip = bytes[0] === 0x50 ? unzip(bytes) : null;
  const file = { name, bytes, zip, ...(foreign ? { foreign: () => Promise.resolve(foreign) } : {}) };
  const result = await readTable(file, reading, (block) => records.push(...block));
  return { ...result, records };
}

/** What the person sees, and what it is. */
const members = {
  names: ['No', 'Name of member', 'Born', 'Fee', 'Share', 'Postal code', 'Active', 'Account', 'Joined at', 'Note'],
  texts: [
    [
      'M-01',
      ' Łucja Ñandú',
      '14.03.1961',
      '164.50 €',
      '25.0%',
      '01067',
      'TRUE',
      '1234567890123456789',
      '13:05',
      'first line\nsecond <line> & "more"',
    ],
    ['M-02', '李雷 𠮷野', '31.12.1999', '1,234,567.89 €', '7.5%', '20095', 'FALSE', '0049123', '00:30', ''],
    ['M-03', 'שלום ليلى', '', '-3.00 €', '100.0%', '99999', 'TRUE', '', '', '#tag =1+1'],
  ],
  values: [
    ['M-01', ' Łucja Ñandú', '1961-03-14', 164.5, 0.25, 1067, true, '1234567890123456789', '13:05', 'first line\nsecond <line> & "more"'],
    ['M-02', '李雷 𠮷野', '1999-12-31', 1234567.891, 0.075, 20095, false, '0049123', '00:30', null],
    ['M-03', 'שלום ليلى', null, -3, 1, 99999, true, null, null, '#tag =1+1'],
  ],
};
const formats = ['', '', 'dd.mm.yyyy', '#,##0.00 "€"', '0.0%', '00000', '', '', 'hh:mm', ''];
/** 1900 system: days since 30 December 1899 (ECMA-376, part 1, 18.17.4.1). */
const raw = [
  ['M-01', ' Łucja Ñandú', 22354, 164.5, 0.25, 1067, true, '1234567890123456789', 785 / 1440, 'first line\nsecond <line> & "more"'],
  ['M-02', '李雷 𠮷野', 36525, 1234567.891, 0.075, 20095, false, '0049123', 30 / 1440, null],
  ['M-03', 'שלום ليلى', null, -3, 1, 99999, true, null, null, '#tag =1+1'],
];

async function byExcelJs(): Promise<Uint8Array> {
  const book = new ExcelJS.Workbook();
  const sheet = book.addWorksheet('Members');
  sheet.addRow(['Members of the Larkmere bird club']);
  sheet.addRow([]);
  sheet.addRow(members.names);
  for (const cells of raw) {
    const row = sheet.addRow(cells);
    formats.forEach((format, index) => {
      if (format) row.getCell(index + 1).numFmt = format;
    });
  }
  return new Uint8Array(await book.xlsx.writeBuffer());
}
function bySheetJs(bookType: 'xlsx' | 'ods'): Uint8Array {
  const sheet = utils.aoa_to_sheet([['Members of the Larkmere bird club'], [], members.names, ...raw]);
  for (const [address, cell] of Object.entries(sheet)) {
    const format = formats[utils.decode_cell(address).c];
    if (!address.startsWith('!') && utils.decode_cell(address).r > 2 && format) (cell as { z: string }).z = format;
  }
  const book = utils.book_new();
  utils.book_append_sheet(book, sheet, 'Members');
  return new Uint8Array(write(book, { type: 'array', bookType, compression: true }) as ArrayBuffer);
}

test.each<[string, () => Promise<Uint8Array>]>([
  ['openpyxl 3', () => Promise.resolve(fixture('openpyxl.xlsx'))],
  ['LibreOffice as .xlsx', () => Promise.resolve(fixture('libreoffice.xlsx'))],
  ['LibreOffice as .ods', () => Promise.resolve(fixture('libreoffice.ods'))],
  ['exceljs', byExcelJs],
  ['SheetJS as .xlsx', () => Promise.resolve(bySheetJs('xlsx'))],
])('a workbook written by %s gives the records that the person sees', async (_, bytesOf) => {
  const { columns, records } = await read('members', await bytesOf());
  expect(columns.map(({ name }) => name)).toEqual(members.names);
  expect(records.map(({ cells }) => cells.map(({ text }) => text))).toEqual(members.texts);
  expect(records.map(({ cells }) => cells.map(({ value }) => value))).toEqual(members.values);
  expect(columns.map(({ kind }) => kind)).toEqual([
    'key',
    'text',
    'date',
    'number',
    'number',
    'postal-code',
    'yes-no',
    'text',
    'text',
    'text',
  ]);
});

test('hidden rows, columns and sheets are said whoever wrote the workbook', async () => {
  for (const name of ['openpyxl.xlsx', 'libreoffice.xlsx', 'libreoffice.ods']) {
    const { notes } = await read(name, fixture(name));
    expect([name, notes]).toEqual([
      name,
      expect.arrayContaining([
        { code: 'hidden-rows', count: 1, names: [] },
        { code: 'hidden-columns', count: 1, names: ['Account'] },
        { code: 'other-hidden-sheets', count: 1, names: ['Rates'] },
      ]),
    ]);
  }
});

const parts = (xml: Record<string, string>): Parameters<typeof readTable>[0] => ({
  name: 'x.xlsx',
  bytes: Uint8Array.from([0x50, 0x4b]),
  zip: {
    parts: Object.entries(xml).map(([name, text]) => ({ name, size: text.length, compressedSize: text.length })),
    async *read(name) {
      // In small pieces, so that every token is cut somewhere.
      const bytes = new TextEncoder().encode(xml[name]);
      for (let at = 0; at < bytes.length; at += 7) yield bytes.subarray(at, at + 7);
      await Promise.resolve();
    },
  },
});
const workbook = (sheet: string, more: Record<string, string> = {}): Parameters<typeof readTable>[0] =>
  parts({
    'xl/workbook.xml': `<workbook xmlns:r="r"><sheets><sheet name="A&amp;B" sheetId="1" r:id="rId1"/></sheets></workbook>`,
    'xl/_rels/workbook.xml.rels': `<Relationships><Relationship Id="rId1" Target="worksheets/sheet1.xml"/></Relationships>`,
    'xl/worksheets/sheet1.xml': `<worksheet><!-- <c> --><sheetData>${sheet}</sheetData></worksheet>`,
    ...more,
  });
const inline = (text: string): string => `<c t="inlineStr"><is><t>${text}</t></is></c>`;
async function readParts(file: Parameters<typeof readTable>[0], reading: TableReading = {}) {
  const records: SourceRecord[] = [];
  const result = await readTable(file, reading, (block) => records.push(...block));
  return { ...result, records };
}

test('cells without references, CDATA, entities and comments are read', async () => {
  const { columns, records } = await readParts(
    workbook(`<row>${inline('Name')}${inline('Plot')}</row><row>${inline('<![CDATA[a <b> & c]]>')}${inline('&#x1F600;&lt;')}</row>`),
  );
  expect(columns.map(({ name }) => name)).toEqual(['Name', 'Plot']);
  expect(records[0]!.cells.map(({ text }) => text)).toEqual(['a <b> & c', '😀<']);
});
test('a heading merged over two columns names both; what is merged below is said', async () => {
  const { columns, notes } = await readParts(
    workbook(
      `<row r="1"><c r="A1" t="str"><v>Plot</v></c><c r="B1" t="str"><v>Tenant</v></c><c r="D1" t="str"><v>Town</v></c></row>
      <row r="2"><c r="A2"><v>1</v></c><c r="B2" t="str"><v>Ayumi</v></c><c r="C2" t="str"><v>Brandt</v></c><c r="D2" t="str"><v>Larkmere</v></c></row>`.replace(
        '</row>\n      <row r="2">',
        '</row><row r="2">',
      ),
      {
        'xl/worksheets/sheet1.xml': `<worksheet><sheetData><row r="1"><c r="A1" t="str"><v>Plot</v></c><c r="B1" t="str"><v>Tenant</v></c><c r="D1" t="str"><v>Town</v></c></row><row r="2"><c r="A2"><v>1</v></c><c r="B2" t="str"><v>Ayumi</v></c><c r="C2" t="str"><v>Brandt</v></c><c r="D2" t="str"><v>Larkmere</v></c></row></sheetData><mergeCells><mergeCell ref="B1:C1"/><mergeCell ref="D2:D3"/></mergeCells></worksheet>`,
      },
    ),
    { headingRow: 1 },
  );
  expect(columns.map(({ name }) => name)).toEqual(['Plot', 'Tenant', 'Tenant 2', 'Town']);
  expect(notes).toContainEqual({ code: 'merged-cells', count: 1, names: ['D2'] });
});
test('macros, links to other workbooks and formulas without a result are said', async () => {
  const { notes } = await readParts(
    workbook(`<row>${inline('Plot')}${inline('Sum')}</row><row>${inline('A-1')}<c><f>1+1</f></c></row>`, {
      'xl/vbaProject.bin': 'x',
      'xl/externalLinks/externalLink1.xml': '<x/>',
    }),
    { headingRow: 1 },
  );
  expect(notes.map(({ code }) => code)).toEqual(expect.arrayContaining(['macros', 'external-links', 'formula-without-value']));
});
test('16,384 headings are refused in a sentence', async () => {
  const row = `<row>${inline('x').repeat(16_384)}</row>`;
  await expect(readParts(workbook(`${row}${row}`), { headingRow: 1 })).rejects.toThrow('has 16,384 columns; 2,000 can be read');
});
test('entities that would grow, and parts that are cut off, are refused', async () => {
  const bomb = { 'xl/worksheets/sheet1.xml': '<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><worksheet>&b;</worksheet>' };
  await expect(readParts(workbook('', bomb))).rejects.toMatchObject({ code: 'sheet-damaged' });
  await expect(readParts(workbook('', { 'xl/worksheets/sheet1.xml': '<worksheet><sheetData><row><c>' }))).rejects.toMatchObject({
    code: 'sheet-damaged',
  });
});

test('labels and values down the page: each sheet is a record, hidden names are used, columns of pairs stand side by side', async () => {
  const book = new ExcelJS.Workbook();
  for (const [sheetName, name, born] of [
    ['Quist', 'Petra Quist', new Date(Date.UTC(1961, 2, 14))],
    ['Bae', 'Jun Bae', new Date(Date.UTC(1990, 0, 2))],
  ] as const) {
    const sheet = book.addWorksheet(sheetName);
    sheet.addRow(['tenant.name', 'Name:', name, 'Water supply', true]);
    sheet.addRow(['tenant.born', 'Date of birth:', born, 'Area', 120]);
    sheet.addRow(['tenant.mail', 'E-mail:', `${sheetName.toLowerCase()}@example.org`, 'Shed', false]);
    sheet.getCell('C2').numFmt = 'dd.mm.yyyy';
    sheet.getColumn(1).hidden = true;
  }
  const bytes = new Uint8Array(await book.xlsx.writeBuffer());
  expect(await excerptTable({ name: 'x.xlsx', bytes, zip: unzip(bytes) })).toMatchObject({ layout: 'pairs', headingRow: 0 });
  const { columns, records, reading } = await read('x.xlsx', bytes);
  expect(reading.layout).toBe('pairs');
  expect(columns.map(({ name }) => name)).toEqual(['tenant.name', 'tenant.born', 'tenant.mail', 'Water supply', 'Area', 'Shed']);
  expect(records.map(({ cells }) => cells.map(({ value }) => value))).toEqual([
    ['Petra Quist', '1961-03-14', 'quist@example.org', true, 120, false],
    ['Jun Bae', '1990-01-02', 'bae@example.org', true, 120, false],
  ]);
});
test('a table of two columns of texts is not taken for labels and values', async () => {
  const sheet = new ExcelJS.Workbook();
  sheet.addWorksheet('x').addRows([
    ['Name', 'Town'],
    ['Petra', 'Larkmere'],
    ['Jun', 'Obernethe'],
  ]);
  const bytes = new Uint8Array(await sheet.xlsx.writeBuffer());
  expect((await read('x.xlsx', bytes)).columns.map(({ name }) => name)).toEqual(['Name', 'Town']);
});
