import type { AnswerValue, IntakeQuestion } from '@mailbag/core/intake';
import { NO, YES } from '@mailbag/core/intake';
import type { Say } from './words';

/** An answer as it is read again; empty: there is none. Pictures have none. */
export function answerWords({ kind, options }: IntakeQuestion, answer: AnswerValue | undefined, say: Say): string {
  if (answer === undefined || answer.length === 0) return '';
  if (kind === 'consent') return answer === YES ? say('agree') : '';
  if (kind === 'yes or no') return answer === YES ? say('yes') : answer === NO ? say('no') : '';
  const labelOf = (value: string): string => options.find((one) => one.value === value)?.say ?? value;
  return Array.isArray(answer) ? answer.map(labelOf).join('\n') : labelOf(answer);
}

/** Seconds that a question takes, by what it wants (common practice, no source). */
const SECONDS: Partial<Record<IntakeQuestion['kind'], number>> = {
  'long text': 40,
  signature: 30,
  image: 45,
  'yes or no': 6,
  consent: 8,
  notice: 5,
  'one of': 8,
};

/** Minutes that questions take, at least one. */
export const minutesFor = (questions: readonly IntakeQuestion[]): number =>
  Math.max(1, Math.round(questions.reduce((sum, { kind }) => sum + (SECONDS[kind] ?? 14), 0) / 60));
