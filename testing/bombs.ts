import { randomBytes } from 'node:crypto';
import { deflateSync } from 'node:zlib';
import yazl from 'yazl';

/** A small file that comes to far more when it is read. */
export interface Bomb {
  what: string;
  /** Much like another one: thrown only when all are (ATTACK=whole in the environment). */
  isTwin?: true;
  file: string;
  bytes: () => Promise<Uint8Array> | Uint8Array;
}

const KB = 1000;
const bytesOf = (text: string): Uint8Array => new TextEncoder().encode(text);

async function zipOf(parts: Record<string, string | Buffer>): Promise<Uint8Array> {
  const zip = new yazl.ZipFile();
  for (const [name, part] of Object.entries(parts)) zip.addBuffer(Buffer.from(part), name);
  zip.end();
  const chunks: Buffer[] = [];
  for await (const chunk of zip.outputStream) chunks.push(chunk as Buffer);
  return Buffer.concat(chunks);
}

/** A spreadsheet in OpenDocument with the given rows. */
const ods = (rows: string, before = ''): Promise<Uint8Array> =>
  zipOf({
    mimetype: 'application/vnd.oasis.opendocument.spreadsheet',
    'content.xml': `<?xml version="1.0"?><office:document-content xmlns:office="o" xmlns:table="t" xmlns:text="x"><office:body><office:spreadsheet><table:table table:name="S">${before}${rows}</table:table></office:spreadsheet></office:body></office:document-content>`,
  });
const odsCell = (text: string, more = ''): string =>
  `<table:table-cell${more} office:value-type="string"><text:p>${text}</text:p></table:table-cell>`;
const odsRow = (cells: string, more = ''): string => `<table:table-row${more}>${cells}</table:table-row>`;
const odsHeadings = (columns: number): string => odsRow(Array.from({ length: columns }, (_, index) => odsCell(`c${index}`)).join(''));

/** A workbook in SpreadsheetML with the given sheet data. */
const xlsx = (data: string, more: Record<string, string> = {}, columns = ''): Promise<Uint8Array> =>
  zipOf({
    'xl/workbook.xml': '<workbook xmlns:r="r"><sheets><sheet name="S" sheetId="1" r:id="r1"/></sheets></workbook>',
    'xl/_rels/workbook.xml.rels': '<Relationships><Relationship Id="r1" Target="worksheets/sheet1.xml"/></Relationships>',
    'xl/worksheets/sheet1.xml': `<worksheet>${columns}<sheetData>${data}</sheetData></worksheet>`,
    ...more,
  });
const xlsxText = (at: string, text: string): string => `<c r="${at}" t="inlineStr"><is><t>${text}</t></is></c>`;
const twoHeadings = `<row r="1">${xlsxText('A1', 'Plot')}${xlsxText('B1', 'Name')}</row>`;

/** A PDF of the given objects, found by their headers alone. */
const pdf = (objects: Record<number, string | Buffer>): Uint8Array => {
  const parts: Buffer[] = [Buffer.from('%PDF-1.7\n')];
  for (const [number, body] of Object.entries(objects))
    parts.push(Buffer.from(`${number} 0 obj\n`), Buffer.from(body), Buffer.from('\nendobj\n'));
  parts.push(Buffer.from('trailer\n<</Root 1 0 R/Size 99>>\nstartxref\n0\n%%EOF\n'));
  return Buffer.concat(parts);
};
const pdfStream = (dict: string, body: Buffer): Buffer =>
  Buffer.concat([Buffer.from(`<<${dict}/Length ${body.length}>>\nstream\n`), body, Buffer.from('\nendstream')]);
const form = '/AcroForm<</Fields[4 0 R]/DA(/Helv 0 Tf 0 g)>>';
const field = '<</Type/Annot/Subtype/Widget/FT/Tx/T(name)/Rect[0 0 100 20]/P 3 0 R>>';
const page = '<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 200]/Annots[4 0 R]>>';
const plain = { 1: `<</Type/Catalog/Pages 2 0 R${form}>>`, 2: '<</Type/Pages/Count 1/Kids[3 0 R]>>', 3: page, 4: field };

/** Zeros, packed as often as asked: each time about a thousandth is left. */
function packed(megabytes: number, times: number): Buffer {
  let body = deflateSync(Buffer.alloc(megabytes * 1024 * 1024));
  for (let count = 1; count < times; count++) body = deflateSync(body);
  return body;
}

