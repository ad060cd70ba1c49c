import type { Catalogue } from '@mailbag/core/words';
import first from './de/first.json';
import type { Formatter, Messages } from './message-catalogue';
import { messageCatalogue } from './message-catalogue';

/** What is said in German before anybody is signed in: without plurals, which are said by what is loaded with the rest. */
export const firstMessages: Messages = first;
/** All that is said in German, as far as it is there. */
const messages: Record<string, string> = { ...firstMessages };
let formatter: Formatter | null = null;
let spokenIn = 'de';

/** @param locale BCP 47 */
export function german(locale: string): Catalogue {
  spokenIn = locale;
  return messageCatalogue(locale, messages, () => formatter);
}

/** Loads what is said behind the sign-in. */
export async function restOfGerman(): Promise<void> {
  const { restMessages, pluralFormat } = await import('./german-rest');
  formatter = pluralFormat(spokenIn);
  Object.assign(messages, restMessages);
}
