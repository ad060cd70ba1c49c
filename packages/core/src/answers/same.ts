import { bareWords } from '../page/label-words.js';
import type { Field } from '../pdf/field.js';
import type { Answer } from './answer.js';

/** A name without counts, pages and numbers that programs put behind names which stand already. */
const stem = (name: string): string =>
  bareWords(
    name
      .split('.')
      .at(-1)!
      .replace(/\[\d+\]/g, '')
      .replace(/[_\- ]?(?:p(?:age)?|copy)?[_\- ]?\d{1,2}$/i, ''),
  );

/** Answers that ask the same on several pages: by name, or by label and shape. Sections of their own, as those of two persons, keep them apart. */
export function joinSame(answers: readonly Answer[], fields: ReadonlyMap<string, Field>): Answer[] {
  const pageOf = ({ parts }: Answer): number => fields.get(parts[0]!.field)!.page;
  /** How often words stand on a page. */
  const times = new Map<string, number>();
  for (const answer of answers) {
    const key = `${pageOf(answer)} ${bareWords(answer.label ?? '')}`;
    times.set(key, (times.get(key) ?? 0) + 1);
  }
  const joined: Answer[] = [];
  const byWords = new Map<string, Answer[]>();
  for (const answer of answers) {
    const first = fields.get(answer.parts[0]!.field)!;
    if (answer.parts.length !== 1 || answer.label === null || (first.kind !== 'text' && first.kind !== 'combo')) {
      joined.push(answer);
      continue;
    }
    const words = bareWords(answer.label);
    const key = `${words} ${first.kind} ${first.maxLength ?? ''}`;
    const isOnce = (page: number): boolean => times.get(`${page} ${words}`) === 1;
    const there = byWords.get(key) ?? [];
    const same = there.find((other) => {
      const one = fields.get(other.parts[0]!.field)!;
      if (!isOnce(first.page) || !isOnce(one.page) || other.parts.some(({ field }) => fields.get(field)!.page === first.page)) return false;
      const isNamed = stem(one.name) === stem(first.name) && /\p{L}{3}/u.test(stem(one.name));
      const isSection = other.section !== null && answer.section !== null && bareWords(other.section) === bareWords(answer.section);
      // Without a telling name it has to be said at length.
      return isNamed || isSection || (words.includes(' ') && sectionsAgree(other.section, answer.section));
    });
    if (same) {
      same.parts.push(...answer.parts);
      same.reason = 'same';
    } else {
      const own = { ...answer, parts: [...answer.parts] };
      there.push(own);
      byWords.set(key, there);
      joined.push(own);
    }
  }
  return joined;
}

/** Words of people that forms have several of: what is asked of each stays apart. */
const PERSONS =
  /\b(?:spouse|partner|child|father|mother|guardian|witness|employer|landlord|tenant|seller|buyer|applicant \d|second|co-?\w+|ehegatt|kind|vater|mutter|arbeitgeber|vermieter|mieter|conjoint|cónyuge)/i;
const sectionsAgree = (one: string | null, other: string | null): boolean => !PERSONS.test(one ?? '') && !PERSONS.test(other ?? '');
