import type { PageLanguage } from '@mailbag/core/intake';
import { pageLanguages } from '@mailbag/core/intake';
import { IntlMessageFormat } from 'intl-messageformat';
import { ar } from './ar';
import { de } from './de';
import { en } from './en';
import type { Words } from './en';
import { es } from './es';
import { fr } from './fr';
import { pl } from './pl';
import { uk } from './uk';

export const catalogues = { en, de, fr, es, pl, uk, ar } satisfies Record<PageLanguage, Words>;
export type Language = PageLanguage;
export const languages = pageLanguages;
export const isLanguage = (text: string): text is Language => text in catalogues;

/** The first of the visitor's languages that there are words in; English where there is none. @param wanted BCP 47, the dearest first */
export const languageFor = (wanted: readonly string[]): Language =>
  wanted.map((one) => one.toLowerCase().split('-')[0]!).find(isLanguage) ?? 'en';

export const directionOf = (language: Language): 'ltr' | 'rtl' => (language === 'ar' ? 'rtl' : 'ltr');

export type Say = (name: keyof Words, values?: Record<string, string | number | Date>) => string;

/** What says the page's words in a language. */
export function sayIn(language: Language): Say {
  const made = new Map<keyof Words, IntlMessageFormat>();
  return (name, values = {}) => {
    let message = made.get(name);
    if (!message) made.set(name, (message = new IntlMessageFormat(catalogues[language][name], language)));
    return String(message.format(values));
  };
}
