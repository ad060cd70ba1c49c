import type { IntakePlan, IntakeQuestion } from '../intake/intake.js';

/** A page that asks some questions in one step. */
export const planAsking = (questions: readonly IntakeQuestion[], more: Partial<IntakePlan> = {}): IntakePlan => ({
  name: 'Permits',
  title: '',
  intro: '',
  sections: [{ id: 's1', title: 'All', when: null, questions: questions.map(({ id }) => id) }],
  questions: Object.fromEntries(questions.map((question) => [question.id, question])),
  after: { atOnce: true, thanks: '' },
  opening: { from: null, until: null, maximum: null, contact: '', sites: [], retentionDays: 0 },
  ...more,
});
