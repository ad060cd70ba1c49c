import { TYPE, parse } from '@formatjs/icu-messageformat-parser';
import { catalogues, directionOf, languageFor, languages, sayIn } from './index';

/** What a message is told with: the names in it, by kind. */
function namesIn(message: string): string[] {
  const names = new Set<string>();
  const walk = (elements: ReturnType<typeof parse>): void => {
    for (const element of elements) {
      if (element.type === TYPE.argument) names.add(element.value);
      if (element.type === TYPE.plural) {
        names.add(`${element.value}, plural`);
        for (const { value } of Object.values(element.options)) walk(value);
      }
    }
  };
  walk(parse(message));
  return [...names].sort();
}

test.each(languages)('%s says everything that English says, with the same names in it', (language) => {
  const [own, english] = [catalogues[language], catalogues.en];
  expect(Object.keys(own).sort()).toEqual(Object.keys(english).sort());
  for (const [name, message] of Object.entries(own)) {
    expect([name, ...namesIn(message)]).toEqual([name, ...namesIn(english[name as keyof typeof english])]);
    expect(message.trim()).not.toBe('');
  }
});

// Unicode CLDR, plural rules of cardinal numbers.
test.each<[(typeof languages)[number], number, string]>([
  ['en', 1, '1 minute'],
  ['en', 2, '2 minutes'],
  ['de', 2, '2 Minuten'],
  ['pl', 2, '2 pytania'],
  ['pl', 5, '5 pytań'],
  ['pl', 22, '22 pytania'],
  ['uk', 21, '21 запитання'],
  ['uk', 12, '12 запитань'],
  ['ar', 2, 'سؤالان'],
  ['ar', 3, '3 أسئلة'],
  ['fr', 1, '1 question'],
])('%s counts %i as %s', (language, count, words) => expect(sayIn(language)('takes', { minutes: count, count })).toContain(words));

test('the first of the visitor’s languages that there are words in is spoken, and English where there is none', () => {
  expect(languageFor(['de-AT', 'en'])).toBe('de');
  expect(languageFor(['nl', 'PL-pl', 'en'])).toBe('pl');
  expect(languageFor(['nl', 'ja'])).toBe('en');
  expect(languageFor([])).toBe('en');
  expect([directionOf('ar'), directionOf('uk')]).toEqual(['rtl', 'ltr']);
});
