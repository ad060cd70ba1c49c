import { languageFor, localeFor } from './languages';

test.each([
  [['de-AT', 'en'], 'de'],
  [['DE'], 'de'],
  [['fr-FR', 'de', 'en'], 'de'],
  [['fr-FR', 'pl'], 'en'],
  [[], 'en'],
] as const)('who asks for %j is spoken to in %s', (wanted, language) => {
  expect(languageFor(wanted)).toBe(language);
});

test('numbers and dates are written as in the region of the browser, where it is one of the language', () => {
  expect(localeFor('de', ['en-US', 'de-CH'])).toBe('de-CH');
  expect(localeFor('de', ['en-US', 'de'])).toBe('de-DE');
  expect(localeFor('en', ['de-CH'])).toBe('en-GB');
  expect(localeFor('en', ['en-US'])).toBe('en-US');
});
