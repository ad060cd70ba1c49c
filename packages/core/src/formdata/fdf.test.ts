import { readFdf, writeFdf } from './fdf.js';

const latin = (text: string): Uint8Array => Uint8Array.from([...text].map((char) => char.charCodeAt(0)));
const texts = (bytes: Uint8Array): Record<string, string> =>
  Object.fromEntries([...readFdf(bytes, 'x.fdf')].map(([name, { text }]) => [name, text]));
const file = (fields: string, more = ''): Uint8Array =>
  latin(`%FDF-1.2\n%\xe2\xe3\xcf\xd3\n1 0 obj\n<</FDF<</Fields[${fields}]>>>>\nendobj\n${more}trailer\n<</Root 1 0 R>>\n%%EOF\n`);
/** The value that is read of one field whose value is written so. */
const valueOf = (written: string, more = ''): string | undefined => texts(file(`<</T(a)/V ${written}>>`, more)).a;

// The examples of ISO 32000-2, 7.3.4.2, and what its table of escapes says.
test.each([
  ['a string', '(This is a string)', 'This is a string'],
  ['line ends within', '(Strings can contain newlines\nand such.)', 'Strings can contain newlines\nand such.'],
  ['a carriage return within, which is read as a line feed', '(one\rtwo)', 'one\ntwo'],
  ['both within, which are read as one line feed', '(one\r\ntwo)', 'one\ntwo'],
  ['brackets in pairs', '(Strings can contain balanced parentheses ()\nand special characters (*!&}^%and so on).)', 'Strings can contain balanced parentheses ()\nand special characters (*!&}^%and so on).'],
  ['a line that goes on', '(These \\\ntwo strings \\\nare the same.)', 'These two strings are the same.'],
  ['a line that goes on after both', '(one \\\r\ntwo)', 'one two'],
  ['octal of two characters', '(This string contains \\245two octal characters\\307.)', 'This string contains ¥two octal characters\u00c7.'],
  ['octal and a digit after it', '(\\0053)', '\u00053'],
  ['octal of fewer digits', '(\\53\\053)', '++'],
  ['octal beyond a byte, whose overflow is ignored', '(\\501)', 'A'],
  ['every escape', '(\\n\\r\\t\\b\\f\\(\\)\\\\)', '\n\r\t\b\f()\\'],
  ['a backslash before anything else, which is ignored', '(\\q\\ x)', 'q x'],
])('literal: %s', (_, written, read) => {
  expect(valueOf(written)).toBe(read);
}); // prettier-ignore

// ISO 32000-2, 7.3.4.3.
test.each([
  ['two digits a byte', '<4E6F762073686D6F7A>', 'Nov shmoz'],
  ['a last digit that is missing is nought', '<414>', 'A@'],
  ['white space between', '<41 42\n43\t44>', 'ABCD'],
  ['small letters', '<6a6B>', 'jk'],
])('hexadecimal: %s', (_, written, read) => {
  expect(valueOf(written)).toBe(read);
});

// ISO 32000-2, 7.9.2.2 and annex D.3.
test.each([
  ['UTF-16BE', '<FEFF00C5D83CDF32>', 'Å🌲'],
  ['UTF-16BE as a literal', '(\xfe\xff\0A\0\\))', 'A)'],
  ['UTF-8', '<EFBBBF C385 F09F8CB2>', 'Å🌲'],
  ['PDFDocEncoding above 80', '<80 84 8D 8E 90 92 93 94 95 96 97 98 99 9A 9B 9C 9D 9E A0>', '•—“”’™ﬁﬂŁŒŠŸŽıłœšž€'],
  ['PDFDocEncoding as Latin-1', '<C4D6DC E9>', 'ÄÖÜé'],
])('text: %s', (_, written, read) => {
  expect(valueOf(written)).toBe(read);
});

test.each([
  ['the name of a state', '/Yes', 'Yes'],
  ['a name with a number of it (7.3.5)', '/A#42#20C', 'AB C'],
  ['several of a list', '[(one)(two)<74>]', 'one, two, t'],
  ['a number', '42', '42'],
  ['another object', '5 0 R', 'far'],
  ['nothing', '()', ''],
])('a value is %s', (_, written, read) => {
  expect(valueOf(written, '5 0 obj(far)endobj\n')).toBe(read);
});

test('fields nest by their partial names, and what has no value of its own is none', () => {
  const fields = '<</T(plot)/Kids[<</T(no)/V(A-1)>><</T(size)/Kids[<</T(m2)/V(240)>>]>>]>><</T(left)>><</V(no name)>>';
  expect(texts(file(fields))).toEqual({ 'plot.no': 'A-1', 'plot.size.m2': '240' });
});

test('comments and white space may stand between anything (7.2.3)', () => {
  expect(texts(file('% a list (of fields\n << % one\r /T % its name\n (a)\n\n/V(b % is no comment)>>'))).toEqual({
    a: 'b % is no comment',
  });
});

test('a name that comes twice is kept twice', () => {
  expect(texts(file('<</T(a)/V(1)>><</T(a)/V(2)>>'))).toEqual({ a: '1', 'a 2': '2' });
});

test.each([
  ['a field that is its own descendant', file('2 0 R', '2 0 obj<</T(a)/V(1)/Kids[2 0 R]>>endobj\n'), { a: '1' }],
  ['values that name each other', file('<</T(a)/V(1)>><</T(b)/V 2 0 R>>', '2 0 obj 3 0 R endobj\n3 0 obj 2 0 R endobj\n'), { a: '1' }],
  ['brackets that close nothing', file('>>)}<</T(a)/V(1)>>'), { a: '1' }],
])('%s does not hold the reading up', (_, bytes, read) => {
  expect(texts(bytes)).toMatchObject(read);
});

test('what is no form data, or has no values, is refused with a sentence', () => {
  for (const bytes of [latin(''), latin('%FDF-1.2'), latin('1 0 obj<</FDF<<>>>>endobj'), latin('PK\x03\x04')])
    expect(() => readFdf(bytes, 'x.fdf')).toThrow(/x\.fdf/);
  expect(() => readFdf(file(''), 'x.fdf')).toThrow(expect.objectContaining({ code: 'formdata-no-fields' }));
  expect(() => readFdf(file('['.repeat(100_000)), 'x.fdf')).toThrow();
});

test('a file that was cut off is refused, so that no field is lost without a word', () => {
  const whole = file('<</T(plot)/Kids[<</T(no)/V(A-1)>>]>><</T(b)/V<FEFF0041>>>');
  const end = new TextDecoder('latin1').decode(whole).indexOf('>>>>\nendobj') + 4;
  expect(texts(whole.subarray(0, end))).toEqual({ 'plot.no': 'A-1', b: 'A' });
  for (let length = 0; length < end; length++)
    expect(() => texts(whole.subarray(0, length))).toThrow(expect.objectContaining({ code: 'sheet-damaged' }));
});

test('what is written keeps every UTF-16 unit and names its form', () => {
  const values = new Map<string, string | string[]>([['näme', 'a\r\nb(\\)\u0000🌲'], ['list', ['x', 'ÿ']]]); // prettier-ignore
  const written = writeFdf(values, 'permit.pdf');
  expect(texts(written)).toEqual({ näme: 'a\r\nb(\\)\u0000🌲', list: 'x, ÿ' });
  expect(new TextDecoder().decode(written)).toContain('/F <FEFF007000650072006D00690074002E007000640066>');
});