/** By each format in which records come. */
export const sheetBombs: Bomb[] = [
  {
    what: 'an .ods of repeated rows and columns',
    file: 'bomb.ods',
    bytes: () =>
      ods(odsHeadings(1900) + odsRow(odsCell('x', ' table:number-columns-repeated="1900"'), ' table:number-rows-repeated="1000000"')),
  },
  {
    what: 'an .ods of repeated long rows',
    file: 'bomb.ods',
    bytes: () => ods(odsHeadings(2) + odsRow(odsCell('y'.repeat(100 * KB)).repeat(2), ' table:number-rows-repeated="400000"')),
  },
  {
    what: 'an .ods of spaces',
    file: 'bomb.ods',
    bytes: () => ods(odsHeadings(2) + odsRow(odsCell('<text:s text:c="1000"/>'.repeat(100 * KB)).repeat(2))),
  },
  {
    what: 'an .ods of hidden columns',
    isTwin: true,
    file: 'bomb.ods',
    bytes: () =>
      ods(
        odsHeadings(2) + odsRow(odsCell('a').repeat(2)),
        '<table:table-column table:visibility="collapse" table:number-columns-repeated="16384"/>'.repeat(50 * KB),
      ),
  },
  {
    what: 'an .xlsx that names one long text over and over',
    file: 'bomb.xlsx',
    bytes: () =>
      xlsx(
        twoHeadings +
          Array.from({ length: 60 * KB }, (_, index) => `<row r="${index + 2}"><c r="A${index + 2}" t="s"><v>0</v></c></row>`).join(''),
        {
          'xl/sharedStrings.xml': `<sst><si><t>${'long '.repeat(40 * KB)}</t></si></sst>`,
        },
      ),
  },
  {
    what: 'an .xlsx whose cells stand far to the right',
    file: 'bomb.xlsx',
    bytes: () =>
      xlsx(
        twoHeadings +
          Array.from({ length: 60 * KB }, (_, index) => `<row r="${index + 2}">${xlsxText(`XFD${index + 2}`, 'x')}</row>`).join(''),
      ),
  },
  {
    what: 'an .xlsx of hidden columns',
    file: 'bomb.xlsx',
    bytes: () =>
      xlsx(
        `${twoHeadings}<row r="2">${xlsxText('A2', 'a')}</row>`,
        {},
        `<cols>${'<col min="1" max="16384" hidden="1"/>'.repeat(60 * KB)}</cols>`,
      ),
  },
  {
    what: 'an .xlsx that unpacks to gigabytes',
    file: 'bomb.xlsx',
    bytes: () => xlsx(`${twoHeadings}${' '.repeat(300_000_000)}`),
  },
  {
    what: 'an .xlsx with one tag of brackets',
    isTwin: true,
    file: 'bomb.xlsx',
    bytes: () => xlsx(`${twoHeadings}<row r="2" x="${'>'.repeat(4_000_000)}"></row>`),
  },
  { what: 'a .csv of one line', file: 'bomb.csv', bytes: () => bytesOf(`a,b\n${','.repeat(30_000_000)}`) },
  {
    what: 'a .csv of wide empty lines',
    isTwin: true,
    file: 'bomb.csv',
    bytes: () => bytesOf(`a,b\n${`x${','.repeat(3000)}\n`.repeat(10 * KB)}`),
  },
  { what: 'a .csv with a quote that never ends', file: 'bomb.csv', bytes: () => bytesOf(`a,b\n"${'x,\n'.repeat(10_000_000)}`) },
  { what: 'JSON of nested lists', file: 'bomb.json', bytes: () => bytesOf(`[{"a":${'['.repeat(3_000_000)}`) },
  { what: 'JSON of one name in many lists', file: 'bomb.json', bytes: () => bytesOf(`[{"a":[${'{"b":1},'.repeat(200 * KB)}{}]},{"a":1}]`) },
  {
    what: 'JSON of records that share no name',
    isTwin: true,
    file: 'bomb.json',
    bytes: () => bytesOf(`[${Array.from({ length: 400 * KB }, (_, index) => `{"n${index}":1}`).join(',')}]`),
  },
  { what: 'XML of one name, many times', file: 'bomb.xml', bytes: () => bytesOf(`<r><p>${'<a>1</a>'.repeat(300 * KB)}</p><p/></r>`) },
  { what: 'XML of elements side by side', isTwin: true, file: 'bomb.xml', bytes: () => bytesOf(`<r>${'<a b="1"/>'.repeat(300 * KB)}</r>`) },
  {
    what: 'XML of entities that grow',
    file: 'bomb.xml',
    bytes: () =>
      bytesOf(
        `<!DOCTYPE r [<!ENTITY a "aaaaaaaaaa">${Array.from({ length: 12 }, (_, index) => `<!ENTITY a${index} "${`&a${index ? index - 1 : ''};`.repeat(10)}">`).join('')}]><r>&a11;</r>`,
      ),
  },
  {
    what: 'XML of endless names within one another',
    file: 'bomb.xml',
    bytes: () => bytesOf(Array.from({ length: 150 }, () => `<${'n'.repeat(100 * KB)}>`).join('')),
  },
  {
    what: 'XFDF of one name, many times',
    file: 'bomb.xfdf',
    bytes: () => bytesOf(`<xfdf xmlns="x"><fields>${'<field name="a"><value>1</value></field>'.repeat(200 * KB)}</fields></xfdf>`),
  },
  {
    what: 'XFDF nested without end',
    file: 'bomb.xfdf',
    bytes: () => bytesOf(`<xfdf xmlns="x"><fields>${'<field name="a">'.repeat(500 * KB)}`),
  },
  {
    what: 'FDF of fields that are their own kids',
    file: 'bomb.fdf',
    bytes: () =>
      bytesOf('%FDF-1.2\n1 0 obj\n<</FDF<</Fields[2 0 R]>>>>\nendobj\n2 0 obj\n<</T(a)/V(1)/Kids[2 0 R 2 0 R 2 0 R]>>\nendobj\n'),
  },
  { what: 'FDF of closing brackets', file: 'bomb.fdf', bytes: () => bytesOf(`%FDF-1.2\n1 0 obj\n${')'.repeat(5_000_000)}\nendobj\n`) },
  {
    what: 'FDF of one name, many times',
    isTwin: true,
    file: 'bomb.fdf',
    bytes: () => bytesOf(`%FDF-1.2\n1 0 obj\n<</FDF<</Fields[${'<</T(a)/V(1)>>'.repeat(200 * KB)}]>>>>\nendobj\n`),
  },
  {
    what: 'an .xls that is noise',
    file: 'bomb.xls',
    bytes: () => Buffer.concat([Buffer.from('d0cf11e0a1b11ae1', 'hex'), randomBytes(3_000_000)]),
  },
  {
    what: 'an .xls of a table of HTML without an end',
    file: 'bomb.xls',
    bytes: () => bytesOf(`<html><table><tr>${'<td colspan=1000>x'.repeat(300 * KB)}`),
  },
  {
    what: 'a filled PDF of streams that unpack to gigabytes',
    isTwin: true,
    file: 'bomb.pdf',
    bytes: () => pdfBomb('object stream').bytes(),
  },
];

