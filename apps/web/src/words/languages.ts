import type { SpokenLanguage } from '@mailbag/contract';

/** Languages that the application speaks (ISO 639-1), by their own names. */
export const languageNames = { en: 'English', de: 'Deutsch' } satisfies Record<Exclude<SpokenLanguage, ''>, string>;
export type Language = keyof typeof languageNames;

const isLanguage = (text: string): text is Language => Object.hasOwn(languageNames, text);
const languageOf = (tag: string): string => tag.toLowerCase().split('-')[0]!;

/** The first of the wanted languages that is spoken; English where none is. @param wanted BCP 47, the dearest first */
export const languageFor = (wanted: readonly string[]): Language => wanted.map(languageOf).find(isLanguage) ?? 'en';

/** By which region numbers and dates are written: the browser's own where it is one of the language. @param wanted BCP 47, the dearest first */
export const localeFor = (language: Language, wanted: readonly string[]): string =>
  wanted.find((tag) => languageOf(tag) === language && tag.includes('-')) ?? { en: 'en-GB', de: 'de-DE' }[language];
