import { MailbagError } from '@mailbag/core';
import { seal } from './secret-box.js';

/** A secret as it is kept, and what it opens. */
export interface StoredSecret {
  sealed: string;
  target: string;
}

/** What a secret is for, as one text that differs when anything does that decides who gets to see it: host, port, how the way there is secured. */
export const targetOf = (...parts: (string | number | boolean | null)[]): string => JSON.stringify(parts);

/**
 * The sealed secret that a change leaves behind. One that is not given again stays only for the target that it was given for,
 * so nobody learns it by leading Mailbag to a server of their own.
 * @param given undefined: none was given; empty: there shall be none
 * @param place how the target is called in the sentence
 * @throws MailbagError secret-asked-again
 */
export function sealedFor(given: string | undefined, before: StoredSecret | null, target: string, place: string): string {
  if (given !== undefined) return given === '' ? '' : seal(given);
  if (!before || before.sealed === '') return '';
  if (before.target !== target) throw new MailbagError('secret-asked-again', { place });
  return before.sealed;
}
