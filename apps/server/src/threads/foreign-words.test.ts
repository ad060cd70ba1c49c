import { foreignWords, readWords, writeWords } from './foreign-words.js';

const wordsOf = (...texts: string[]): string[] => {
  const words = new Set<string>();
  texts.forEach((text) => foreignWords(text, words));
  return [...words];
};

test('only words that plain fonts may lack are kept, each once', () => {
  expect(wordsOf('Anneke Duyvis', 'Łukasz Wrona', 'Jan Łukasz', 'Δάφνη\nΡήγα')).toEqual(['Łukasz', 'Δάφνη', 'Ρήγα']);
});

test('of more words than a batch keeps, the characters are kept, so that every name can still be drawn', () => {
  const words = new Set<string>(Array.from({ length: 20_000 }, (_, index) => `é${index}`));
  foreignWords('Żółć', words);
  expect(words.has('Żółć')).toBe(false);
  for (const char of 'Żółć') expect(words.has(char)).toBe(true);
});

test('what is kept with a batch is read again', () => {
  expect(readWords(writeWords(new Set(['Łukasz', 'Ρήγα'])))).toEqual(new Set(['Łukasz', 'Ρήγα']));
  expect(readWords('')).toEqual(new Set());
});
