import { headingWords } from './heading-words.js';
import type { Column } from './record.js';

/** The columns in which the names of the people stand, each of them or none. */
export interface NameColumns<Named> {
  firstName: Named | null;
  surname: Named | null;
  /** The whole name, or else what comes nearest to it. */
  whole: Named | null;
}

/** Whoever may be meant by a column or a box that is called after them, as headings are compared; common practice, no source. */
export const PEOPLE: ReadonlySet<string> = new Set(
  'tenant recipient person member student applicant holder participant employee child parent patient customer client owner resident'.split(
    ' ',
  ),
);
/** What a column of people holds beside their names. */
const OF_PEOPLE = new Set(['number', 'date', 'email', 'phone', 'street', 'birth', 'account', 'city', 'postcode', 'start', 'end', 'amount']);
/** What has a name and is nobody. */
const OF_OTHERS = new Set(['street', 'city', 'country', 'bank', 'file', 'class', 'account', 'company', 'firm', 'firma', 'school', 'site']);
const PARTS = new Set(['name', 'surname', 'firstname', 'full', 'whole', 'complete']);

/** Whether most values are several words, as whole names are. */
const isSeveralWords = ({ examples }: Pick<Column, 'examples'>): boolean =>
  examples.length > 0 && examples.filter((example) => /\p{L}\s+\p{L}/u.test(example.trim())).length * 2 > examples.length;

/** Finds out from headings, in languages of Europe, where the names of the people stand. */
export function nameColumns<Named extends Pick<Column, 'name' | 'examples'>>(columns: readonly Named[]): NameColumns<Named> {
  const called = columns.map((column) => ({ column, words: headingWords(column.name) }));
  const are = (...wanted: string[]): Named | null => called.find(({ words }) => words.join(' ') === wanted.join(' '))?.column ?? null;
  const firstName = are('firstname') ?? are('firstname', 'number');
  const name = are('name');
  // Beside a column of first names one that is only called “name” holds the others, as German sheets do.
  const surname = are('surname') ?? (firstName && name && !isSeveralWords(name) ? name : null);
  const whole =
    (name === surname ? null : name) ??
    called.find(({ words }) => words.length > 1 && words.every((word) => PARTS.has(word)))?.column ??
    called.find(({ words }) => words.some((word) => PEOPLE.has(word)) && !words.some((word) => OF_PEOPLE.has(word)))?.column ??
    called.find(({ words }) => words.includes('name') && !words.some((word) => OF_OTHERS.has(word)))?.column ??
    surname ??
    firstName;
  return { firstName, surname, whole };
}
