import { isoDate } from '../tables/typed-text.js';
import type { AnswerValue, IntakeQuestion } from './intake.js';

/** Order of the day and the month by the languages of pages; a year of four digits tells itself. Common practice, no source. */
const DATE_ORDER = 'day-first' as const;

/** The day that somebody typed as people write it, as YYYY-MM-DD; null: it is none. */
export function typedDay(text: string): string | null {
  let bare = text.split(/\s/).filter(Boolean).join('.');
  for (const mark of ['.', '/', '-']) bare = bare.replaceAll(`${mark}.`, mark).replaceAll(`.${mark}`, mark);
  return isoDate(bare, DATE_ORDER);
}

/** The text that an answer puts into its record. Several options stand beside one another with commas. Empty: it is not answered. */
export function answerText({ kind }: Pick<IntakeQuestion, 'kind'>, answer: AnswerValue | undefined): string {
  if (answer === undefined) return '';
  if (Array.isArray(answer)) return answer.join(', ');
  const text = answer.trim();
  // As a program takes it; people write it in groups of four (ISO 13616-1, 6.1).
  if (kind === 'IBAN') return text.replace(/\s/g, '').toUpperCase();
  return kind === 'date' ? (typedDay(text) ?? text) : text;
}
