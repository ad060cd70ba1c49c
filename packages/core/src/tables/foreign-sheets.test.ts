import ExcelJS from 'exceljs';
import iconv from 'iconv-lite';
import { zipSync, strToU8, unzipSync, strFromU8 } from 'fflate';
import { unzip } from '../testing/unzip.js';
import { excerptTable } from './excerpt-table.js';
import { readTable } from './read-table.js';
import type { TableFile } from './table-file.js';
import { sourceNoteSentence } from './record.js';
import type { SourceRecord } from './record.js';

async function read(file: TableFile, reading = {}) {
  const records: SourceRecord[] = [];
  const result = await readTable(file, reading, (block) => records.push(...block));
  return {
    ...result,
    records,
    names: result.columns.map(({ name }) => name),
    texts: records.map(({ cells }) => cells.map(({ text }) => text)),
    values: records.map(({ cells }) => cells.map(({ value }) => value)),
    notes: result.notes.map(sourceNoteSentence),
  };
}
const workbook = async (fill: (sheet: ExcelJS.Worksheet, book: ExcelJS.Workbook) => void): Promise<Uint8Array> => {
  const book = new ExcelJS.Workbook();
  fill(book.addWorksheet('Data'), book);
  return new Uint8Array(await book.xlsx.writeBuffer());
};
const xlsx = (bytes: Uint8Array, more: Partial<TableFile> = {}): TableFile => ({ name: 'x.xlsx', bytes, zip: unzip(bytes), ...more });

/** Encoded by another library (iconv-lite), which knows the tables of the encodings independently. */
describe('a CSV file that does not say its encoding', () => {
  const polish = 'Imię;Nazwisko;Miejscowość\nŁukasz;Wójcik;Łódź\nMałgorzata;Śliwińska;Gdańsk\n';
  const czech = 'Jméno;Příjmení;Město\nJiří;Dvořák;České Budějovice\nŽofie;Němcová;Ústí nad Labem\n';
  const russian = 'Имя;Город;Сумма\nИванов Пётр;Москва;12\nСидорова Анна;Казань;7\n';
  const japanese = '氏名,住所,金額\n山田太郎,東京都千代田区,1200\n佐藤花子,大阪府大阪市北区,800\n';
  test.each([
    ['utf-16le', 'Name,Ort\nMüller,Köln\n'],
    ['utf-16be', 'Name;Ort\nŁukasz;Kraków\n'],
    ['utf-16le', japanese],
    ['shift_jis', japanese],
    ['euc-jp', japanese],
    ['gb18030', '姓名,地址,金额\n王小明,北京市海淀区中关村,1200\n李丽,上海市浦东新区,800\n'],
    ['big5', '姓名,地址,金額\n王小明,臺北市信義區,1200\n陳美麗,高雄市三民區,800\n'],
    ['euc-kr', '이름,주소,금액\n김철수,서울특별시 강남구,1200\n박영희,부산광역시 해운대구,800\n'],
    ['windows-1250', polish],
    ['iso-8859-2', polish],
    ['windows-1250', czech],
    ['iso-8859-2', czech],
    ['windows-1250', 'Név;Város;Összeg\nKovács Őrs;Győr;12\nSzűcs Ágnes;Pécs;7\n'],
    ['windows-1251', russian],
    ['koi8-r', russian],
    ['iso-8859-5', russian],
    ['windows-1253', 'Όνομα;Πόλη\nΓιώργος;Αθήνα\nΕλένη;Θεσσαλονίκη\n'],
    ['windows-1254', 'Adı;Şehir\nGülşah Çağlar;İzmir\nOğuz Yılmaz;Muğla\n'],
    ['windows-1257', 'Vārds;Pilsēta\nJānis Bērziņš;Rīga\nĢirts Šķēle;Liepāja\n'],
    ['windows-1252', 'Name;Straße;Ort\nGroß;Königsallee 3;Düsseldorf\nWeiß;Größenweg 4;Köln\n'],
    ['windows-1252', 'Nom;Prénom;Ville\nLefèvre;Zoé;Besançon\nGarçon;Noël;Nîmes\n'],
    ['cp850', 'Name;Straße;Ort\nGroß;Königsallee 3;Düsseldorf\nWeiß;Größenweg 4;Köln\n'],
    ['cp852', polish],
    ['macintosh', 'Name;Straße;Ort\nGroß;Königsallee 3;Düsseldorf\n'],
  ])('in %s is read as it was written', async (encoding, text) => {
    const bytes = new Uint8Array(iconv.encode(text, encoding, { addBOM: false }));
    const { names, texts } = await read({ name: 'x.csv', bytes, zip: null });
    const mark = text.includes(';') ? ';' : ',';
    expect([names, ...texts]).toEqual(
      text
        .trim()
        .split('\n')
        .map((line) => line.split(mark)),
    );
  });
});

