import { speak } from '@mailbag/core/words';
import type { Language } from './languages';
import { localeFor } from './languages';

/** Loads the catalogue of a language and says everything in it from now on; English where it does not come. @param wanted languages of the browser, for its region */
export async function speakIn(language: Language, wanted: readonly string[]): Promise<void> {
  const locale = localeFor(language, wanted);
  if (language === 'en') return speak(null, locale);
  try {
    speak((await import('./german')).german(locale));
  } catch {
    speak(null, localeFor('en', wanted));
  }
}
