import type { SpokenLanguage } from '@mailbag/contract';
import type { Language } from './languages';
import { languageFor } from './languages';

const KEY = 'mailbag.language';

/** What whoever was signed in last chose in this browser; empty: nothing, or nothing can be kept here. */
function storedLanguage(): string {
  try {
    return localStorage.getItem(KEY) ?? '';
  } catch {
    return '';
  }
}

/** The language that this browser is spoken to in, before anybody is signed in. */
export const ownLanguage = (): Language => languageFor([...(storedLanguage() ? [storedLanguage()] : []), ...navigator.languages]);

/** Keeps what somebody chose for this browser. @returns whether another language is to be spoken than until now */
export function keepOwnLanguage(chosen: SpokenLanguage): boolean {
  const before = ownLanguage();
  if (chosen === storedLanguage()) return false;
  try {
    if (chosen === '') localStorage.removeItem(KEY);
    else localStorage.setItem(KEY, chosen);
  } catch {
    return false;
  }
  return ownLanguage() !== before;
}
