import type { Column } from '../tables/record.js';
import { planAsking } from '../testing/intake-plan.js';
import { answerRecord } from './answer-record.js';
import { askedFor, isFilledFrom, placesOfAnswer } from './filled-from.js';
import type { IntakeQuestion } from './intake.js';
import { askedSections } from './intake.js';
import { isJoined, joinQuestions, partQuestions, splitQuestion, waysToJoin } from './join-questions.js';
import { addedQuestion } from './make-intake.js';
import { answerChanges, knownAnswers } from './personal.js';
import { dependencies, shownSections } from './shown-questions.js';

const asked = (id: string, words: string, kind: IntakeQuestion['kind'] = 'text', more: Partial<IntakeQuestion> = {}): IntakeQuestion => ({
  ...addedQuestion(id, words, words, kind),
  ...more,
});
const first = asked('a', 'First name', 'text', { required: true });
const last = asked('b', 'Last name');
const plan = planAsking([first, last, asked('c', 'Sort code', 'text', { limit: 6 }), asked('d', 'Account', 'text', { limit: 8 })]);
const today = '2027-03-01';
const wordsAsked = (of: typeof plan): string[] => askedSections(of).flatMap(({ questions }) => questions.map(({ words }) => words));

test('two questions become one in the place of the first, and what took their answers still does', () => {
  const { plan: joined, id } = joinQuestions(plan, 'a', 'b', 'last-word');
  expect(wordsAsked(joined)).toEqual(['First name, Last name', 'Sort code', 'Account']);
  expect(joined.questions[id]!.required).toBe(true);
  expect(answerRecord(joined, { [id]: 'Ada Maria Quist' }, today)).toMatchObject({ 'First name': 'Ada Maria', 'Last name': 'Quist' });
  // Of one word, nothing is left over, and nothing is said twice.
  expect(answerRecord(joined, { [id]: 'Ada' }, today)).toMatchObject({ 'First name': '', 'Last name': 'Ada' });
  expect(answerRecord(joined, {}, today)).toMatchObject({ 'First name': '', 'Last name': '' });
});

test('an answer is cut where the first box is full', () => {
  const { plan: joined, id } = joinQuestions(plan, 'c', 'd', 'characters');
  expect(joined.questions[id]!.limit).toBe(14);
  expect(answerRecord(joined, { [id]: '12345698765432' }, today)).toMatchObject({ 'Sort code': '123456', Account: '98765432' });
});

test('the same answer goes to both, a signature too', () => {
  const signed = planAsking([asked('a', 'Signature', 'signature'), asked('b', 'Signature of the tenant', 'signature')]);
  expect(waysToJoin(signed.questions['a']!, signed.questions['b']!)).toEqual(['same']);
  const { plan: joined, id } = joinQuestions(signed, 'a', 'b', 'same');
  expect(answerRecord(joined, { [id]: 'q-1.png' }, today)).toEqual({
    'Signature (2)': 'q-1.png',
    Signature: 'q-1.png',
    'Signature of the tenant': 'q-1.png',
  });
});

test('what cannot be one question is not offered to be', () => {
  expect(waysToJoin(first, last)).toEqual(['same', 'first-word', 'last-word']);
  expect(waysToJoin(plan.questions['c']!, plan.questions['d']!)).toContain('characters');
  expect(waysToJoin(first, asked('x', 'Agree', 'consent'))).toEqual([]);
  const choice = (id: string, values: string[]) => asked(id, id, 'one of', { options: values.map((value) => ({ value, say: value })) });
  expect(waysToJoin(choice('x', ['A', 'B']), choice('y', ['B', 'A']))).toEqual(['same']);
  expect(waysToJoin(choice('x', ['A', 'B']), choice('y', ['A', 'C']))).toEqual([]);
});

test('one question is asked as several, and its boxes take them together', () => {
  const { plan: split, ids } = splitQuestion(plan, 'b', ['Family name', 'Name at birth'], ', ');
  expect(wordsAsked(split)).toEqual(['First name', 'Family name', 'Name at birth', 'Sort code', 'Account']);
  expect(answerRecord(split, { [ids[0]!]: 'Quist', [ids[1]!]: 'Brandt' }, today)).toMatchObject({ 'Last name': 'Quist, Brandt' });
  expect(answerRecord(split, { [ids[1]!]: 'Brandt' }, today)).toMatchObject({ 'Last name': 'Brandt' });
});

