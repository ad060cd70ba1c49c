import { formOf, pdfOf, stream } from '../../../../testing/raw-form.js';
import { readBlanks } from './read-blanks.js';

const text = (words: string, x: number, y: number, size = 8, font = 'F1', matrix = '1 0 0 1'): string =>
  `BT /${font} ${size} Tf ${matrix} ${x} ${y} Tm (${words.replace(/[()\\]/g, '\\$&')}) Tj ET\n`;
const line = (x1: number, y1: number, x2: number, y2: number): string => `${x1} ${y1} m ${x2} ${y2} l S\n`;
const frame = (left: number, bottom: number, right: number, top: number): string =>
  `${left} ${bottom} ${right - left} ${top - bottom} re S\n`;

/** A page of print alone. F2 is bold. */
const flat = (content: string, page = '', more: string[] = []): Uint8Array =>
  pdfOf([
    '<</Type/Catalog/Pages 2 0 R>>',
    '<</Type/Pages/Count 1/Kids[3 0 R]>>',
    `<</Type/Page/Parent 2 0 R/MediaBox[0 0 300 200]/Contents 4 0 R/Resources<</Font<</F1 5 0 R/F2 6 0 R>>/XObject<</X 7 0 R>>>>${page}>>`,
    stream('', content),
    '<</Type/Font/Subtype/Type1/BaseFont/Helvetica/Encoding/WinAnsiEncoding>>',
    '<</Type/Font/Subtype/Type1/BaseFont/Helvetica-Bold/Encoding/WinAnsiEncoding>>',
    ...more,
  ]);
const told = async (content: string, page = ''): Promise<string[]> =>
  (await readBlanks(flat(content, page))).blanks.map(({ kind, label, cells, group }) =>
    [kind, cells, label, group && `(${group})`].filter((one) => one !== null).join(' '),
  );

test.each<[string, string, string[]]>([
  ['a line behind its words', text('Name', 20, 152) + line(50, 150, 200, 150), ['text Name']],
  ['a line over its words', line(20, 150, 200, 150) + text('Name of the tenant', 20, 142, 7) + text('as in the agreement', 20, 100), ['text Name of the tenant']],
  ['a box with a caption in its corner', frame(20, 120, 200, 150) + text('Account number', 23, 142, 6), ['text Account number']],
  ['a box with its words before a colon', frame(20, 130, 200, 148) + text('Name:', 24, 136), ['text Name']],
  ['a high box', text('Remarks', 20, 154) + frame(20, 100, 280, 150), ['multiline Remarks']],
  ['lines of one text as wide as the page, without a colon', text('Plot', 20, 186) + line(40, 185, 280, 185) + text('Remarks', 20, 160) + [140, 122, 104].map((y) => line(20, y, 280, y)).join(''), ['text Plot', 'multiline Remarks']],
  ['lines of one text', text('Remarks:', 20, 160) + [150, 132, 114].map((y) => line(20, y, 280, y)).join(''), ['multiline Remarks']],
  ['cells of one character', text('IBAN', 20, 153) + Array.from({ length: 6 }, (_, at) => frame(60 + at * 14, 150, 74 + at * 14, 166)).join(''), ['comb 6 IBAN']],
  ['a line with teeth', text('Code', 20, 153) + line(60, 150, 130, 150) + [60, 74, 88, 102, 116, 130].map((x) => line(x, 150, x, 156)).join(''), ['comb 5 Code']],
  ['a square', frame(20, 150, 29, 159) + text('I agree', 34, 151), ['checkbox I agree']],
  ['a bracket', text('[ ] I agree', 20, 150), ['checkbox I agree']],
  ['underscores', text('Name ____________________', 20, 150), ['text Name']],
  ['underscores of a date', text('Date ____/____/______', 20, 150), ['date Date']],
  ['dots', text('Reason ..............................', 20, 150), ['text Reason']],
  ['a dotted line of specks', text('Town', 20, 152) + Array.from({ length: 50 }, (_, at) => `${50 + at * 3} 150 1 1 re f\n`).join(''), ['text Town']],
  ['a line for a signature', line(20, 150, 200, 150) + text('Signature of the office', 20, 142, 7), ['signature Signature of the office']],
  ['a row of ticks under one question', text('How often?', 20, 151) + frame(80, 150, 89, 159) + text('weekly', 93, 151) + frame(140, 150, 149, 159) + text('monthly', 153, 151), ['checkbox weekly (How often?)', 'checkbox monthly (How often?)']],
  ['a white field on grey', `0.85 g 10 100 280 80 re f 1 g 80 130 150 16 re f 0 g\n${text('Name', 20, 134)}`, ['text Name']],
])('%s is found with its words', async (_what, content, blanks) => {
  expect(await told(content)).toEqual(blanks);
}); // prettier-ignore

