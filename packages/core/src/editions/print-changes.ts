import { bareWords } from '../page/label-words.js';
import type { EditionPage } from './edition.js';

/** Lines of an edition that the other one does not have. `page`: 1-based. */
export interface PrintedLine {
  page: number;
  text: string;
}
export interface PrintChanges {
  gone: PrintedLine[];
  added: PrintedLine[];
}

const linesOf = (pages: readonly EditionPage[]): PrintedLine[] =>
  pages
    .flatMap(({ phrases }, index) => phrases.map(({ text }) => ({ page: index + 1, text })))
    .filter(({ text }) => /\p{L}|\p{N}/u.test(text));

/** What is printed on one edition of a form and not on the other, wherever it stands. */
export function printChanges(before: readonly EditionPage[], after: readonly EditionPage[]): PrintChanges {
  const [was, now] = [linesOf(before), linesOf(after)];
  const missing = (lines: readonly PrintedLine[], others: readonly PrintedLine[]): PrintedLine[] => {
    const left = new Map<string, number>();
    for (const { text } of others) left.set(bareWords(text), (left.get(bareWords(text)) ?? 0) + 1);
    return lines.filter(({ text }) => {
      const count = left.get(bareWords(text)) ?? 0;
      left.set(bareWords(text), count - 1);
      return count <= 0;
    });
  };
  return { gone: missing(was, now), added: missing(now, was) };
}
