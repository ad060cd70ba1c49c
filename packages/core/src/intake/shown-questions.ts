import type { Condition } from '../map/condition.js';
import { holds, rulesIn } from '../map/condition.js';
import type { FillContext } from '../map/fill-context.js';
import type { FillRule } from '../map/registry.js';
import type { Work } from '../map/rule.js';
import type { Cell } from '../tables/record.js';
import { emptyCell } from '../tables/record.js';
import { answerText } from './answer-text.js';
import { filledText, sourcesOf } from './filled-from.js';
import type { IntakeAnswers, IntakePlan, IntakeQuestion, IntakeSection } from './intake.js';
import { askedSections, orderedQuestions } from './intake.js';

/** What a visitor is asked after what they have answered so far. */
export interface ShownSection {
  section: IntakeSection;
  questions: IntakeQuestion[];
}

/** The columns of the questions that a condition looks at. */
const columnsIn = (when: Condition | null): string[] =>
  when === null ? [] : rulesIn(when).flatMap((rule) => (rule.kind === 'column' ? [rule.column] : []));

const asCell = (text: string): Cell => ({ text, value: text === '' ? null : text });

/** A condition of a page looks at answers only; anything else is never so. */
function workOnAnswers(cells: ReadonlyMap<string, Cell>, today: string): Work {
  const cell = (column: string): Cell => cells.get(column) ?? emptyCell;
  const context: FillContext = { batch: 0, today, locale: 'en-GB', zone: 'UTC', number: 1, code: '' };
  const make = (rule: FillRule): Cell => (rule.kind === 'column' ? cell(rule.column) : emptyCell);
  return {
    row: { row: 0, cell, source: (column) => column },
    context,
    make,
    evaluate: (rule) => ({ value: make(rule).text }),
    columns: (rule) => (rule.kind === 'column' ? rule.column : ''),
  };
}

/**
 * The sections and questions that are asked, in their order. What is hidden counts as not answered, so that a question that hangs on it is hidden too.
 * @param today ISO 8601
 */
export function shownSections(plan: IntakePlan, answers: IntakeAnswers, today: string): ShownSection[] {
  const sectionOf = new Map(plan.sections.flatMap((section) => section.questions.map((id) => [id, section] as const)));
  const asked = new Map(askedSections(plan).flatMap(({ questions }) => questions.map((one) => [one.column, one] as const)));
  const cells = new Map<string, Cell>();
  const known = new Map<string, boolean>();
  const filled = new Map(orderedQuestions(plan).flatMap((one) => (one.isAway && one.filled ? [[one.column, one.filled] as const] : [])));
  const textOf = (id: string): string => {
    const question = plan.questions[id];
    if (question && !question.isAway) isShown(question);
    return question ? (cells.get(question.column)?.text ?? '') : '';
  };
  const isSo = (when: Condition | null): boolean => {
    for (const column of columnsIn(when)) {
      const other = asked.get(column);
      const by = filled.get(column);
      if (other) isShown(other);
      else if (by) cells.set(column, asCell(filledText(by, textOf)));
    }
    return when === null || holds(when, workOnAnswers(cells, today)) === true;
  };
  const isShown = (question: IntakeQuestion): boolean => {
    const before = known.get(question.id);
    if (before !== undefined) return before;
    // Loops are refused before a page is published; one that came about all the same ends here.
    known.set(question.id, false);
    const shown = isSo(sectionOf.get(question.id)?.when ?? null) && isSo(question.when);
    known.set(question.id, shown);
    const text = shown ? answerText(question, answers[question.id]) : '';
    cells.set(question.column, asCell(text));
    return shown;
  };
  return askedSections(plan)
    .map(({ section, questions }) => ({ section, questions: questions.filter(isShown) }))
    .filter(({ questions }) => questions.length > 0);
}

/** The questions that each question hangs on, by its own condition and that of its section. */
export function dependencies(plan: IntakePlan): Map<string, string[]> {
  const byColumn = new Map(
    orderedQuestions(plan).map(({ column, id, isAway, filled }) => [column, isAway && filled ? sourcesOf(filled) : [id]]),
  );
  return new Map(
    plan.sections.flatMap((section) =>
      section.questions.flatMap((id) => {
        const columns = [...columnsIn(section.when), ...columnsIn(plan.questions[id]?.when ?? null)];
        const others = [...new Set(columns.flatMap((column) => byColumn.get(column) ?? []))];
        return others.length > 0 ? [[id, others] as const] : [];
      }),
    ),
  );
}

/** Questions that hang on one another in a circle, the first of them again at its end; null: none do. */
export function dependencyLoop(plan: IntakePlan): IntakeQuestion[] | null {
  const hangsOn = dependencies(plan);
  const done = new Set<string>();
  const follow = (id: string, path: readonly string[]): string[] | null => {
    if (path.includes(id)) return [...path.slice(path.indexOf(id)), id];
    if (done.has(id)) return null;
    for (const other of hangsOn.get(id) ?? []) {
      const loop = follow(other, [...path, id]);
      if (loop) return loop;
    }
    done.add(id);
    return null;
  };
  for (const id of hangsOn.keys()) {
    const loop = follow(id, []);
    if (loop) return loop.map((one) => plan.questions[one]!);
  }
  return null;
}
