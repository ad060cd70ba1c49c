import { recordKeys } from '../tables/changes.js';
import { answerText } from './answer-text.js';
import { filledText, sourcesOf } from './filled-from.js';
import type { IntakeAnswers, IntakePlan } from './intake.js';
import { isAnswered, orderedQuestions } from './intake.js';
import { shownSections } from './shown-questions.js';

/** Columns of an intake's source that hold no answer: which submission it is, and when it came in. */
export const NUMBER_COLUMN = 'Submission';
export const RECEIVED_COLUMN = 'Received';

/** The columns of an intake's source, in their order, each once. What was put away keeps its column: answers may stand in it. What is known of recipients comes last. */
export const intakeColumns = (plan: IntakePlan): string[] => [
  ...new Set([
    NUMBER_COLUMN,
    RECEIVED_COLUMN,
    ...orderedQuestions(plan)
      .filter(isAnswered)
      .map(({ column }) => column),
    ...(plan.personal?.columns ?? []),
  ]),
];

/** The key by which the copies of a submission are found. */
export const submissionKey = (number: string): string =>
  recordKeys([{ name: NUMBER_COLUMN }], NUMBER_COLUMN)({ row: 0, cells: [{ text: number, value: number }] });

/** The texts that answers put into a record, by its columns; what is hidden is not filled, and what is filled from other answers is. */
export function answerRecord(plan: IntakePlan, answers: IntakeAnswers, today: string): Record<string, string> {
  const shown = shownSections(plan, answers, today).flatMap(({ questions }) => questions.filter(isAnswered));
  const texts = new Map(shown.map((question) => [question.id, answerText(question, answers[question.id])]));
  const filled = orderedQuestions(plan).flatMap(({ column, isAway, filled: by }): [string, string][] =>
    isAway && by && sourcesOf(by).some((id) => texts.has(id)) ? [[column, filledText(by, (id) => texts.get(id) ?? '')]] : [],
  );
  return Object.fromEntries([...shown.map(({ id, column }): [string, string] => [column, texts.get(id)!]), ...filled]);
}

/** A submission as it is kept. */
export interface StoredSubmission {
  answers: IntakeAnswers;
  number: string;
  /** ISO 8601 in UTC. */
  receivedAt: string;
}

/** When something came in, as the clocks of a place showed it: day (ISO 8601) and minute. @param zone IANA */
export function receivedText(receivedAt: string, zone: string): string {
  // Swedish writes days and times as ISO 8601 does (Unicode CLDR, sv).
  return new Intl.DateTimeFormat('sv-SE', { timeZone: zone, dateStyle: 'short', timeStyle: 'short' }).format(new Date(receivedAt));
}

/** The texts of a whole record of an intake's source, by its columns. @param zone where the office is, IANA: the days and times in it are those of its clocks */
export function submissionRecord(
  plan: IntakePlan,
  { answers, number, receivedAt }: StoredSubmission,
  zone: string,
): Record<string, string> {
  const received = receivedText(receivedAt, zone);
  return { ...answerRecord(plan, answers, received.slice(0, 10)), [NUMBER_COLUMN]: number, [RECEIVED_COLUMN]: received };
}
