import type { Taken } from '../map/taken.js';
import { addQuestion, moveQuestion, withQuestion } from './edit-intake.js';
import type { FilledFrom } from './filled-from.js';
import { filledBy, sourcesOf } from './filled-from.js';
import type { IntakePlan, IntakeQuestion } from './intake.js';

/** How one answer is given to two questions that were joined. */
export const joinWays = ['same', 'first-word', 'last-word', 'characters'] as const;
export type JoinWay = (typeof joinWays)[number];

/** Kinds whose answers are text that can be taken apart. */
const isText = ({ kind }: IntakeQuestion): boolean => ['text', 'long text', 'number', 'telephone', 'postal code', 'IBAN'].includes(kind);
const saysTheSame = (one: IntakeQuestion, other: IntakeQuestion): boolean =>
  one.kind === other.kind &&
  one.options.length === other.options.length &&
  one.options.every(({ value }) => other.options.some((option) => option.value === value));

/** The ways in which two questions can become one; none: they cannot. */
export function waysToJoin(first: IntakeQuestion, second: IntakeQuestion): JoinWay[] {
  if ([first, second].some(({ kind, isAway }) => isAway || kind === 'notice' || kind === 'consent')) return [];
  const same: JoinWay[] = saysTheSame(first, second) ? ['same'] : [];
  if (!isText(first) || !isText(second)) return same;
  return [...same, 'first-word', 'last-word', ...(first.limit === null ? [] : (['characters'] as const))];
}

/** What the first and the second of two joined questions take of the answer. */
function taken(way: JoinWay, { limit }: IntakeQuestion): [Taken | null, Taken | null] {
  switch (way) {
    case 'same':
      return [null, null];
    case 'first-word':
      return [
        { what: 'word', number: 1 },
        { what: 'all-but-word', number: 1 },
      ];
    case 'last-word':
      return [
        { what: 'all-but-word', number: -1 },
        { what: 'word', number: -1 },
      ];
    case 'characters':
      return [
        { what: 'characters', from: 1, to: limit ?? 1 },
        { what: 'characters', from: (limit ?? 1) + 1, to: null },
      ];
  }
}

/** The most characters that an answer to both may have; null: no limit. */
function limitOf(way: JoinWay, { limit: first }: IntakeQuestion, { limit: second }: IntakeQuestion): number | null {
  if (way === 'same') return first === null || second === null ? (first ?? second) : Math.min(first, second);
  return way === 'characters' && first !== null && second !== null ? first + second : null;
}

/**
 * Makes one question of two: a new one is asked in the place of the first, and both are filled from its answer, so that whatever took their answers still does.
 * @returns the plan and the id of the new question
 */
export function joinQuestions(plan: IntakePlan, first: string, second: string, way: JoinWay): { plan: IntakePlan; id: string } {
  const [one, other] = [plan.questions[first]!, plan.questions[second]!];
  const section = plan.sections.find(({ questions }) => questions.includes(first))!;
  const words = way === 'same' ? one.words : `${one.words}, ${other.words}`;
  const added = addQuestion(plan, section.id, first, words, way === 'same' ? one.kind : 'text');
  const { id } = added;
  const asked = withQuestion(added.plan, id, {
    required: one.required || other.required,
    help: one.help || other.help,
    options: way === 'same' ? one.options : [],
    limit: limitOf(way, one, other),
    when: one.when,
  });
  const [own, rest] = taken(way, one);
  return { plan: withFilled(withFilled(asked, first, { from: id, take: own }), second, { from: id, take: rest }), id };
}

const withFilled = (plan: IntakePlan, id: string, filled: FilledFrom): IntakePlan => withQuestion(plan, id, { isAway: true, filled });

/** Whether a question can be asked as several: its answer is text that can be put together. */
export const canSplit = (question: IntakeQuestion): boolean => !question.isAway && isText(question) && question.kind !== 'IBAN';

/**
 * Asks several questions in the place of one, which is filled with their answers, one behind the other.
 * @param words of the questions @param between what stands between their answers
 * @returns the plan and the ids of the questions
 */
export function splitQuestion(
  plan: IntakePlan,
  id: string,
  words: readonly string[],
  between: string,
): { plan: IntakePlan; ids: string[] } {
  const whole = plan.questions[id]!;
  const section = plan.sections.find(({ questions }) => questions.includes(id))!;
  const ids: string[] = [];
  let next = plan;
  for (const one of words) {
    const added = addQuestion(next, section.id, ids.at(-1) ?? id, one, 'text');
    ids.push(added.id);
    next = withQuestion(added.plan, added.id, { required: whole.required, when: whole.when });
  }
  return { plan: withFilled(next, id, { of: ids, between }), ids };
}

/** Whether a question was made by joining or splitting others. */
export const isJoined = (plan: IntakePlan, id: string): boolean => filledBy(plan, id).length > 0;

/** Takes joining or splitting back: what was put away for it is asked again, and what was made for it is not there any more. */
export function partQuestions(plan: IntakePlan, id: string): IntakePlan {
  const filled = filledBy(plan, id);
  const made = new Set(filled.flatMap((one) => sourcesOf(one.filled!)));
  const place = plan.sections.find(({ questions }) => questions.includes(id));
  let next = plan;
  for (const one of filled) {
    if (place) next = moveQuestion(next, one.id, place.id, id);
    next = withQuestion(next, one.id, { isAway: false, filled: null });
  }
  return {
    ...next,
    sections: next.sections.map((section) => ({ ...section, questions: section.questions.filter((one) => !made.has(one)) })),
    questions: Object.fromEntries(Object.entries(next.questions).filter(([one]) => !made.has(one))),
  };
}
