import { stopFor } from './arrow-stops';

test.each([
  ['ArrowDown', 0, 1],
  ['ArrowDown', 29, 29],
  ['ArrowUp', 29, 28],
  ['ArrowUp', 0, 0],
  ['Home', 17, 0],
  ['End', 17, 29],
  ['PageDown', 4, 14],
  ['PageDown', 25, 29],
  ['PageUp', 4, 0],
])('%s goes from row %d of thirty to row %d', (key, from, to) => expect(stopFor(key, from, 30)).toBe(to));

test('other keys, and a list without rows, lead nowhere', () => {
  expect(stopFor('a', 3, 30)).toBeNull();
  expect(stopFor('Enter', 3, 30)).toBeNull();
  expect(stopFor('End', -1, 0)).toBeNull();
});
