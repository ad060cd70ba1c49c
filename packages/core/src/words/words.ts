/**
 * What Mailbag says. A message is named by its English words, as a tag before a template: t`Sent to ${name}`. Its name in the catalogues is those words with
 * numbers for the values, “Sent to {0}”, in the syntax of ICU's MessageFormat. Without a catalogue, and where one lacks a message, English is said.
 */

/** How many of something. In a message it stands with its forms, so that another language can put in its own: {0, plural, one {# copy} other {# copies}}. */
export class Plural {
  constructor(
    readonly value: number,
    readonly one: string,
    readonly other: string,
  ) {}
  toString(): string {
    return `${count(this.value)} ${this.value === 1 ? this.one : this.other}`;
  }
}
export const plural = (value: number, one: string, other = `${one}s`): Plural => new Plural(value, one, other);

/** What says messages in another language than English. */
export interface Catalogue {
  /** BCP 47 (RFC 5646), with the region by which numbers and dates are written. */
  locale: string;
  /**
   * @param message its name
   * @param values what stands for the numbers in it; a Plural by its number
   * @returns its parts in order, text and values that are no text; null: it is not in the catalogue
   */
  say(message: string, values: readonly unknown[]): readonly unknown[] | null;
  /** Which message an English text is, and with which values; null: none that it has. */
  find(text: string): FoundMessage | null;
}
/** A message with its values, as they stood in a text. A number of something is a Plural. */
export interface FoundMessage {
  message: string;
  values: readonly FoundValue[];
}
/** `isName`: it stands in quotes, so that it is somebody's own word. */
export interface FoundValue {
  value: string | Plural;
  isName: boolean;
}

let spoken: Catalogue | null = null;
let locale = 'en';
let numbers = new Intl.NumberFormat(locale);

/** Chooses the language of everything that is said from now on. What a module says while it is loaded stays as it is. @param english the locale of English */
export function speak(catalogue: Catalogue | null, english = 'en'): void {
  spoken = catalogue;
  locale = catalogue?.locale ?? english;
  numbers = new Intl.NumberFormat(locale);
}

/** By which numbers and dates are written and texts are sorted. */
export const spokenLocale = (): string => locale;
/** The language that is spoken, in two letters (ISO 639-1). */
export const spokenLanguage = (): string => spoken?.locale.slice(0, 2) ?? 'en';

/** A number by its thousands. */
export const count = (value: number): string => numbers.format(value);
/** “1 copy”, “2 copies”. */
export const counted = (value: number, one: string, other?: string): string => t`${plural(value, one, other)}`;

/** How a message is called in the catalogues. */
export const messageOf = (strings: readonly string[], values: readonly unknown[]): string =>
  strings.reduce((name, text, at) => {
    const value = values[at - 1];
    return name + (value instanceof Plural ? `{${at - 1}, plural, one {# ${value.one}} other {# ${value.other}}}` : `{${at - 1}}`) + text;
  });

/** The parts of a message in the language that is spoken: text, and values as they were given. */
export function partsOf(strings: readonly string[], values: readonly unknown[]): readonly unknown[] {
  const spokenParts = spoken?.say(messageOf(strings, values), values);
  return spokenParts ?? strings.flatMap((text, at) => (at === 0 ? [text] : [values[at - 1], text]));
}

/** A message in the language that is spoken. */
export const t = (strings: TemplateStringsArray, ...values: readonly (string | number | Plural | null | undefined | boolean)[]): string =>
  partsOf(strings, values).map(String).join('');

/** How deep a message may stand in another one. */
const DEEPEST = 3;

/**
 * A message that is known by its English words alone, as a server or a folder has it: “Batch 3 is done”. What stands in it in words of its own is said in the
 * language that is spoken too, names in quotes are not. Words that are no message, such as those of other people's servers, stay as they are.
 */
export function translated(text: string, depth = 0): string {
  if (spoken === null || text === '') return text;
  const whole = spoken.say(text, []);
  if (whole) return whole.map(String).join('');
  const found = depth < DEEPEST ? spoken.find(text) : null;
  if (!found) return text;
  const values = found.values.map(({ value, isName }) => (isName || typeof value !== 'string' ? value : translated(value, depth + 1)));
  return (spoken.say(found.message, values) ?? [text]).map(String).join('');
}
