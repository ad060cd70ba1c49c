import { decodeText, findDelimiter, isoDate, readCsv, typedCell } from './csv.js';
import { readTable } from './read-table.js';
import type { SourceRecord } from './record.js';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const rows = (text: string): string[][] => readCsv(bytes(text), 'x.csv').rows;

describe('RFC 4180, section 2', () => {
  test.each([
    [
      'records end with CRLF, the last one maybe not',
      'aaa,bbb\r\nzzz,yyy',
      [
        ['aaa', 'bbb'],
        ['zzz', 'yyy'],
      ],
    ],
    [
      'fields may be in quotes',
      '"aaa","bbb"\r\nzzz,yyy',
      [
        ['aaa', 'bbb'],
        ['zzz', 'yyy'],
      ],
    ],
    [
      'line breaks, quotes and commas in quotes',
      '"aaa","b\r\nb,b"\r\nzzz,yyy',
      [
        ['aaa', 'b\r\nb,b'],
        ['zzz', 'yyy'],
      ],
    ],
    [
      'a quote in quotes is doubled',
      '"aaa","b""bb"\r\nz,y',
      [
        ['aaa', 'b"bb'],
        ['z', 'y'],
      ],
    ],
    [
      'spaces belong to a field',
      ' a , b\r\nc,d',
      [
        [' a ', ' b'],
        ['c', 'd'],
      ],
    ],
  ])('%s', (_, text, expected) => {
    expect(rows(text)).toEqual(expected);
  });
});

test.each([
  ['a;b;c\n1,5;2;3\n4;5,25;6', ';'],
  ['a\tb\n1\t2', '\t'],
  ['name;note\n"x, y";z', ';'],
  ['sep=|\na|b', '|'],
  ['only one column\nx\ny', ','],
])('the delimiter of %p is %p', (text, delimiter) => {
  expect(findDelimiter(text)).toBe(delimiter);
});

describe('encodings', () => {
  const utf16 = (text: string, big: boolean): Uint8Array =>
    Uint8Array.from(
      [...text].flatMap((char) =>
        big ? [char.charCodeAt(0) >> 8, char.charCodeAt(0) & 255] : [char.charCodeAt(0) & 255, char.charCodeAt(0) >> 8],
      ),
    );
  test.each([
    ['UTF-8 with a byte order mark', bytes('\ufeffZoë'), 'utf-8'],
    ['UTF-8 without one', bytes('Zoë Łąkowski'), 'utf-8'],
    ['UTF-16 with a byte order mark', Uint8Array.from([0xff, 0xfe, ...utf16('Zoë', false)]), 'utf-16le'],
    ['UTF-16 by its zeros', utf16('Zoe Quist,Petra', true), 'utf-16be'],
    [
      'Windows-1252',
      Uint8Array.from(
        [...'Name,Ort\r\nZo']
          .map((char) => char.charCodeAt(0))
          .concat(
            [0xeb],
            [...' M', '', '']
              .join('')
              .split('')
              .map((char) => char.charCodeAt(0)),
            [0xfc, 0x6c, 0x6c, 0x65, 0x72],
          ),
      ),
      'windows-1252',
    ],
  ])('%s is read as such', (_, given, expected) => {
    expect(decodeText(given).encoding).toBe(expected);
  });
});

test('leading zeros and long digit strings stay text; plain numbers are typed', () => {
  expect(['04471', '4471', '1.5', '1234567890123456789', '-3', '1e5', ''].map((text) => typedCell(text).value)).toEqual([
    '04471',
    4471,
    1.5,
    '1234567890123456789',
    -3,
    '1e5',
    null,
  ]);
});
test('only dates that exist are dates', () => {
  expect(['2027-02-28', '31.01.2027', '31.02.2027', '2027-13-01', '1/2/2027'].map(isoDate)).toEqual([
    '2027-02-28',
    '2027-01-31',
    null,
    null,
    null,
  ]);
});

test('more rows than allowed are refused without reading on', () => {
  const many = bytes(`a\n${'1\n'.repeat(3000)}`);
  expect(() => readCsv(many, 'x.csv', {}, { rows: 1500 })).toThrow('x.csv has more than 1500 rows');
  expect(readCsv(many, 'x.csv', {}, { preview: 30 }).rows).toHaveLength(30);
});

describe('a CSV file as a source', () => {
  const read = async (text: string, reading = {}) => {
    const records: SourceRecord[] = [];
    const result = await readTable({ name: 'x.csv', bytes: bytes(text), zip: null }, reading, (block) => records.push(...block));
    return { ...result, records };
  };
  test('finds the headings below a title, makes double and empty ones unique, and says what is odd', async () => {
    const { columns, records, notes, reading } = await read(
      'Tenancies 2027,,\n,,\nPlot, Name ,Name,\nA-1,Quist,x,\nB-1,Bae,y,z,surplus\n\nC-1,Ngo,,\n',
    );
    expect(reading.headingRow).toBe(3);
    expect(columns.map(({ name, slug }) => [name, slug])).toEqual([
      ['Plot', 'plot'],
      ['Name', 'name'],
      ['Name 2', 'name_2'],
    ]);
    expect(records.map(({ row, cells }) => [row, cells[0]!.text])).toEqual([
      [4, 'A-1'],
      [5, 'B-1'],
      [7, 'C-1'],
    ]);
    expect(notes.map((note) => note.code).sort()).toEqual(['double-heading', 'empty-rows', 'ragged-rows']);
  });
  test('a column named __proto__ or constructor is a column like any other', async () => {
    const { columns, records } = await read('__proto__,constructor\na,b\n');
    expect(columns.map(({ name }) => name)).toEqual(['__proto__', 'constructor']);
    expect(records[0]!.cells.map((cell) => cell.text)).toEqual(['a', 'b']);
  });
  test.each([
    ['', 'sheet-empty'],
    ['Plot,Name\n', 'sheet-empty'],
  ])('%p is refused as %s', async (text, expected) => {
    await expect(read(text)).rejects.toMatchObject({ code: expected });
  });
  test.each([
    [[0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 1], 'sheet-not-a-workbook'],
    [[...'%PDF-1.7'].map((char) => char.charCodeAt(0)), 'sheet-not-a-workbook'],
    [[0xd0, 0xcf, 0x11, 0xe0, 1, 2, 3, 4], 'sheet-old-workbook'],
    [[0x50, 0x4b, 3, 4], 'sheet-damaged'],
  ])('a file that begins with %p is refused as %s', async (head, expected) => {
    await expect(readTable({ name: 'x', bytes: Uint8Array.from(head), zip: null }, {}, () => undefined)).rejects.toMatchObject({
      code: expected,
    });
  });
});
