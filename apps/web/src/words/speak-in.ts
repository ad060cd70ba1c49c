import { speak } from '@mailbag/core/words';
import type { Language } from './languages';
import { localeFor } from './languages';

let loadRest: () => Promise<void> = () => Promise.resolve();
let loading: Promise<void> | null = null;

/** Loads what is said behind the sign-in; English is said where it does not come. Modules say much while they are loaded, so it comes before them. */
export const restOfWords = (): Promise<void> => (loading ??= loadRest().catch(() => undefined));

/** Loads the catalogue of a language and says everything in it from now on; English where it does not come. @param wanted languages of the browser, for its region */
export async function speakIn(language: Language, wanted: readonly string[]): Promise<void> {
  const locale = localeFor(language, wanted);
  if (language === 'en') return speak(null, locale);
  try {
    const { german, restOfGerman } = await import('./german');
    loadRest = restOfGerman;
    speak(german(locale));
  } catch {
    speak(null, localeFor('en', wanted));
  }
}
