import { planAsking } from '../testing/intake-plan.js';
import type { Condition } from '../map/condition.js';
import type { HangingQuestion } from './hanging.js';
import { hangingQuestions } from './hanging.js';
import type { IntakePlan, IntakeQuestion } from './intake.js';
import { addedQuestion } from './make-intake.js';

const when = (...columns: string[]): Condition => ({
  all: columns.map((column) => ({ of: { kind: 'column', column }, test: 'is', values: ['yes'] })),
});
const asked = (id: string, of: Condition | null = null, more: Partial<IntakeQuestion> = {}): IntakeQuestion => ({
  ...addedQuestion(id, id.toUpperCase(), id, 'text'),
  when: of,
  ...more,
});
const drawn = (nodes: readonly HangingQuestion[]): string =>
  nodes.map(({ question, hanging }) => question.id + (hanging.length > 0 ? `(${drawn(hanging)})` : '')).join(' ');

test.each<[string, IntakePlan, string]>([
  ['nothing hangs on anything', planAsking([asked('a'), asked('b')]), ''],
  ['one below another, and one below that', planAsking([asked('a'), asked('b', when('A')), asked('c', when('B'))]), 'a(b(c))'],
  ['what hangs on two stands below both', planAsking([asked('a'), asked('b'), asked('c', when('A', 'B'))]), 'a(c) b(c)'],
  ['what was put away is left out', planAsking([asked('a'), asked('b', when('A'), { isAway: true }), asked('c', when('A'))]), 'a(c)'],
  ['two that wait for one another', planAsking([asked('a', when('B')), asked('b', when('A'))]), 'a(b)'],
  ['what hangs on a question that is gone', planAsking([asked('a'), asked('b', when('GONE'))]), ''],
])('%s', (_, plan, wanted) => expect(drawn(hangingQuestions(plan))).toBe(wanted));

test('what a whole section hangs on, all its questions hang on', () => {
  const plan = planAsking([asked('b'), asked('c')]);
  const whole: IntakePlan = {
    ...plan,
    sections: [
      { id: 's0', title: '', when: null, questions: ['a'] },
      { ...plan.sections[0]!, when: when('A') },
    ],
    questions: { ...plan.questions, a: asked('a') },
  };
  expect(drawn(hangingQuestions(whole))).toBe('a(b c)');
});
