import { t } from '@mailbag/core/words';
import type { IntakeDetail } from '@mailbag/contract';
import type { IntakePlan } from '@mailbag/core';
import { languageName } from '../../features/language-name';
import type { DeskEditor } from '../../features/editing/use-desk';

/** What the parts of an intake's desk work on. */
export interface IntakeWork extends DeskEditor<IntakePlan> {
  intake: IntakeDetail;
}

/** What a question is called in sentences, by the column of its answers. */
export const wordsOfColumn = ({ questions }: IntakePlan, column: string): string =>
  Object.values(questions).find((question) => question.column === column)?.words ?? column;

/** Where something is, for a notice that two people changed it. */
export function intakePlaceWords(plan: IntakePlan, place: readonly string[]): string {
  const [part = '', id = ''] = place;
  if (part === 'questions') return t`the question “${plan.questions[id]?.words ?? id}”`;
  if (part === 'translations') return t`what the page says in ${languageName(id)}`;
  return part === 'sections'
    ? t`the order of the questions`
    : part === 'opening'
      ? t`when the page is open`
      : part === 'after'
        ? t`what happens after submitting`
        : t`the ${part}`;
}
