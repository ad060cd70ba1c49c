import { answerFaults } from './answer-faults.js';
import { intakeKinds } from './intake.js';
import type { IntakeKind, IntakePlan, IntakeQuestion } from './intake.js';
import { madeUpAnswers } from './made-up.js';
import { addedQuestion } from './make-intake.js';

const picture = 'data:image/png;base64,iVBORw0KGgo=';
const planOf = (questions: IntakeQuestion[]): IntakePlan => ({
  name: 'Tried',
  title: '',
  intro: '',
  sections: [{ id: 's1', title: '', when: null, questions: questions.map(({ id }) => id) }],
  questions: Object.fromEntries(questions.map((question) => [question.id, question])),
  after: { atOnce: true, thanks: '' },
  opening: { from: null, until: null, most: null, contact: '', sites: [], keptDays: 0 },
});
const asked = (id: string, kind: IntakeKind, more: Partial<IntakeQuestion> = {}): IntakeQuestion => ({
  ...addedQuestion(id, id, id, kind),
  required: true,
  ...more,
});
const options = ['A', 'B', 'C'].map((value) => ({ value, say: value }));
const everyKind = planOf(intakeKinds.map((kind, at) => asked(`n${at}`, kind, { options })));

// The checks of answers are those that hold for visitors; postal codes of countries by the library that the checks use.
test.each(['', 'DE', 'GB', 'NL', 'PL', 'AT', 'CH', 'SE', 'NO', 'DK', 'BE', 'IE', 'FR', 'US', 'ES'])(
  'made-up answers to questions of every kind are taken, in an office of %s',
  (country) => {
    expect(answerFaults(everyKind, madeUpAnswers(everyKind, '2027-03-01', country, picture), '2027-03-01', country)).toEqual([]);
  },
);

test('what is asked in a few characters is answered in them, and names look like names', () => {
  const plan = planOf([
    asked('a', 'text', { words: 'Initials', limit: 3 }),
    asked('b', 'text', { words: 'Name of the tenant' }),
    asked('c', 'some of', { options }),
    asked('d', 'notice'),
    asked('e', 'text', { isAway: true }),
  ]);
  expect(madeUpAnswers(plan, '2027-03-01', '', picture)).toEqual({ a: 'Mad', b: 'Robin Made-Up', c: ['A', 'B'] });
});
