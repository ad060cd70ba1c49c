import type { Field } from '../pdf/field.js';
import type { Answer } from './answer.js';

const bare = (words: string): string =>
  words
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
/** A name without counts, pages and numbers that programs put behind names which stand already. */
const stem = (name: string): string =>
  bare(
    name
      .split('.')
      .at(-1)!
      .replace(/\[\d+\]/g, '')
      .replace(/[_\- ]?(?:p(?:age)?|copy)?[_\- ]?\d{1,2}$/i, ''),
  );

/** Answers that ask the same on several pages: by name, or by label and shape. Sections of their own, as those of two persons, keep them apart. */
export function joinSame(answers: readonly Answer[], fields: ReadonlyMap<string, Field>): Answer[] {
  const joined: Answer[] = [];
  const byWords = new Map<string, Answer[]>();
  for (const answer of answers) {
    const first = fields.get(answer.parts[0]!.field)!;
    if (answer.parts.length !== 1 || answer.label === null || (first.kind !== 'text' && first.kind !== 'combo')) {
      joined.push(answer);
      continue;
    }
    const key = `${bare(answer.label)} ${first.kind} ${first.maxLength ?? ''}`;
    const there = byWords.get(key) ?? [];
    const same = there.find((other) => {
      const one = fields.get(other.parts[0]!.field)!;
      const pages = other.parts.map(({ field }) => fields.get(field)!.page);
      if (pages.includes(first.page)) return false;
      const isNamed = stem(one.name) !== '' && stem(one.name) === stem(first.name) && /\p{L}{3}/u.test(stem(one.name));
      // Without a telling name it has to be said at length, and only once a page.
      const isOnce =
        answers.filter(
          ({ label, parts }) => label !== null && bare(label) === bare(answer.label!) && fields.get(parts[0]!.field)!.page === first.page,
        ).length === 1;
      const isOnceThere =
        answers.filter(
          ({ label, parts }) => label !== null && bare(label) === bare(answer.label!) && fields.get(parts[0]!.field)!.page === one.page,
        ).length === 1;
      const isSection = other.section !== null && answer.section !== null && bare(other.section) === bare(answer.section);
      return (
        (isNamed || isSection || bare(answer.label!).split(' ').length > 1) &&
        isOnce &&
        isOnceThere &&
        (isNamed || isSection || sectionsAgree(other.section, answer.section))
      );
    });
    if (same) {
      same.parts.push(...answer.parts);
      same.reason = 'same';
    } else {
      const own = { ...answer, parts: [...answer.parts] };
      byWords.set(key, [...there, own]);
      joined.push(own);
    }
  }
  return joined;
}

/** Words of people that forms have several of: what is asked of each stays apart. */
const PERSONS =
  /\b(?:spouse|partner|child|father|mother|guardian|witness|employer|landlord|tenant|seller|buyer|applicant \d|second|co-?\w+|ehegatt|kind|vater|mutter|arbeitgeber|vermieter|mieter|conjoint|cónyuge)/i;
const sectionsAgree = (one: string | null, other: string | null): boolean => !PERSONS.test(one ?? '') && !PERSONS.test(other ?? '');
