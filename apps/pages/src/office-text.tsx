import type { IntakePlan, PageLanguage } from '@mailbag/core/intake';
import { ownLanguage } from '@mailbag/core/intake';
import { createContext, useContext } from 'react';

/** The office's own language, and what it says in the visitor's; null: both are the same. */
interface Spoken {
  own: PageLanguage;
  translated: ReadonlySet<string>;
}
const Words = createContext<Spoken | null>(null);
export const OfficeWords = Words.Provider;

/** What of a plan is said in which language. @param language of the visitor */
export function spokenIn(plan: IntakePlan, language: PageLanguage): Spoken | null {
  const own = ownLanguage(plan);
  return own === language ? null : { own, translated: new Set(Object.values(plan.translations?.[language] ?? {})) };
}

/** The language of a text of the office where it is another one than the page's, so that it is read out as it is meant (WCAG 2.2, 3.1.2). */
export function useOfficeLang(): (text: string) => { lang?: PageLanguage; dir?: 'auto' } {
  const spoken = useContext(Words);
  return (text) => (spoken === null || text.trim() === '' || spoken.translated.has(text) ? {} : { lang: spoken.own, dir: 'auto' });
}

/** A text of the office, marked with its language where that is another one. */
export function OfficeText({ children: text }: { children: string }) {
  const langOf = useOfficeLang();
  const { lang, dir } = langOf(text);
  return lang ? (
    <span lang={lang} dir={dir}>
      {text}
    </span>
  ) : (
    <>{text}</>
  );
}