test.each<[string, string]>([
  ['a rule that parts text', text('First paragraph of the notes.', 20, 160) + line(20, 150, 280, 150) + text('Second paragraph of the notes.', 20, 136)],
  ['an underlined heading', text('Conditions', 20, 152, 12, 'F2') + line(20, 150, 90, 150)],
  ['a frame around the page', frame(10, 10, 290, 190) + text('Notes', 20, 170)],
  ['a table that is full', [0, 1, 2].map((row) => [0, 1].map((at) => frame(20 + at * 80, 140 - row * 16, 100 + at * 80, 156 - row * 16) + text(`${row} of ${at}`, 24 + at * 80, 145 - row * 16)).join('')).join('')],
  ['a line of contents', text('Introduction .............................. 3', 20, 150)],
  ['a shaded cell', `0.5 g 20 130 100 20 re f 0 g\n${frame(20, 130, 120, 150)}`],
  ['a full square as a bullet', `0 g 20 150 6 6 re f\n${text('a point of a list', 34, 150)}`],
])('%s is no blank', async (_what, content) => {
  expect(await told(content)).toEqual([]);
}); // prettier-ignore

test('on a page that is read from its side, blanks lie where they are printed', async () => {
  const content = text('Name', 100, 20, 8, 'F1', '0 1 -1 0') + line(102, 50, 102, 180);
  const { blanks } = await readBlanks(flat(content, '/Rotate 90'));
  expect(blanks).toMatchObject([{ kind: 'text', label: 'Name' }]);
  const [left, bottom, right, top] = blanks[0]!.rect;
  expect([Math.round(bottom), Math.round(top), Math.round(right)]).toEqual([50, 180, 102]);
  expect(left).toBeLessThan(right);
});

test('a page that is only a picture is told as one', async () => {
  const picture = stream('/Type/XObject/Subtype/Image/Width 1/Height 1/ColorSpace/DeviceGray/BitsPerComponent 8', ' ');
  expect(await readBlanks(flat('300 0 0 200 0 0 cm /X Do', '', [picture]))).toEqual({ blanks: [], scans: [1] });
});

test('where a field stands already there is no blank, and outside the visible page neither', async () => {
  const content = text('Name', 20, 152) + line(50, 150, 200, 150) + text('Town', 20, 112) + line(50, 110, 200, 110);
  const pdf = formOf(['/FT/Tx/T(name)/Rect[50 150 200 164]'], {
    page: '/Contents 6 0 R/Resources<</Font<</F1 4 0 R>>>>/CropBox[0 0 300 200]',
    more: [stream('', content)],
  });
  expect((await readBlanks(pdf)).blanks.map(({ label }) => label)).toEqual(['Town']);
  const cropped = formOf(['/FT/Tx/T(name)/Rect[50 150 200 164]'], {
    page: '/Contents 6 0 R/Resources<</Font<</F1 4 0 R>>>>/CropBox[0 130 300 200]',
    more: [stream('', content)],
  });
  expect((await readBlanks(cropped)).blanks).toEqual([]);
});
