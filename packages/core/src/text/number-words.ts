import { toCardinal as german } from 'n2words/de-DE';
import { toCardinal as british } from 'n2words/en-GB';
import { toCardinal as american } from 'n2words/en-US';
import { toCardinal as spanish } from 'n2words/es-ES';
import { toCardinal as french } from 'n2words/fr-FR';
import { toCardinal as polish } from 'n2words/pl-PL';
import { toCardinal as ukrainian } from 'n2words/uk-UA';

const written = { 'en-GB': british, 'en-US': american, de: german, fr: french, es: spanish, pl: polish, uk: ukrainian } as const;

/** Languages in which numbers can be written out. BCP 47. */
export type WordsLanguage = keyof typeof written;
export const wordsLanguages = Object.keys(written) as WordsLanguage[];

/** Digits of the longest number that is written out: the names of higher ones are known to few. */
export const WORDS_DIGITS = 15;

/** A whole number in words, as it is counted. @param digits with a minus in front of it where it is below 0 */
export const numberWords = (digits: string, language: WordsLanguage): string => {
  const words = written[language](digits);
  // Before “tausend” the package counts “eins” where German has “ein”.
  return language === 'de' ? words.replaceAll('einstausend', 'eintausend') : words;
};