describe('a workbook of another writer', () => {
  const plain = (): Promise<Uint8Array> =>
    workbook((sheet) => {
      sheet.addRow(['Name', 'Born', 'At']);
      sheet.addRow(['Ada', new Date(Date.UTC(1980, 1, 3)), 0.586805555555556]);
      sheet.getCell('B2').numFmt = 'dd.mm.yyyy';
      sheet.getCell('C2').numFmt = 'h:mm';
    });
  const rewritten = async (change: (part: string, text: string) => string): Promise<TableFile> => {
    const parts = unzipSync(await plain());
    return xlsx(
      zipSync(
        Object.fromEntries(
          Object.entries(parts).map(([name, data]) => [name, /\.(xml|rels)$/.test(name) ? strToU8(change(name, strFromU8(data))) : data]),
        ),
      ),
    );
  };
  test('has prefixed names of elements (ECMA-376 leaves prefixes to the writer)', async () => {
    const file = await rewritten((name, text) =>
      /^xl\/(workbook|styles|sharedStrings|worksheets\/sheet1)\.xml$/.test(name)
        ? text.replace(/<(\/?)([A-Za-z])/g, '<$1x:$2').replaceAll('xmlns="', 'xmlns:x="')
        : text,
    );
    expect((await read(file)).texts).toEqual([['Ada', '03.02.1980', '14:05']]);
  });
  test('writes dates and times as ISO 8601 texts (ECMA-376, part 1, 18.18.11)', async () => {
    const file = await rewritten((name, text) =>
      name.endsWith('sheet1.xml')
        ? text
            .replace(/<c r="B2"[^>]*>.*?<\/c>/, '<c r="B2" t="d"><v>1980-02-03T00:00:00.000</v></c>')
            .replace(/<c r="C2"[^>]*>.*?<\/c>/, '<c r="C2" t="d"><v>14:05:00</v></c>')
        : text,
    );
    expect((await read(file)).values).toEqual([['Ada', '1980-02-03', '14:05']]);
  });
  test('a time of day is typed as a time', async () => {
    expect((await read(xlsx(await plain()))).values).toEqual([['Ada', '1980-02-03', '14:05']]);
  });
  test('durations are no dates, and the date system of 1904 does not move them', async () => {
    const bytes = await workbook((sheet, book) => {
      book.properties.date1904 = true;
      sheet.addRow(['Who', 'How long', 'When']);
      sheet.addRow(['Ada', 1.2604166666666667, 44989]);
      sheet.getCell('B2').numFmt = '[h]:mm';
      sheet.getCell('C2').numFmt = 'yyyy-mm-dd';
    });
    expect((await read(xlsx(bytes))).texts).toEqual([['Ada', '30:15', '2027-03-05']]);
  });
});

test('cells beyond the last heading get a column of their own, and it is said', async () => {
  const bytes = await workbook((sheet) =>
    sheet.addRows([
      ['A', 'B'],
      [1, 2],
      [3, 4, 'kept'],
      [5, 6],
    ]),
  );
  const { names, texts, notes, columns } = await read(xlsx(bytes));
  expect(names).toEqual(['A', 'B', 'Column C']);
  expect(texts[1]).toEqual(['3', '4', 'kept']);
  expect(columns[2]).toMatchObject({ empty: 2, distinct: 1 });
  expect(notes).toEqual(['1 row has cells beyond the last heading; they stand in columns of their own: Column C.']);
});

test.each([
  ['few', 3],
  ['many', 600],
])('two rows of headings are joined by their merged cells, with %s rows below', async (_, count) => {
  const bytes = await workbook((sheet) => {
    sheet.addRow(['Tenant', null, 'Plot', null]);
    sheet.addRow(['First', 'Last', 'Site', 'Number']);
    for (let row = 0; row < count; row++) sheet.addRow(['Ada', 'Lovell', 'Mill Lane', row]);
    sheet.mergeCells('A1:B1');
    sheet.mergeCells('C1:D1');
  });
  const { names, texts, notes } = await read(xlsx(bytes));
  expect(names).toEqual(['Tenant First', 'Tenant Last', 'Plot Site', 'Plot Number']);
  expect(texts).toHaveLength(count);
  expect(notes).toContain('Two rows of headings were joined, such as “Tenant First”, “Tenant Last”, “Plot Site”.');
});

