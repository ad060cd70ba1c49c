import type { IntakePlan, IntakeQuestion } from './intake.js';
import { orderedQuestions } from './intake.js';
import { dependencies } from './shown-questions.js';

/** A question with those that are asked only after what it is answered. */
export interface HangingQuestion {
  question: IntakeQuestion;
  hanging: HangingQuestion[];
}

/**
 * Which questions hang on which: those that are always asked first, below each those that its answer decides about, and so on.
 * One that hangs on several stands below each of them. Questions that neither hang on others nor decide about any are left out, and so are those that were put away.
 */
export function hangingQuestions(plan: IntakePlan): HangingQuestion[] {
  const hangsOn = dependencies(plan);
  const asked = orderedQuestions(plan).filter(({ isAway }) => !isAway);
  const reached = new Set<string>();
  const below = (id: string, path: readonly string[]): HangingQuestion[] =>
    asked.filter((one) => hangsOn.get(one.id)?.includes(id) && !path.includes(one.id)).map((question) => node(question, path));
  const node = (question: IntakeQuestion, path: readonly string[]): HangingQuestion => {
    reached.add(question.id);
    return { question, hanging: below(question.id, [...path, question.id]) };
  };
  const roots = asked.filter(({ id }) => !hangsOn.has(id)).map((question) => node(question, []));
  // Those that wait for one another in a circle hang on nothing that is always asked.
  const circles = asked.flatMap((question) => (reached.has(question.id) ? [] : [node(question, [])]));
  return [...roots, ...circles].filter(({ hanging }) => hanging.length > 0);
}
