import type { Piece } from './answer.js';
import type { PieceBox } from './split-answer.js';
import { joinedPieces, pieceOf } from './split-answer.js';

const all = (text: string, value: string | number | null, pieces: Piece[], more: Partial<PieceBox> = {}): (string | null)[] =>
  pieces.map((piece, index) => pieceOf(text, value, { piece, isLast: index === pieces.length - 1, ...more }));
const characters: Piece[] = [
  [1, 3],
  [4, 5],
  [6, 9],
].map(([from, to]) => ({ what: 'characters', from: from!, to: to! }));
const date: Piece[] = [{ what: 'day' }, { what: 'month' }, { what: 'year' }];
const amount: Piece[] = [{ what: 'whole units' }, { what: 'cents' }];
const telephone: Piece[] = [{ what: 'area code' }, { what: 'number' }];
const lines: Piece[] = [
  { what: 'line', number: 1 },
  { what: 'line', number: 2 },
];

test.each<[string, string, string | number | null, Piece[], (string | null)[], Partial<PieceBox>]>([
  ['a number in groups', '123-45-6789', null, characters, ['123', '45', '6789'], {}],
  ['the same without dashes', '123456789', 123456789, characters, ['123', '45', '6789'], {}],
  ['one that is too long: its end stands in the last box, where it shows', '123-45-67890', null, characters, ['123', '45', '67890'], {}],
  ['one that is too short', '1234', null, characters, ['123', '4', ''], {}],
  ['a date as it is typed', '14 March 1961', '1961-03-14', date, ['14', '03', '1961'], {}],
  ['a date that is only written', '14.3.1961', null, date, ['14', '03', '1961'], {}],
  ['a box for two digits of the year', '1961-03-14', null, date, ['14', '03', '61'], { digits: 2 }],
  ['no date', 'soon', null, date, [null, null, null], {}],
  ['an amount', '1234.5', 1234.5, amount, ['1234', '50'], {}],
  ['an amount as text', '1.234,56 €', null, amount, ['1234', '56'], {}],
  ['an amount that binary fractions would spoil', '0.29', 0.29, amount, ['0', '29'], {}],
  ['less than nothing', '-3.07', -3.07, amount, ['-3', '07'], {}],
  ['no amount', 'free', null, amount, [null, null], {}],
  ['a telephone in brackets', '(0231) 555 12 34', null, telephone, ['0231', '555 12 34'], {}],
  ['a telephone with a slash', '0231/5551234', null, telephone, ['0231', '5551234'], {}],
  ['a telephone without a gap', '5551234', null, telephone, ['', '5551234'], {}],
  ['a text that goes on', 'Reed Lane 1, left of the old mill', null, lines, ['Reed Lane 1, left', 'of the old mill'], { rooms: [18, 40] }],
  ['a text that fits the first line', 'Reed Lane 1', null, lines, ['Reed Lane 1', ''], { rooms: [18, 40] }],
  ['nothing', ' ', null, date, ['', '', ''], {}],
])('%s is taken apart', (_, text, value, pieces, expected, more) => expect(all(text, value, pieces, more)).toEqual(expected));

test.each<[Piece[], string[], string | null]>([
  [characters, ['123', '45', '6789'], '123456789'],
  [date, ['14', '3', '1961'], '1961-03-14'],
  [date, ['14', '3', '61'], '14.3.61'],
  [amount, ['1234', '5'], '1234.05'],
  [amount, ['7', ''], '7.00'],
  [telephone, ['0231', '5551234'], '(0231) 5551234'],
  [telephone, ['', '5551234'], '5551234'],
  [lines, ['Reed Lane 1,', 'left of the mill'], 'Reed Lane 1, left of the mill'],
  [date, ['', '', ''], null],
])('pieces are joined again', (pieces, values, expected) =>
  expect(joinedPieces(pieces.map((piece, index) => ({ piece, value: values[index]! })))).toBe(expected),
);
test('several places of one value say it once', () =>
  expect(
    joinedPieces([
      { piece: null, value: '' },
      { piece: null, value: 'Ada' },
      { piece: null, value: 'Ada' },
    ]),
  ).toBe('Ada'));
