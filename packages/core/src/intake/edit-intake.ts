import { NUMBER_COLUMN, RECEIVED_COLUMN } from './answer-record.js';
import type { IntakeKind, IntakePlan, IntakeQuestion, IntakeSection } from './intake.js';
import { addedQuestion } from './make-intake.js';

/** Parts of an intake that are changed as a whole, so that two changes of one never mix. */
export const isWholeInIntake = (place: readonly string[]): boolean =>
  (place.length === 1 && (place[0] === 'sections' || place[0] === 'picture')) ||
  (place.length === 3 && place[0] === 'questions' && ['options', 'when', 'shape', 'sure', 'filled'].includes(place[2]!));

const freeId = (prefix: string, taken: (id: string) => boolean): string => {
  for (let number = 1; ; number++) if (!taken(`${prefix}${number}`)) return `${prefix}${number}`;
};

/** The plan with one question changed. */
export const withQuestion = (plan: IntakePlan, id: string, change: Partial<IntakeQuestion>): IntakePlan => {
  const question = plan.questions[id];
  return question ? { ...plan, questions: { ...plan.questions, [id]: { ...question, ...change } } } : plan;
};
export const withSection = (plan: IntakePlan, id: string, change: Partial<IntakeSection>): IntakePlan => ({
  ...plan,
  sections: plan.sections.map((section) => (section.id === id ? { ...section, ...change } : section)),
});

/** Puts a question before another one, or at the end of a section. @param before null: at the end */
export function moveQuestion(plan: IntakePlan, id: string, sectionId: string, before: string | null): IntakePlan {
  if (before === id) return plan;
  const sections = plan.sections.map((section) => {
    const others = section.questions.filter((one) => one !== id);
    if (section.id !== sectionId) return { ...section, questions: others };
    const at = before === null ? others.length : others.indexOf(before);
    return { ...section, questions: at < 0 ? [...others, id] : [...others.slice(0, at), id, ...others.slice(at)] };
  });
  return { ...plan, sections };
}

/** Drops a question on another one, whose place it takes: what lies between moves up or down by one. On a heading it comes first under it. */
export function dropQuestion(plan: IntakePlan, id: string, on: { question: string } | { section: string }): IntakePlan {
  if ('section' in on) {
    const section = plan.sections.find((one) => one.id === on.section);
    return section ? moveQuestion(plan, id, section.id, section.questions.find((one) => one !== id) ?? null) : plan;
  }
  const section = plan.sections.find(({ questions }) => questions.includes(on.question));
  if (!section) return plan;
  const [from, to] = [section.questions.indexOf(id), section.questions.indexOf(on.question)];
  return moveQuestion(plan, id, section.id, from >= 0 && from < to ? (section.questions[to + 1] ?? null) : on.question);
}

/** Moves a question by one place, also into the section before or after. */
export function stepQuestion(plan: IntakePlan, id: string, by: -1 | 1): IntakePlan {
  const at = plan.sections.findIndex(({ questions }) => questions.includes(id));
  const section = plan.sections[at];
  if (!section) return plan;
  const place = section.questions.indexOf(id);
  const other = section.questions[place + by];
  if (other !== undefined) {
    const questions = [...section.questions];
    [questions[place], questions[place + by]] = [other, id];
    return withSection(plan, section.id, { questions });
  }
  const beside = plan.sections[at + by];
  if (!beside) return plan;
  return moveQuestion(plan, id, beside.id, by === 1 ? (beside.questions[0] ?? null) : null);
}

/** Moves a section by one place. */
export function stepSection(plan: IntakePlan, id: string, by: -1 | 1): IntakePlan {
  const at = plan.sections.findIndex((one) => one.id === id);
  const to = at + by;
  if (at < 0 || to < 0 || to >= plan.sections.length) return plan;
  const sections = [...plan.sections];
  [sections[at], sections[to]] = [sections[to]!, sections[at]!];
  return { ...plan, sections };
}

/** Adds a question that no field has, after another one. @returns the plan and its id */
export function addQuestion(
  plan: IntakePlan,
  sectionId: string,
  after: string | null,
  words: string,
  kind: IntakeKind,
): { plan: IntakePlan; id: string } {
  const id = freeId('n', (one) => Object.hasOwn(plan.questions, one));
  const taken = new Set(
    [NUMBER_COLUMN, RECEIVED_COLUMN, ...Object.values(plan.questions).map(({ column }) => column)].map((one) => one.toLowerCase()),
  );
  let column = words;
  for (let number = 2; taken.has(column.toLowerCase()); number++) column = `${words} (${number})`;
  const questions = { ...plan.questions, [id]: addedQuestion(id, column, words, kind) };
  const section = plan.sections.find((one) => one.id === sectionId);
  const next = section && after !== null ? (section.questions[section.questions.indexOf(after) + 1] ?? null) : null;
  return { plan: moveQuestion({ ...plan, questions }, id, sectionId, next), id };
}

/** Begins another section with a question: what follows it in its section comes along. @returns the plan and the id of the section */
export function splitSection(plan: IntakePlan, first: string, title: string): { plan: IntakePlan; id: string } {
  const id = freeId('t', (one) => plan.sections.some((section) => section.id === one));
  const sections = plan.sections.flatMap((section) => {
    const at = section.questions.indexOf(first);
    if (at < 0) return [section];
    return [
      { ...section, questions: section.questions.slice(0, at) },
      { id, title, when: section.when, questions: section.questions.slice(at) },
    ].filter(({ questions }) => questions.length > 0);
  });
  return { plan: { ...plan, sections }, id };
}

/** Takes a heading away: its questions stand under the one before, or the one after. The last one stays. */
export function joinSection(plan: IntakePlan, id: string): IntakePlan {
  const at = plan.sections.findIndex((one) => one.id === id);
  const own = plan.sections[at];
  const into = plan.sections[at === 0 ? 1 : at - 1];
  if (!own || !into) return plan;
  const questions = at === 0 ? [...own.questions, ...into.questions] : [...into.questions, ...own.questions];
  return withSection({ ...plan, sections: plan.sections.filter((one) => one.id !== id) }, into.id, { questions });
}