describe('a sheet of two columns', () => {
  const sheet = (...rows: unknown[][]): Promise<Uint8Array> => workbook((data) => data.addRows(rows));
  test('with headings is a table, also below a title and with values of several kinds', async () => {
    for (const rows of [
      [
        ['Site', 'Rate'],
        ['Mill', 12.5],
        ['Weir', 'free'],
        ['Lane', 3],
      ],
      [['Members 2027'], ['Name', 'Town'], ['Ada', 'Ely'], ['Bo', 'Ware']],
      [
        ['Name', 'E-mail'],
        ['Ada', 'ada@example.org'],
        ['Bo', null],
        ['Cy', 'cy@example.org'],
      ],
    ])
      expect((await read(xlsx(await sheet(...rows)))).texts).toHaveLength(rows.at(-1)![0] === 'Bo' ? 2 : 3);
  });
  test('of labels and values is one record, and says which it was taken for; a person may say the other', async () => {
    const rows = [
      ['First name', 'Ada'],
      ['Last name', 'Lovell'],
      ['Born', new Date(Date.UTC(1980, 0, 2))],
      ['Town', 'Ely'],
    ];
    const bytes = await sheet(...rows);
    const { names, texts, notes } = await read(xlsx(bytes));
    expect(names).toEqual(['First name', 'Last name', 'Born', 'Town']);
    expect(texts).toHaveLength(1);
    expect(notes[0]).toBe(
      'The sheet was read as labels and values down the page (labels in A, values in B). If its first row holds headings, choose “A table” in its place.',
    );
    expect((await read(xlsx(bytes), { layout: 'table' })).texts).toHaveLength(3);
  });
});

test.each([
  ['as such names look', ['a.first', 'a.last', 'a.town'], ['b.first', 'b.last', 'b.town'], []],
  [
    'as the fields of a template are called',
    ['First', 'Last', 'Town'],
    ['Spouse', 'Family', 'Place'],
    ['First', 'Last', 'Town', 'Spouse', 'Family', 'Place'],
  ],
])('technical names that stand apart from their values are found, %s', async (_, one, two, fieldNames) => {
  const bytes = await workbook((sheet) => {
    ['Given name', 'Family name', 'Lives in'].forEach((label, index) =>
      sheet.addRow([label, one[index], two[index], `v${index}`, `w${index}`]),
    );
    sheet.getColumn(2).hidden = true;
    sheet.getColumn(3).hidden = true;
  });
  const { names, texts, notes } = await read(xlsx(bytes, { fieldNames }));
  expect(names).toEqual([...one, ...two]);
  expect(texts).toEqual([['v0', 'v1', 'v2', 'w0', 'w1', 'w2']]);
  expect(notes[0]).toContain('labels in A, names in B and C, values in D and E');
});

test('a person may point at the columns of labels, names and values', async () => {
  const bytes = await workbook((sheet) => {
    sheet.addRow(['First', 'Ada', 'x1']);
    sheet.addRow(['Last', 'Lovell', 'x2']);
  });
  const guessed = await excerptTable(xlsx(bytes), { layout: 'pairs', roles: 'lv-' });
  expect(guessed).toMatchObject({ layout: 'pairs', roles: 'lv-' });
  const { names, texts, reading } = await read(xlsx(bytes), { layout: 'pairs', roles: 'l-v' });
  expect([names, texts]).toEqual([['First', 'Last'], [['x1', 'x2']]]);
  // The same when the file comes again.
  expect(reading).toMatchObject({ layout: 'pairs', roles: 'l-v' });
});

test('an .ods of a writer that gives values as attributes only (OpenDocument 1.3, part 3, 19.385)', async () => {
  const cell = (attributes: string): string => `<table:table-cell ${attributes}/>`;
  const row = (cells: string): string => `<table:table-row>${cells}</table:table-row>`;
  const text = (value: string): string => cell(`office:value-type="string" office:string-value="${value}"`);
  const content =
    '<office:document-content xmlns:office="urn:oasis:names:tc:opendocument:xmlns:office:1.0" xmlns:table="urn:oasis:names:tc:opendocument:xmlns:table:1.0">' +
    '<office:body><office:spreadsheet><table:table table:name="S">' +
    row(text('Name') + text('Born') + text('At') + text('Rent')) +
    row(
      text('Ada') +
        cell('office:value-type="date" office:date-value="1980-02-03"') +
        cell('office:value-type="time" office:time-value="PT14H05M00S"') +
        cell('office:value-type="float" office:value="12.5"'),
    ) +
    '</table:table></office:spreadsheet></office:body></office:document-content>';
  const bytes = zipSync({ mimetype: strToU8('application/vnd.oasis.opendocument.spreadsheet'), 'content.xml': strToU8(content) });
  const { values } = await read({ name: 'x.ods', bytes, zip: unzip(bytes) });
  expect(values).toEqual([['Ada', '1980-02-03', '14:05', 12.5]]);
});
