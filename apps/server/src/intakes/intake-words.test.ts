import { wordFault, wordOf } from './intake-words.js';

test.each([
  ['Ask for a plot', 'ask-for-a-plot'],
  ['Änderung der Straße', 'anderung-der-strasse'],
  ['  Élève — 2027! ', 'eleve-2027'],
  ['API', 'intake-api'],
  ['申請', 'intake'],
  ['x'.repeat(90), 'x'.repeat(60)],
  ['a', 'intake-a'],
])('the name %s gives the word %s', (name, word) => {
  expect(wordOf(name)).toBe(word);
  expect(wordFault(wordOf(name))).toBe(false);
});

test.each(['ab', 'Plots', 'plots/', 'a--b', '-ab', 'ab-', '..', 'api', 'assets', 'draft', 'x'.repeat(61), 'plots%2e', 'plöts'])(
  '“%s” cannot be an address',
  (word) => expect(wordFault(word)).toBe(true),
);
