import type { PageMarks, TextPiece } from './page-marks.js';
import { mainDirection, readPage, uprightBox } from './page-reading.js';

const piece = (text: string, x: number, y: number, more: Partial<TextPiece> = {}): TextPiece => ({
  text,
  x,
  y,
  size: 10,
  width: text.length * 5,
  direction: 0,
  isBold: false,
  ...more,
});
const NOTHING: PageMarks = { pieces: [], segments: [], shapes: [], pictures: [] };
const texts = (marks: Partial<PageMarks>, direction: TextPiece['direction'] = 0): string[] =>
  readPage({ ...NOTHING, ...marks }, direction).phrases.map(({ text }) => text);

test('pieces of one line are joined, with a space where there is room for one', () => {
  expect(texts({ pieces: [piece('Na', 10, 100), piece('me', 20, 100), piece('of', 33, 100), piece('tenant', 46, 100.4)] })).toEqual([
    'Name of tenant',
  ]);
});
test('a wide gap, and an upright line, keep phrases apart', () => {
  expect(texts({ pieces: [piece('Name', 10, 100), piece('Town', 45, 100)] })).toEqual(['Name', 'Town']);
  expect(texts({ pieces: [piece('Rent', 10, 100), piece('Fees', 34, 100)], segments: [{ x1: 32, y1: 90, x2: 32, y2: 120 }] })).toEqual([
    'Rent',
    'Fees',
  ]);
  expect(texts({ pieces: [piece('Rent', 10, 100), piece('Fees', 34, 100)] })).toEqual(['Rent Fees']);
});
test('lines come from the top down, whatever the order in which they were drawn', () => {
  expect(texts({ pieces: [piece('three', 10, 80), piece('one', 10, 120), piece('two', 10, 100)] })).toEqual(['one', 'two', 'three']);
});
test('only text of the direction that is read counts, and its boxes are turned with it', () => {
  const pieces = [piece('level', 10, 100), piece('up', 200, 20, { direction: 90 }), piece('wards', 200, 31, { direction: 90 })];
  expect([texts({ pieces }), texts({ pieces }, 90)]).toEqual([['level'], ['up wards'.replace(' ', '')]]);
  // A quarter turn: what was to the right is at the top.
  expect(uprightBox([10, 20, 30, 60], 90)).toEqual([20, -30, 60, -10]);
  expect(uprightBox([10, 20, 30, 60], 180)).toEqual([-30, -60, -10, -20]);
  expect(uprightBox([10, 20, 30, 60], 270)).toEqual([-60, 10, -20, 30]);
});
test('the main direction is that of most letters; a page without text is upright', () => {
  expect(mainDirection({ ...NOTHING, pieces: [piece('a', 0, 0), piece('long words', 0, 0, { direction: 270 })] })).toBe(270);
  expect(mainDirection(NOTHING)).toBe(0);
});
test('words from right to left are in the order in which they are read', () => {
  // As programs draw it: the visually first word last (Unicode, UAX #9).
  const pieces = [piece('םולש', 10, 100), piece('הדע', 36, 100)];
  const { phrases, isRightToLeft } = readPage({ ...NOTHING, pieces }, 0);
  expect(phrases[0]!.text.replace(/ /g, '')).toBe('עדהשלום');
  expect(isRightToLeft).toBe(true);
});
test('lines that go on in one another are one, and short ones none', () => {
  const { level, upright } = readPage(
    { ...NOTHING, segments: [{ x1: 10, y1: 50, x2: 60, y2: 50 }, { x1: 61, y1: 50.5, x2: 120, y2: 50.5 }, { x1: 10, y1: 20, x2: 10, y2: 80 }] },
    0,
  ); // prettier-ignore
  expect(level).toEqual([{ at: 50, from: 10, to: 120 }]);
  expect(upright).toEqual([{ at: 10, from: 20, to: 80 }]);
});
test('the type of most of the text is that of the page', () => {
  const pieces = [
    piece('A heading', 10, 200, { size: 18 }),
    piece('much more text in small type', 10, 100, { size: 8 }),
    piece('and more', 10, 80, { size: 8 }),
  ];
  expect(readPage({ ...NOTHING, pieces }, 0).bodySize).toBe(8);
});
