import { count as thousands, translated } from '../words/words.js';

/** What an error is told with. Fields cross workers, the database and HTTP as they are. */
export type ErrorFields = Record<string, string | number | boolean | null | readonly string[] | undefined>;

/** Fields in the language that is spoken, where they hold words of Mailbag's own. They are told in English where something was found. @param names of such fields */
export function inWords(fields: ErrorFields, names: readonly string[]): ErrorFields {
  const told = { ...fields };
  for (const name of names) if (typeof told[name] === 'string') told[name] = translated(told[name]);
  return told;
}

/** One error: its sentence (what, where, what next), and the status of an answer that carries it (RFC 9110, 15). */
export interface ErrorEntry<Fields> {
  status: number;
  sentence(fields: Fields): string;
}

/** @param status of the answer; most errors are about what was sent: 422 */
export const told = <Fields = Record<never, never>>(sentence: (fields: Fields) => string, status = 422): ErrorEntry<Fields> => ({
  status,
  sentence,
});

export const list = (values: readonly string[]): string =>
  Array.isArray(values) ? values.map((one) => `“${one}”`).join(', ') : String(values);

/** A number as it is read, by its thousands; the name of a field as it is, where a sentence is only shown. */
export const count = (value: number): string => (typeof value === 'number' ? thousands(value) : String(value));
