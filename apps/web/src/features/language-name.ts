import { spokenLocale } from '@mailbag/core/words';
const names = new Intl.DisplayNames([spokenLocale()], { type: 'language' });
/** What a language is called. @param tag BCP 47 */
export const languageName = (tag: string): string => names.of(tag) ?? tag;
