import { partOf, readTaken } from '../map/taken.js';
import type { Taken } from '../map/taken.js';
import type { IntakePlan, IntakeQuestion } from './intake.js';
import { orderedQuestions } from './intake.js';

/** How the column of a question is filled that nobody is asked, out of what is answered to others. */
export type FilledFrom =
  /** All of an answer, or a part of it. */
  | { from: string; take: Taken | null }
  /** Several answers with something between them; those that are empty are left out. */
  | { of: string[]; between: string };

/** Whether something read from outside says how a question is filled. */
export function isFilledFrom(value: unknown): value is FilledFrom {
  const { from, take, of, between } = (value ?? {}) as Record<string, unknown>;
  if (Array.isArray(of))
    return (
      of.length > 0 && of.length <= 20 && of.every((id) => typeof id === 'string') && typeof between === 'string' && between.length <= 20
    );
  return typeof from === 'string' && (take === null || readTaken(take) !== null);
}

/** Ids of the questions whose answers fill another one. */
export const sourcesOf = (filled: FilledFrom): string[] => ('of' in filled ? filled.of : [filled.from]);

/** What a question is filled with. @param textOf the text of another question's answer; empty: there is none */
export function filledText(filled: FilledFrom, textOf: (id: string) => string): string {
  if ('of' in filled) return filled.of.map(textOf).filter(Boolean).join(filled.between);
  const text = textOf(filled.from);
  if (text === '' || filled.take === null) return text;
  // Of one word alone, all is the first word, and nothing is left for the rest.
  return partOf(text, filled.take) ?? '';
}

/** Questions that are filled from the answers to a question. */
export const filledBy = (plan: IntakePlan, id: string): IntakeQuestion[] =>
  orderedQuestions(plan).filter(({ isAway, filled }) => isAway && filled && sourcesOf(filled).includes(id));

/** The columns that an answer goes to: its own, and those of the questions that are filled from it. */
export const columnsOf = (plan: IntakePlan, { id, column }: IntakeQuestion): string[] => [
  column,
  ...filledBy(plan, id).map((other) => other.column),
];

/** Where an answer goes, by the places of columns: boxes that it fills itself, and those of the questions that are filled from it. */
export const placesOfAnswer = <Place>(
  plan: IntakePlan,
  question: IntakeQuestion,
  places: Readonly<Record<string, readonly Place[]>>,
): Place[] => columnsOf(plan, question).flatMap((column) => (Object.hasOwn(places, column) ? places[column]! : []));

/** The question that is asked for what stands in a column: its own, or the first of those that fill it. */
export function askedFor(plan: IntakePlan, column: string): IntakeQuestion | undefined {
  const own = Object.values(plan.questions).find((question) => question.column === column);
  const [source] = own?.isAway && own.filled ? sourcesOf(own.filled) : [];
  return source === undefined ? own : plan.questions[source];
}
