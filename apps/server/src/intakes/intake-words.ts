import type { Sql } from '../persistence/sql.js';
import { intakeStore } from '../stores/intake.store.js';

/** Words under which Mailbag itself answers, or might one day. */
const RESERVED = new Set(['api', 'assets', 'draft', 'in', 'static', 'robots', 'favicon', 'admin', 'new', 'sign-in']);
const WORD = /^[a-z0-9]+(?:-[a-z0-9]+)*$/;
const [SHORTEST, LONGEST] = [3, 60];

/** Whether a word cannot be the address of an intake. */
export const wordFault = (word: string): boolean =>
  word.length < SHORTEST || word.length > LONGEST || !WORD.test(word) || RESERVED.has(word);

/** A word of a name: Latin letters without their marks, digits, hyphens. */
export function wordOf(name: string): string {
  const bare = name
    .replaceAll('ß', 'ss')
    .normalize('NFD')
    .replace(/\p{M}/gu, '')
    .toLowerCase()
    .replace(/[^a-z0-9]+/g, '-')
    .slice(0, LONGEST)
    .replace(/^-|-$/g, '');
  return wordFault(bare) ? `intake${bare === '' ? '' : `-${bare}`}`.slice(0, LONGEST) : bare;
}

/** The word of a name, with a number where another intake has it. */
export async function freeWord(sql: Sql, name: string): Promise<string> {
  const word = wordOf(name);
  for (let number = 1; ; number++) {
    const tried = number === 1 ? word : `${word.slice(0, LONGEST - 6)}-${number}`;
    if ((await intakeStore.idOfWord(sql, tried)) === undefined) return tried;
  }
}
