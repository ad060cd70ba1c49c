import { checkValue } from '../checks/check-records.js';
import type { ColumnChecks } from '../checks/column-checks.js';
import { findingSentence } from '../checks/registry.js';
import type { FillContext } from '../map/fill-context.js';
import { addressFault } from '../mail/address.js';
import { amountIn } from '../tables/amount.js';
import type { Column } from '../tables/record.js';
import { hasShape } from './answer-shape.js';
import { answerText, typedDay } from './answer-text.js';
import type { AnswerValue, IntakeAnswers, IntakeKind, IntakePlan, IntakeQuestion } from './intake.js';
import { NO, YES, isAnswered, isPictureKind } from './intake.js';
import { shownSections } from './shown-questions.js';

/** Why an answer cannot be taken, by codes that the page has words for in each language. */
export type FaultCode =
  | 'missing'
  | 'too-long'
  | 'not-a-date'
  | 'not-a-number'
  | 'not-an-address'
  | 'not-an-option'
  | 'not-a-picture'
  | 'answered-already'
  | 'other-shape'
  | 'too-small'
  | 'too-great'
  | 'too-early'
  | 'too-late'
  | 'odd';
export interface AnswerFault {
  /** Id of the question. */
  question: string;
  code: FaultCode;
  /**
   * Of `too-long`: how many characters there may be. Of `odd`: the sentence of the check, in English. Of `other-shape`: an answer as it should be. Of `too-…`: the
   * number or the day (YYYY-MM-DD) up to or from which it is taken.
   */
  detail: string;
}

/** Characters of an answer without a limit of its own. */
export const LONGEST_ANSWER = 5000;
/** Characters of a picture as a data URL. */
export const LARGEST_PICTURE = 700_000;
const PICTURE = /^data:image\/(?:png|jpeg);base64,[A-Za-z0-9+/]+={0,2}$/;

/** The checks of columns that an answer of a kind goes through. */
const switches: Partial<Record<IntakeKind, ColumnChecks>> = {
  IBAN: { iban: true },
  telephone: { phone: true },
  'postal code': { postalCode: true },
};
const context: FillContext = { batch: 0, today: '2000-01-01', locale: 'en-GB', zone: 'UTC', number: 1, code: '' };

function oddness({ kind, column, words }: IntakeQuestion, text: string, country: string): string | null {
  const checks = switches[kind];
  if (!checks) return null;
  const asColumn: Column = { name: column, slug: 'answer', kind: 'text', empty: 0, distinct: 1, longest: text, examples: [text] };
  const [found] = checkValue(asColumn, checks, { country }, { text, value: text }, context);
  return found ? findingSentence({ ...found, column: words }) : null;
}

/** A number that bounds others; null: there is none. */
function boundOf(text: string | undefined) {
  const bound = amountIn({ text: text ?? '', value: null });
  return bound === 'either' ? null : bound;
}

/** The day that bounds others, as YYYY-MM-DD; null: there is none. @param today ISO 8601 */
export const boundDay = (text: string | undefined, today: string): string | null =>
  text === 'today' ? today : /^\d{4}-\d{2}-\d{2}$/.test(text ?? '') ? text! : null;

function dayFault({ id, minimum, maximum }: IntakeQuestion, day: string, today: string): AnswerFault | null {
  const [first, last] = [boundDay(minimum, today), boundDay(maximum, today)];
  if (first !== null && day < first) return { question: id, code: 'too-early', detail: first };
  return last !== null && day > last ? { question: id, code: 'too-late', detail: last } : null;
}

/**
 * Why one answer cannot be taken; null: it can.
 * @param today ISO 8601 @param country of numbers that do not say theirs (ISO 3166-1, two letters); empty: not known
 */
export function answerFault(
  question: IntakeQuestion,
  answer: AnswerValue | undefined,
  country: string,
  today = new Date().toISOString().slice(0, 10),
): AnswerFault | null {
  const { id, kind, required, limit, options } = question;
  const fault = (code: FaultCode, detail = ''): AnswerFault => ({ question: id, code, detail });
  if (!isAnswered(question)) return null;
  const text = answerText(question, answer);
  if (text === '') return required ? fault('missing') : null;
  if (isPictureKind(kind))
    return typeof answer === 'string' && answer.length <= LARGEST_PICTURE && PICTURE.test(answer) ? null : fault('not-a-picture');
  if (Array.isArray(answer) && kind !== 'some of') return fault('not-an-option');
  const maximum = limit ?? LONGEST_ANSWER;
  switch (kind) {
    case 'consent':
      return text === YES ? null : fault(required ? 'missing' : 'not-an-option');
    case 'yes or no':
      return text === YES || text === NO ? null : fault('not-an-option');
    case 'one of':
    case 'some of': {
      const chosen = Array.isArray(answer) ? answer : [text];
      return chosen.every((one) => options.some(({ value }) => value === one)) ? null : fault('not-an-option');
    }
    case 'date':
      return typedDay(String(answer)) === null ? fault('not-a-date') : dayFault(question, text, today);
    case 'number':
    case 'amount': {
      const number = amountIn({ text, value: null });
      if (number === null) return fault('not-a-number');
      // What can be read in two ways is not held against a bound.
      if (number === 'either') break;
      const [minimum, greatest] = [boundOf(question.minimum), boundOf(question.maximum)];
      if (minimum && number.lt(minimum)) return fault('too-small', question.minimum);
      if (greatest && number.gt(greatest)) return fault('too-great', question.maximum);
      break;
    }
    case 'e-mail':
      if (addressFault(text) !== null) return fault('not-an-address');
      break;
  }
  if ([...text].length > maximum) return fault('too-long', String(maximum));
  if (question.shape && question.shape.parts.length > 0 && !hasShape(question.shape, text))
    return fault('other-shape', question.shape.example);
  const why = oddness(question, text, country);
  return why === null ? null : fault('odd', why);
}

/** What is wrong with the answers of a page, in the order of its questions: only of what is asked after these answers. */
export const answerFaults = (plan: IntakePlan, answers: IntakeAnswers, today: string, country: string): AnswerFault[] =>
  shownSections(plan, answers, today).flatMap(({ questions }) =>
    questions.flatMap((question) => answerFault(question, answers[question.id], country, today) ?? []),
  );
