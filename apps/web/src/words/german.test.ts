import { IntlMessageFormat } from 'intl-messageformat';
import { messages } from '../../../../scripts/messages.mjs';
import errors from './de/errors.json';
import { commonMessages } from './german';
import { workMessages } from './german-work';
import type { Messages } from './message-catalogue';

const texts = messages();
const germanMessages: Messages = { ...commonMessages, ...errors, ...workMessages };
/** The values that a message names. */
const valuesOf = (message: string): string[] => [...new Set([...message.matchAll(/\{(\d+)[,}]/g)].map(([, name]) => name!))].sort();

test('every message of the sources is in the German catalogue', () => {
  expect(
    [...texts].filter(([message]) => !Object.hasOwn(germanMessages, message)).map(([message, [file]]) => `${file}: ${message}`),
  ).toEqual([]);
});

/** What is said at the sign-in, around every screen and on the desk. */
const COMMON =
  /^apps\/web\/src\/(app\.tsx|api\/|ui\/(?!list\/|special-input|archive-button|use-undo-keys|split)|screens\/(account|desk|shell)\/|screens\/settings\/settings-places|words\/code-words|features\/(forms\/|when|copies\/(batch-end|state-)|mailing\/guess-columns|trial\/sample-mailing))|^packages\/core\/src\/(remarks|copies\/states)|^packages\/contract\/src\/account/;

test('what is said at the sign-in and on the desk comes with the first words', () => {
  const late = [...texts].filter(([message, files]) => files.some((file) => COMMON.test(file)) && !Object.hasOwn(commonMessages, message));
  expect(late.map(([message]) => message)).toEqual([]);
});

test('sentences of errors come with the first error', () => {
  const late = [...texts].filter(([message, files]) => files.some((file) => /^packages\/core\/src\/errors/.test(file)) && ![commonMessages, errors].some((one) => Object.hasOwn(one, message))); // prettier-ignore
  expect(late.map(([message]) => message)).toEqual([]);
});

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
