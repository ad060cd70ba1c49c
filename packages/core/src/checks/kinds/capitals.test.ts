import { columnOf, findingsIn } from '../../testing/findings.js';

const told = (texts: readonly string[], name = 'Surname'): [string, string | null | undefined][] =>
  findingsIn(
    [columnOf(name, 'text')],
    texts.map((text) => [text]),
    {},
    'all-capitals',
  ).map(({ value, mend }) => [value, mend]);
const others = ['Quist', 'Brandt', 'Duyvis', 'van Aken', 'O’Hara'];

test.each([
  ['BRANDT', 'Brandt'],
  ['VAN DER BERG', 'Van der Berg'],
  ["O'HARA-QUIST", "O'Hara-Quist"],
  ['ÅKESSON', 'Åkesson'],
  ['ŒUVRARD', 'Œuvrard'],
  ['ИВАНОВА', 'Иванова'],
])('“%s” amid names that are not becomes “%s”', (loud, mend) => expect(told([...others, loud])).toEqual([[loud, mend]]));

test.each(['Quist', 'QU', 'Q.B.', 'McTavish', '李小龙', '  ', '123 4'])('“%s” is left alone', (text) =>
  expect(told([...others, text])).toEqual([]),
);

test('where more than half is in capitals, that is how they write', () => {
  expect(told(['QUIST', 'BRANDT', 'DUYVIS', 'van Aken'])).toEqual([]);
  expect(told(['QUIST', 'BRANDT', 'Duyvis', 'van Aken']).map(([text]) => text)).toEqual(['QUIST', 'BRANDT']);
});

test('columns that are no names may shout', () => expect(told([...others, 'BRANDT'], 'Remarks')).toEqual([]));
