import type { Catalogue } from '@mailbag/core/words';
import first from './de/first.json';
import type { Messages } from './message-catalogue';
import { messageCatalogue } from './message-catalogue';

/** What is said in German before anybody is signed in. */
export const firstMessages: Messages = first;
/** All that is said in German, as far as it is there. */
const messages: Record<string, string> = { ...firstMessages };

/** @param locale BCP 47 */
export const german = (locale: string): Catalogue => messageCatalogue(locale, messages);

/** Loads what is said behind the sign-in. */
export async function restOfGerman(): Promise<void> {
  Object.assign(messages, (await import('./german-rest')).restMessages);
}
