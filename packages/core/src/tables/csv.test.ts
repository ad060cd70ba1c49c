import csvSpectrum from 'csv-spectrum';
import { decodeText, findDelimiter, firstCsvRows, openCsv } from './csv.js';
import { ROW_LIMIT } from './gather.js';
import { readTable } from './read-table.js';
import type { SourceRecord } from './record.js';
import { isoDate, typedText } from './typed-text.js';

const bytes = (text: string): Uint8Array => new TextEncoder().encode(text);
const rows = (text: string): string[][] => firstCsvRows(openCsv(bytes(text), 'x.csv'), Infinity);

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

/** The files and their values as csv-spectrum publishes them. */
test('csv-spectrum: every file gives the values published with it', async () => {
  const vectors = await new Promise<{ name: string; csv: Buffer; json: Buffer }[]>((resolve, reject) =>
    csvSpectrum((error, all) => (error ? reject(error) : resolve(all))),
  );
  expect(vectors.length).toBeGreaterThan(10);
  for (const { name, csv, json } of vectors) {
    const published = JSON.parse(json.toString('utf8')) as Record<string, string>[];
    // The package's own slip: this .json has another telephone number than its .csv.
    if (name === 'location_coordinates') continue;
    const [headings = [], ...records] = firstCsvRows(openCsv(new Uint8Array(csv), name), Infinity);
    const ours = records.map((cells) => Object.fromEntries(headings.map((heading, index) => [heading, cells[index] ?? ''])));
    expect([name, ours]).toEqual([name, published]);
  }
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
  expect(['04471', '4471', '1.5', '1234567890123456789', '-3', '1e5', ''].map((text) => typedText(text).value)).toEqual([
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
  expect(['2027-02-28', '31.01.2027', '31.02.2027', '2027-13-01', '1/2/2027'].map((text) => isoDate(text))).toEqual([
    '2027-02-28',
    '2027-01-31',
    null,
    null,
    null,
  ]);
});

// A workbook with a password is an OLE file with a stream of this name ([MS-OFFCRYPTO], 2.3.4).
test('a workbook with a password is told as such', async () => {
  const name = [...'EncryptedPackage'].flatMap((char) => [char.charCodeAt(0), 0]);
  const bytes = Uint8Array.from([0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1, ...Array.from({ length: 600 }, () => 0), ...name]);
  await expect(readTable({ name: 'x.xlsx', bytes, zip: null }, {}, () => undefined)).rejects.toMatchObject({ code: 'sheet-password' });
});
test('dates with slashes follow the order that is set, and only dates that exist are dates', () => {
  expect(isoDate('3/4/2027', 'day-first')).toBe('2027-04-03');
  expect(isoDate('3/4/2027', 'month-first')).toBe('2027-03-04');
  expect(isoDate('31/4/2027', 'day-first')).toBeNull();
  expect(isoDate('03-04-27', 'day-first')).toBe('2027-04-03');
});
test('decimal commas are read where they are set, and a digit is never lost', () => {
  const read = (text: string): unknown => typedText(text, { kind: 'number', decimals: 'comma' }).value;
  expect([read('1.234,50 €'), read('0,5'), read('1,2,3'), read('12345678901234567,1')]).toEqual([
    1234.5,
    0.5,
    '1,2,3',
    '12345678901234567,1',
  ]);
});

test('more rows than allowed are refused; the first ones are shown without reading on', async () => {
  const many = bytes(`a\n${'1\n'.repeat(ROW_LIMIT + 1)}`);
  const file = { name: 'x.csv', bytes: many, zip: null };
  await expect(readTable(file, {}, () => undefined)).rejects.toThrow('x.csv has more than 500,000 rows');
  expect(firstCsvRows(openCsv(many, 'x.csv'), 30)).toHaveLength(30);
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
      ['Column D', 'column_d'],
      ['Column E', 'column_e'],
    ]);
    expect(records.map(({ row, cells }) => [row, cells[0]!.text])).toEqual([
      [4, 'A-1'],
      [5, 'B-1'],
      [7, 'C-1'],
    ]);
    // What stands beyond the last heading is not lost.
    expect(records[1]!.cells.map(({ text }) => text)).toEqual(['B-1', 'Bae', 'y', 'z', 'surplus']);
    expect(notes.map((note) => note.code).sort()).toEqual(['double-heading', 'empty-rows', 'ragged-rows', 'rows-above']);
  });
  test('the order of dates with slashes is told by a day over 12; where nothing tells it, it is asked for', async () => {
    const { records, notes } = await read('Plot,Start,Until\nA-1,25/12/2026,1/2/2027\nA-2,3/4/2027,5/6/2027\n');
    expect(records.map(({ cells }) => cells.slice(1).map(({ value }) => value))).toEqual([
      ['2026-12-25', '1/2/2027'],
      ['2027-04-03', '5/6/2027'],
    ]);
    expect(notes).toContainEqual({ code: 'dates-ambiguous', count: 1, names: ['Until'] });
    const set = await read('Plot,Start\nA-1,3/4/2027\n', { columns: { Start: { kind: 'date', dates: 'month-first' } } });
    expect(set.records[0]!.cells[1]!.value).toBe('2027-03-04');
    expect(set.columns[1]!.kind).toBe('date');
  });
  test('a quote in the wrong place and rows that are too short are said', async () => {
    const { notes } = await read('Plot,Name\nA-1,"Qu"ist\nA-2\n');
    expect(notes.map(({ code }) => code)).toEqual(expect.arrayContaining(['broken-quotes']));
    expect((await read('Plot,Name\nA-1,Quist\nA-2\n')).notes).toContainEqual({ code: 'short-rows', count: 1, names: ['row 3'] });
  });
  test('a column named __proto__ or constructor is a column like any other', async () => {
    const { columns, records } = await read('__proto__,constructor\na,b\n');
    expect(columns.map(({ name }) => name)).toEqual(['__proto__', 'constructor']);
    expect(records[0]!.cells.map((cell) => cell.text)).toEqual(['a', 'b']);
  });
  test('20,000 columns are refused at once', async () => {
    const row = `x${',x'.repeat(20_000)}`;
    await expect(read(`${row}\n${row}\n`)).rejects.toMatchObject({ code: 'sheet-too-many-columns' });
  });
  test.each([
    ['"Plot,Name\nA-1,Quist\n', 'sheet-broken-quotes'],
    ['', 'sheet-empty'],
    ['Plot,Name\n', 'sheet-empty'],
  ])('%p is refused as %s', async (text, expected) => {
    await expect(read(text)).rejects.toMatchObject({ code: expected });
  });
  test.each([
    [[0x89, 0x50, 0x4e, 0x47, 0x0d, 0x0a, 0x1a, 0x0a, 0, 0, 0, 1], 'sheet-not-a-workbook'],
    [[0xd0, 0xcf, 0x11, 0xe0, 1, 2, 3, 4], 'sheet-old-workbook'],
    [[0x50, 0x4b, 3, 4], 'sheet-damaged'],
  ])('a file that begins with %p is refused as %s', async (head, expected) => {
    await expect(readTable({ name: 'x', bytes: Uint8Array.from(head), zip: null }, {}, () => undefined)).rejects.toMatchObject({
      code: expected,
    });
  });
});
