import { IntlMessageFormat } from 'intl-messageformat';
import { messages } from '../../../../scripts/messages.mjs';
import { firstMessages } from './german';
import { restMessages } from './german-rest';
import type { Messages } from './message-catalogue';

const texts = messages();
const germanMessages: Messages = { ...firstMessages, ...restMessages };
/** The values that a message names. */
const valuesOf = (message: string): string[] => [...new Set([...message.matchAll(/\{(\d+)[,}]/g)].map(([, name]) => name!))].sort();

test('every message of the sources is in the German catalogue', () => {
  expect(
    [...texts].filter(([message]) => !Object.hasOwn(germanMessages, message)).map(([message, [file]]) => `${file}: ${message}`),
  ).toEqual([]);
});

/** What is loaded before anybody is signed in. */
const FIRST =
  /^apps\/web\/src\/(app\.tsx|api\/|ui\/(?!list\/|special-input|archive-button|use-undo-keys|split)|screens\/account\/)|^packages\/core\/src\/errors\/people/;

test('what is said before anybody is signed in comes with the first words', () => {
  const late = [...texts].filter(([message, files]) => files.some((file) => FIRST.test(file)) && !Object.hasOwn(firstMessages, message));
  expect(late.map(([message]) => message)).toEqual([]);
});

test('what is said first needs no plurals, which come with the rest', () =>
  expect(Object.values(firstMessages).filter((text) => /\{\d+\s*,|'/.test(text))).toEqual([]));

test('nothing is in the German catalogue that no source says', () => {
  expect(Object.keys(germanMessages).filter((message) => !texts.has(message))).toEqual([]);
});

test('a German message names no value that the English one does not have, and is said with all it names', () => {
  const faults = Object.entries(germanMessages).flatMap(([english, german]) => {
    const values = valuesOf(english);
    const unknown = valuesOf(german).filter((name) => !values.includes(name));
    if (unknown.length > 0) return [`${english}: names ${unknown.join(', ')}`];
    if (values.length === 0) return [];
    try {
      const format = new IntlMessageFormat(german, 'de-DE', undefined, { ignoreTag: true });
      const filled = String(format.format(Object.fromEntries(values.map((name) => [name, 2]))));
      return /[{}]\d|plural,/.test(filled) ? [`${english}: ${filled}`] : [];
    } catch (error) {
      return [`${english}: ${String(error)}`];
    }
  });
  expect(faults).toEqual([]);
});

test('what begins or ends with a space in English does so in German, since it is joined to other words', () => {
  const edges = (text: string): string => `${text.startsWith(' ') ? '_' : ''}…${text.endsWith(' ') ? '_' : ''}`;
  expect(Object.entries(germanMessages).filter(([english, german]) => edges(english) !== edges(german))).toEqual([]);
});
