import type { Catalogue } from '@mailbag/core/words';
import { Plural } from '@mailbag/core/words';
import { messageFinder } from './message-finder';

/** Messages in a language by their names, in the syntax of ICU's MessageFormat. */
export type Messages = Readonly<Record<string, string>>;

/** Says a message that has more to it than places for values. @returns its parts */
export type Formatter = (message: string, text: string, values: readonly unknown[]) => readonly unknown[];

/** Plurals, choices, formats and quotes (ICU's MessageFormat). */
const MORE = /\{\d+\s*,|'/;
const PLACE = /\{(\d+)\}/;

/** Parts of a message that has nothing but places for values. */
const plainParts = (text: string, values: readonly unknown[]): readonly unknown[] =>
  text
    .split(PLACE)
    .map((part, at) => (at % 2 === 0 ? part : values[Number(part)]))
    .map((part) => (part instanceof Plural ? part.value : part))
    .filter((part) => part !== '');

/** @param locale BCP 47 (RFC 5646) @param messages may grow while it is spoken @param formatter says plurals */
export function messageCatalogue(locale: string, messages: Messages, formatter: Formatter): Catalogue {
  let [find, known] = [messageFinder([]), 0];
  return {
    locale,
    find(text) {
      const names = Object.keys(messages);
      if (names.length !== known) [find, known] = [messageFinder(names), names.length];
      return find(text);
    },
    say(message, values) {
      const text = messages[message];
      if (text === undefined) return null;
      if (values.length === 0) return [text];
      if (!MORE.test(text)) return plainParts(text, values);
      return formatter(message, text, values);
    },
  };
}