/** PDF forms. */
export const pdfBombs: Bomb[] = [
  {
    what: 'object stream',
    file: 'bomb.pdf',
    bytes: () => pdf({ ...plain, 5: pdfStream('/Type/ObjStm/N 1/First 4/Filter[/FlateDecode/FlateDecode]', packed(1000, 2)) }),
  },
  {
    what: 'cross-reference stream with two thousand million entries',
    file: 'bomb.pdf',
    bytes: () => pdf({ ...plain, 5: pdfStream('/Type/XRef/Size 2000000000/W[1 2 1]/Root 1 0 R', Buffer.from([1, 0, 0, 0])) }),
  },
  {
    what: 'page content',
    file: 'bomb.pdf',
    bytes: () =>
      pdf({
        ...plain,
        3: page.replace('/Annots', '/Contents 5 0 R/Annots'),
        5: pdfStream('/Filter[/FlateDecode/FlateDecode]', packed(1000, 2)),
      }),
  },
  {
    what: 'page content that all of many pages share',
    file: 'bomb.pdf',
    bytes: () =>
      pdf({
        ...plain,
        2: `<</Type/Pages/Count 1500/Kids[${'3 0 R '.repeat(1500)}]>>`,
        3: page.replace('/Annots', '/Contents 5 0 R/Annots'),
        5: pdfStream('/Filter/FlateDecode', packed(60, 1)),
      }),
  },
  {
    what: 'page tree that doubles at every level',
    file: 'bomb.pdf',
    bytes: () =>
      pdf({
        ...plain,
        2: '<</Type/Pages/Count 9/Kids[10 0 R 10 0 R]>>',
        ...Object.fromEntries(
          Array.from({ length: 40 }, (_, at) => [10 + at, `<</Type/Pages/Count 9/Kids[${`${at < 39 ? 11 + at : 3} 0 R `.repeat(2)}]>>`]),
        ),
      }),
  },
  {
    what: 'value that all of many fields share',
    isTwin: true,
    file: 'bomb.pdf',
    bytes: () =>
      pdf({
        ...plain,
        1: plain[1].replace(
          '[4 0 R]',
          `[${Array.from({ length: 15 * KB }, (_, at) => `<</FT/Tx/T(f${at})/V 6 0 R/Kids[<</Subtype/Widget>>]>>`).join('')}]`,
        ),
        6: `(${'v'.repeat(500 * KB)})`,
      }),
  },
  {
    what: 'fields within one another without end',
    file: 'bomb.pdf',
    bytes: () => pdf({ ...plain, 1: plain[1].replace('[4 0 R]', `[${'<</FT/Tx/T(f)/Kids['.repeat(100 * KB)}`) }),
  },
  {
    what: 'two hundred thousand fields',
    file: 'bomb.pdf',
    bytes: () =>
      pdf({
        ...plain,
        1: plain[1].replace('[4 0 R]', `[${Array.from({ length: 200 * KB }, (_, at) => `<</FT/Tx/T(f${at})>>`).join('')}]`),
      }),
  },
];

const pdfBomb = (what: string): Bomb => pdfBombs.find((one) => one.what === what)!;
