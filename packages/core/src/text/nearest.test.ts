import { nearest } from './nearest.js';

test.each<[string, string[], string[], string | null]>([
  ['Sopran', ['Soprano', 'Alto', 'Tenor', 'Bass'], ['Soprano'], 'Soprano'],
  ['monhtly', ['monthly', 'yearly'], ['monthly'], null],
  ['MONTHLY ', ['monthly', 'yearly'], ['monthly'], 'monthly'],
  // Which of two is meant nobody can know.
  ['tent', ['text', 'test', 'bed'], ['text', 'test'], null],
  // Short ones are soon alike.
  ['on', ['no', 'off'], [], null],
  ['North', ['North gate', 'South gate'], ['North gate'], null],
  ['perhaps', ['yes', 'no'], [], null],
  ['', ['yes'], [], null],
])('%j among %j: %j, sure %j', (text, among, near, sure) => {
  expect(nearest(text, among)).toEqual({ near, sure });
});
