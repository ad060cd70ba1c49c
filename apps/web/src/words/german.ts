import type { Catalogue } from '@mailbag/core/words';
import common from './de/common.json';
import type { Messages } from './message-catalogue';
import { messageCatalogue } from './message-catalogue';
import { pluralFormat } from './plural-format';

/** What is said in German at the sign-in, around every screen and on the desk. */
export const commonMessages: Messages = common;
/** All that is said in German, as far as it is there. */
const messages: Record<string, string> = { ...commonMessages };

/** @param locale BCP 47 */
export const german = (locale: string): Catalogue => messageCatalogue(locale, messages, pluralFormat(locale));

/** Loads the sentences of errors. */
export async function germanErrors(): Promise<void> {
  Object.assign(messages, (await import('./de/errors.json')).default);
}

/** Loads what is said on the screens beside the desk. */
export async function germanWork(): Promise<void> {
  const [{ workMessages }] = await Promise.all([import('./german-work'), germanErrors()]);
  Object.assign(messages, workMessages);
}
