import { speak } from '@mailbag/core/words';
import type { Language } from './languages';
import { localeFor } from './languages';

/** Loads once what `load` brings; English is said where it does not come, and it is asked for again. */
function loadedOnce(): { by: (load: () => Promise<void>) => void; words: () => Promise<void> } {
  let load = (): Promise<void> => Promise.resolve();
  let loading: Promise<void> | null = null;
  return {
    by: (next) => void (load = next),
    words: () => (loading ??= load().catch(() => void (loading = null))),
  };
}
const work = loadedOnce();
const errors = loadedOnce();

/** Words of the screens beside the desk. Modules say much while they are loaded, so they come before them. */
export const workWords = work.words;
/** Words of errors, before one is made. */
export const errorWords = errors.words;

/** Loads the catalogue of a language and says everything in it from now on; English where it does not come. @param wanted languages of the browser, for its region */
export async function speakIn(language: Language, wanted: readonly string[]): Promise<void> {
  const locale = localeFor(language, wanted);
  if (language === 'en') return speak(null, locale);
  try {
    const { german, germanErrors, germanWork } = await import('./german');
    work.by(germanWork);
    errors.by(germanErrors);
    speak(german(locale));
  } catch {
    speak(null, localeFor('en', wanted));
  }
}
