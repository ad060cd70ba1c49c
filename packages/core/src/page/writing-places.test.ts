import type { TextPiece } from './page-marks.js';
import { takePlaces } from './writing-places.js';

/** A piece of text of 5 points a character. */
const piece = (text: string, x = 100): TextPiece => ({
  text,
  x,
  y: 50,
  size: 10,
  width: text.length * 5,
  direction: 0,
  isBold: false,
  ends: [...text].map((_, at) => (at + 1) * 5),
});
const found = (...pieces: TextPiece[]): { text: string[]; places: [string, number, number, number | null][] } => {
  const { text, places } = takePlaces(pieces);
  return {
    text: text.map((one) => one.text),
    places: places.map(({ sign, left, right, cells }) => [sign, left, right, cells]),
  };
};

test('a line of underscores parts the words before and behind it', () => {
  expect(found(piece('Name ______ Town ____'))).toEqual({
    text: ['Name', 'Town'],
    places: [
      ['rule', 125, 155, null],
      ['rule', 185, 205, null],
    ],
  });
});
test('underscores that were set piece by piece are one line', () => {
  expect(found(piece('____'), piece('____', 120), piece('_', 140)).places).toEqual([['rule', 100, 145, null]]);
});
test('a single underscore and three full stops stay text', () => {
  expect(found(piece('a_b'), piece('wait...', 200))).toEqual({ text: ['a', 'b', 'wait...', '_'], places: [] });
});
test('leader dots, close and spaced', () => {
  expect(found(piece('Reason ..........')).places).toEqual([['leader', 135, 185, null]]);
  expect(found(piece('Wages . . . . . . 7'))).toEqual({ text: ['Wages', '7'], places: [['leader', 130, 190, null]] });
});
test.each([
  ['☐ Yes', 'box', 'Yes'],
  ['[ ] Yes', 'box', 'Yes'],
  ['( ) Yes', 'box', 'Yes'],
  ['[_] Yes', 'box', 'Yes'],
  ['○ Yes', 'round', 'Yes'],
])('%s is a place to tick before its word', (text, sign, words) => {
  const { text: left, places } = found(piece(text));
  expect([left, places.map(([one]) => one)]).toEqual([[words], [sign]]);
});
test('a comb of strokes and underscores tells its cells', () => {
  expect(found(piece('|__|__|__|__|')).places).toEqual([['comb', 100, 165, 4]]);
});
test('wide gaps part words, and spaces at the ends have no width', () => {
  const { text } = takePlaces([piece('No    Does it')]);
  expect(text.map(({ text: words, x, width }) => [words, x, width])).toEqual([
    ['No', 100, 10],
    ['Does it', 130, 35],
  ]);
  expect(takePlaces([piece(' Yes ')]).text.map(({ x, width }) => [x, width])).toEqual([[105, 15]]);
});
