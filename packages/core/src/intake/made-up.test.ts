import { planAsking } from '../testing/intake-plan.js';
import { answerFaults } from './answer-faults.js';
import { intakeKinds } from './intake.js';
import type { IntakeKind, IntakeQuestion } from './intake.js';
import { madeUpAnswers } from './made-up.js';
import { addedQuestion } from './make-intake.js';

const picture = 'data:image/png;base64,iVBORw0KGgo=';
const asked = (id: string, kind: IntakeKind, more: Partial<IntakeQuestion> = {}): IntakeQuestion => ({
  ...addedQuestion(id, id, id, kind),
  required: true,
  ...more,
});
const options = ['A', 'B', 'C'].map((value) => ({ value, say: value }));
const everyKind = planAsking(intakeKinds.map((kind, at) => asked(`n${at}`, kind, { options })));

// The checks of answers are those that hold for visitors; postal codes of countries by the library that the checks use.
test.each(['', 'DE', 'GB', 'NL', 'PL', 'AT', 'CH', 'SE', 'NO', 'DK', 'BE', 'IE', 'FR', 'US', 'ES'])(
  'made-up answers to questions of every kind are taken, in an office of %s',
  (country) => {
    expect(answerFaults(everyKind, madeUpAnswers(everyKind, '2027-03-01', country, picture), '2027-03-01', country)).toEqual([]);
  },
);

test('what is asked in a few characters is answered in them, and names look like names', () => {
  const plan = planAsking([
    asked('a', 'text', { words: 'Initials', limit: 3 }),
    asked('b', 'text', { words: 'Name of the tenant' }),
    asked('c', 'some of', { options }),
    asked('d', 'notice'),
    asked('e', 'text', { isAway: true }),
  ]);
  expect(madeUpAnswers(plan, '2027-03-01', '', picture)).toEqual({ a: 'Mad', b: 'Robin Made-Up', c: ['A', 'B'] });
});
