import { meaningOf } from '../page/label-meaning.js';
import { bareWords } from '../page/label-words.js';

/** Words for the same thing, of which editions take one or the other (common practice, no source). */
const SAME: readonly (readonly string[])[] = [
  ['surname', 'last name', 'family name'],
  ['first name', 'given name', 'given names', 'forename', 'forenames', 'first names'],
  ['town', 'city', 'place', 'city or town', 'town or city'],
  ['street', 'street address', 'address'],
  ['house number', 'number', 'no'],
  ['date of birth', 'birth date', 'born', 'born on', 'birthday'],
  ['spouse', 'husband or wife', 'partner'],
  ['signature', 'sign here', 'signed', 'signed by'],
  ['occupation', 'profession', 'job'],
  ['remarks', 'comments', 'notes'],
  ['sex', 'gender'],
  ['nachname', 'familienname', 'name'],
  ['ort', 'wohnort', 'stadt'],
  ['straße', 'anschrift', 'adresse'],
];

/** Words that say nothing of what is asked. */
const LITTLE = new Set([
  'the',
  'a',
  'an',
  'of',
  'or',
  'and',
  'your',
  'please',
  'if',
  'any',
  'to',
  'in',
  'for',
  'from',
  'der',
  'die',
  'das',
  'de',
  'la',
  'le',
  'du',
  'des',
  'und',
  'see',
  'instructions',
  'e',
  'g',
]);
const tokensOf = (words: string): string[] => words.split(' ').filter((word) => word !== '' && !LITTLE.has(word) && !/^20\d\d$/.test(word));

/** Of the beginning that two words share. */
function sameStem(one: string, other: string): boolean {
  if (one === other) return true;
  const length = Math.min(one.length, other.length);
  return length >= 4 && one.slice(0, Math.max(4, length - 2)) === other.slice(0, Math.max(4, length - 2));
}

/** How much two labels ask the same, from 0 to 1. Years and small words do not count. */
export function labelLikeness(one: string | null, other: string | null): number {
  const [a, b] = [bareWords(one), bareWords(other)];
  if (a === '' || b === '') return 0;
  if (a === b) return 1;
  if (SAME.some((words) => words.includes(a) && words.includes(b))) return 0.9;
  const [left, right] = [tokensOf(a), tokensOf(b)];
  if (left.length === 0 || right.length === 0) return 0;
  const rest = [...right];
  let common = 0;
  for (const word of left) {
    const at = rest.findIndex((candidate) => sameStem(word, candidate));
    if (at < 0) continue;
    common++;
    rest.splice(at, 1);
  }
  // Digits tell apart what else is the same: “Child 1”, “Child 2”.
  const digits = (words: string[]): string => words.filter((word) => /^\d+$/.test(word)).join();
  if (digits(left) !== digits(right) && digits(left) !== '' && digits(right) !== '')
    return Math.min(0.3, common / (left.length + right.length - common));
  const likeness = common / (left.length + right.length - common);
  const whole = common === Math.min(left.length, right.length) ? 0.25 : 0;
  const meaning = meaningOf(a);
  const sameMeaning = meaning !== null && meaning === meaningOf(b) && common > 0 ? 0.15 : 0;
  return Math.min(0.95, likeness + whole + sameMeaning);
}

/** A name without counts in brackets and without the parts above it. */
export const ownName = (name: string): string =>
  name
    .replace(/\[\d+\]/g, '')
    .split('.')
    .at(-1)!;
