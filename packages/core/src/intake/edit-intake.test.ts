import {
  addQuestion,
  dropQuestion,
  isWholeInIntake,
  joinSection,
  moveQuestion,
  splitSection,
  stepQuestion,
  stepSection,
  withQuestion,
} from './edit-intake.js';
import type { IntakePlan } from './intake.js';
import { addedQuestion } from './make-intake.js';

const plan: IntakePlan = {
  name: 'P',
  title: '',
  intro: '',
  sections: [
    { id: 's1', title: 'One', when: null, questions: ['a', 'b'] },
    { id: 's2', title: 'Two', when: null, questions: ['c'] },
  ],
  questions: Object.fromEntries(['a', 'b', 'c'].map((id) => [id, addedQuestion(id, id.toUpperCase(), id, 'text')])),
  after: { atOnce: true, thanks: '' },
  opening: { from: null, until: null, maximum: null, contact: '', sites: [], retentionDays: 14 },
};
const order = (of: IntakePlan): string => of.sections.map(({ id, questions }) => `${id}:${questions.join('')}`).join(' ');

test.each<[string, IntakePlan, string]>([
  ['a question down', stepQuestion(plan, 'a', 1), 's1:ba s2:c'],
  ['a question up', stepQuestion(plan, 'b', -1), 's1:ba s2:c'],
  ['the last of a section down, into the next', stepQuestion(plan, 'b', 1), 's1:a s2:bc'],
  ['the first of a section up, into the one before', stepQuestion(plan, 'c', -1), 's1:abc s2:'],
  ['the very first up', stepQuestion(plan, 'a', -1), 's1:ab s2:c'],
  ['the very last down', stepQuestion(plan, 'c', 1), 's1:ab s2:c'],
  ['a question before another', moveQuestion(plan, 'c', 's1', 'b'), 's1:acb s2:'],
  ['a question to the end of a section', moveQuestion(plan, 'a', 's2', null), 's1:b s2:ca'],
  ['a question onto itself', moveQuestion(plan, 'a', 's1', 'a'), 's1:ab s2:c'],
  ['a question dropped on one above it', dropQuestion(plan, 'b', { question: 'a' }), 's1:ba s2:c'],
  ['a question dropped on one below it', dropQuestion(plan, 'a', { question: 'b' }), 's1:ba s2:c'],
  ['a question dropped in another section', dropQuestion(plan, 'a', { question: 'c' }), 's1:b s2:ac'],
  ['a question dropped on its own place', dropQuestion(plan, 'a', { question: 'a' }), 's1:ab s2:c'],
  ['a question dropped on a heading', dropQuestion(plan, 'b', { section: 's2' }), 's1:a s2:bc'],
  ['a question dropped on its own heading', dropQuestion(plan, 'b', { section: 's1' }), 's1:ba s2:c'],
  ['a question dropped on nothing there is', dropQuestion(plan, 'b', { question: 'z' }), 's1:ab s2:c'],
  ['a section down', stepSection(plan, 's1', 1), 's2:c s1:ab'],
  ['the first section up', stepSection(plan, 's1', -1), 's1:ab s2:c'],
  ['a section that begins in the middle', splitSection(plan, 'b', 'New').plan, 's1:a t1:b s2:c'],
  ['a section in place of another', splitSection(plan, 'a', 'New').plan, 't1:ab s2:c'],
  ['a heading taken away', joinSection(plan, 's2'), 's1:abc'],
  ['the first heading taken away', joinSection(plan, 's1'), 's2:abc'],
  ['the only heading stays', joinSection({ ...plan, sections: [plan.sections[0]!] }, 's1'), 's1:ab'],
])('%s', (_, next, expected) => expect(order(next)).toBe(expected));

test('a question that is added stands after the one that is looked at, with a column of its own', () => {
  const first = addQuestion(plan, 's1', 'a', 'A', 'date');
  expect(order(first.plan)).toBe('s1:an1b s2:c');
  expect(first.plan.questions[first.id]).toMatchObject({ column: 'A (2)', words: 'A', kind: 'date', required: false });
  const second = addQuestion(first.plan, 's2', null, 'Submission', 'text');
  expect(order(second.plan)).toBe('s1:an1b s2:cn2');
  expect(second.plan.questions[second.id]!.column).toBe('Submission (2)');
});

test('words of a question that is gone change nothing; orders, options and conditions are changed as a whole', () => {
  expect(withQuestion(plan, 'z', { words: 'Z' })).toBe(plan);
  expect(withQuestion(plan, 'a', { words: 'Z' }).questions['a']).toMatchObject({ id: 'a', words: 'Z', column: 'A' });
  expect([['sections'], ['questions', 'a', 'options'], ['questions', 'a', 'when'], ['questions', 'a'], ['questions', 'a', 'words'], ['title']].map(isWholeInIntake)).toEqual([true, true, true, false, false, false]);
}); // prettier-ignore
