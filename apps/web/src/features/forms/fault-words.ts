import { t, translated } from '@mailbag/core/words';

/** What is said of a property that has no words of its own begins with its name (class-validator). */
const isRaw = (message: string, property: string): boolean => message.startsWith('each value in ') || message.startsWith(`${property} `);

/** Why a value cannot be sent, in words for people. @param message as the contract, or class-validator itself, words it */
export function faultWords(property: string, message: string | undefined): string {
  if (message === undefined || message === '' || isRaw(message, property)) return t`This cannot be used here.`;
  return translated(message);
}
