import { inspectTemplate } from '../pdf/read/inspect.js';
import { formOf, stream } from '../../../../testing/raw-form.js';
import { answerReason, pieceWords } from './answer.js';

const words = (text: string, x: number, y: number, size = 8): string =>
  `BT /F1 ${size} Tf ${x} ${y} Td (${text.replace(/[()\\]/g, '\\$&')}) Tj ET\n`;
const box = (name: string, rect: number[], more = ''): string => `/FT/Tx/T(${name})/Rect[${rect.join(' ')}]${more}`;
const tick = (name: string, x: number, y: number, on = 'Yes'): string =>
  `/FT/Btn/T(${name})/Rect[${x} ${y} ${x + 9} ${y + 9}]/AS/Off/AP<</N<</${on} 4 0 R>>>>`;
const limit = (maximum: number): string => `/MaxLen ${maximum}`;

/** The answers of a page of more than one field, each as its label and its fields with their pieces. */
async function answersOf(fields: string[], content: string, page = ''): Promise<[string | null, string][]> {
  const pdf = formOf(fields, {
    page: `/Contents ${5 + fields.length} 0 R/Resources<</Font<</F1 4 0 R>>>>${page}`,
    more: [stream('', content)],
  });
  const { answers = [] } = await inspectTemplate(pdf);
  return answers
    .filter(({ parts }) => parts.length > 1)
    .map(({ label, parts }) => [label, parts.map(({ field, piece }) => field + (piece ? ` ${pieceWords(piece)}` : '')).join(', ')]);
}

const date = (limits = [2, 2, 4]): string[] => [
  box('a', [100, 150, 124, 164], limit(limits[0]!)),
  box('b', [132, 150, 156, 164], limit(limits[1]!)),
  box('c', [164, 150, 200, 164], limit(limits[2]!)),
];
const slashes = words('/', 126, 153) + words('/', 158, 153);

test('a date in three boxes: day first, month first on paper of the United States, year first where four characters come first', async () => {
  const content = words('Date of birth', 20, 153) + slashes;
  expect(await answersOf(date(), content)).toEqual([['Date of birth', 'a day, b month, c year']]);
  expect(await answersOf(date(), content, '/MediaBox[0 0 612 792]')).toEqual([['Date of birth', 'a month, b day, c year']]);
  expect(await answersOf(date([4, 2, 2]), content)).toEqual([['Date of birth', 'a year, b month, c day']]);
});

test('boxes that are named day, month and year are a date whatever stands around them', async () => {
  const fields = [box('dob_day', [100, 150, 124, 164]), box('dob_month', [132, 150, 156, 164]), box('dob_year', [164, 150, 200, 164])];
  expect(await answersOf(fields, words('Born', 60, 153))).toEqual([['Born', 'dob_day day, dob_month month, dob_year year']]);
});

test('one box a character', async () => {
  const fields = Array.from({ length: 5 }, (_, at) => box(`c${at}`, [100 + at * 16, 150, 114 + at * 16, 164], limit(1)));
  expect(await answersOf(fields, words('Postal code', 40, 153))).toEqual([
    ['Postal code', 'c0 characters 1-1, c1 characters 2-2, c2 characters 3-3, c3 characters 4-4, c4 characters 5-5'],
  ]);
});

test('whole units and cents, by the point between them or by the name of the second', async () => {
  const whole = box('rent', [100, 150, 170, 164]);
  expect(await answersOf([whole, box('x', [180, 150, 200, 164], limit(2))], words('Rent', 60, 153) + words('.', 173, 153))).toEqual([
    ['Rent', 'rent whole units, x cents'],
  ]);
  expect(await answersOf([whole, box('rent_cents', [176, 150, 200, 164])], words('Anything', 50, 153))).toEqual([
    ['Anything', 'rent whole units, rent_cents cents'],
  ]);
});

test('area code and number', async () => {
  const content = words('Telephone', 40, 153) + words('(', 95, 153) + words(')', 132, 153);
  expect(await answersOf([box('a', [100, 150, 128, 164]), box('b', [140, 150, 220, 164])], content)).toEqual([
    ['Telephone', 'a area code, b number'],
  ]);
});

test('what has words of its own is an answer of its own, however near it stands', async () => {
  const fields = [
    box('street', [60, 150, 180, 164]),
    box('no', [215, 150, 240, 164]),
    box('town', [60, 120, 180, 134]),
    box('code', [215, 120, 260, 134]),
  ];
  const content = words('Street', 30, 153) + words('No.', 190, 153) + words('Town', 30, 123) + words('Code', 186, 123);
  expect(await answersOf(fields, content)).toEqual([]);
});

test.each([
  ['Yes', 'No'],
  ['Ja', 'Nein'],
  ['Oui', 'Non'],
  ['Sí', 'No'],
])('%s and %s as two ticks are one answer', async (yes, no) => {
  const content = words('Is there water?', 20, 152) + words(yes, 112, 152) + words(no, 152, 152);
  expect(await answersOf([tick('y', 100, 150), tick('n', 140, 150)], content)).toEqual([['Is there water?', 'y, n']]);
});

test('ticks with one name and states of their own, as some programs make groups', async () => {
  const fields = [tick('c1[0]', 100, 150, 'A'), tick('c1[1]', 100, 130, 'B'), tick('c1[2]', 100, 110, 'C')];
  const content = ['Felt', 'Green roof', 'Sheet'].map((one, at) => words(one, 112, 152 - at * 20)).join('') + words('Roof', 100, 172);
  expect(await answersOf(fields, content)).toEqual([['Roof', 'c1[0], c1[1], c1[2]']]);
});

test('a column of ticks without a word for all of them stays apart', async () => {
  const fields = [tick('a', 20, 150), tick('b', 20, 130)];
  const content = words('I have read the rules', 34, 152) + words('I agree to be called', 34, 132);
  expect(await answersOf(fields, content)).toEqual([]);
});

test('each reason is a sentence, and a single field has none', () => {
  expect(answerReason('alone')).toBeNull();
  for (const reason of ['characters', 'date', 'amount', 'telephone', 'lines', 'yes-no', 'one-of', 'some-of', 'same', 'joined'] as const)
    expect(answerReason(reason)).toMatch(/^[A-Z].*\.$/);
});