test('joining and splitting are taken back, and nothing is left of them', () => {
  const { plan: joined, id } = joinQuestions(plan, 'a', 'b', 'first-word');
  expect(isJoined(joined, id)).toBe(true);
  const back = partQuestions(joined, id);
  expect(wordsAsked(back)).toEqual(wordsAsked(plan));
  expect(Object.keys(back.questions)).toEqual(Object.keys(plan.questions));
  const { plan: split, ids } = splitQuestion(plan, 'b', ['Family name', 'Name at birth'], ' ');
  expect(wordsAsked(partQuestions(split, ids[1]!))).toEqual(wordsAsked(plan));
});

test('what hangs on a question that was joined hangs on the one that is asked', () => {
  const when = { of: { kind: 'column' as const, column: 'Last name' }, test: 'is' as const, values: ['Quist'] };
  const hanging = { ...plan, questions: { ...plan.questions, d: { ...plan.questions['d']!, when } } };
  const { plan: joined, id } = joinQuestions(hanging, 'a', 'b', 'last-word');
  expect(dependencies(joined).get('d')).toEqual([id]);
  const shown = (answer: string) =>
    shownSections(joined, { [id]: answer }, today).flatMap(({ questions }) => questions.map((one) => one.id));
  expect([shown('Ada Quist').includes('d'), shown('Ada Brandt').includes('d')]).toEqual([true, false]);
});

test('the boxes of an answer are those of all that it fills, and each leads back to it', () => {
  const { plan: joined, id } = joinQuestions(plan, 'a', 'b', 'first-word');
  const places = { 'First name': ['box 1'], 'Last name': ['box 2', 'box 3'] };
  expect(placesOfAnswer(joined, joined.questions[id]!, places)).toEqual(['box 1', 'box 2', 'box 3']);
  expect(['First name', 'Last name', 'Account'].map((column) => askedFor(joined, column)?.id)).toEqual([id, id, 'd']);
});

test('only what says how a question is filled is taken from outside', () => {
  expect([{ from: 'q', take: null }, { from: 'q', take: { what: 'digits' } }, { of: ['q', 'r'], between: ' ' }].map(isFilledFrom)).toEqual([true, true, true]); // prettier-ignore
  expect([null, {}, { from: 3, take: null }, { from: 'q', take: { what: 'all' } }, { of: [], between: '' }, { of: ['q'] }].map(isFilledFrom)).toEqual(Array(6).fill(false)); // prettier-ignore
});

describe('with what records say already', () => {
  const columns = ['First name', 'Last name', 'Sort code', 'Account'].map((name) => ({ name }) as Column);
  const record = { row: 2, cells: ['Ada Maria', 'Quist', '123456', '98765432'].map((text) => ({ text, value: text })) };
  const changes = (of: typeof plan, answers: Record<string, string>) => answerChanges(of, {}, columns, record, answers, today);

  test('a joined question is answered by the columns of both, and what is corrected is told of each of them', () => {
    const { plan: joined, id } = joinQuestions(plan, 'a', 'b', 'last-word');
    const known = knownAnswers(joined, {}, columns, record);
    expect(known[id]).toBe('Ada Maria Quist');
    expect(knownAnswers(joinQuestions(plan, 'c', 'd', 'characters').plan, {}, columns, record)).toMatchObject({ n1: '12345698765432' });
    expect(changes(joined, known as Record<string, string>)).toEqual([]);
    expect(changes(joined, { ...(known as Record<string, string>), [id]: 'Ada Maria Brandt' })).toEqual([
      { column: 'Last name', was: 'Quist', now: 'Brandt' },
    ]);
  });

  test('a question that is asked in parts changes its column only where these say something else', () => {
    const { plan: split, ids } = splitQuestion(plan, 'a', ['Given name', 'Second name'], ' ');
    const known = knownAnswers(split, {}, columns, record) as Record<string, string>;
    expect(changes(split, known)).toEqual([]);
    expect(changes(split, { ...known, [ids[0]!]: 'Ada', [ids[1]!]: 'Maria' })).toEqual([]);
    expect(changes(split, { ...known, [ids[0]!]: 'Ida' })).toEqual([{ column: 'First name', was: 'Ada Maria', now: 'Ida' }]);
  });
});
