import type { Edition } from '../intakes/editions.service.js';
import { answerBoxes } from './answer-boxes.js';

const column = (name: string) => ({ kind: 'column' as const, column: name });
const box = (name: string, page: number) => ({ name, widgets: [{ page, rect: [10, 20, 30, 40] }] });
const question = (id: string, own: string, isAway = false) => ({ id, column: own, isAway, kind: 'text' });

const edition = {
  plan: {
    sections: [{ id: 's1', questions: ['q1', 'q2', 'q3'] }],
    questions: { q1: question('q1', 'Name'), q2: question('q2', 'Office', true), q3: question('q3', 'Signature') },
  },
  frozen: {
    plan: { output: { pictures: [{ template: 8, field: 'sign', column: 'Signature' }] } },
    templates: [
      { id: 7, map: { name: column('Name'), office: column('Office') }, fields: [box('name', 1), box('office', 1), box('free', 1)] },
      { id: 8, map: { again: column('Name') }, fields: [box('again', 2), box('sign', 2)] },
    ],
  },
} as unknown as Edition;

test('every box that takes an answer leads to its question, on each form; what nobody is asked leads nowhere', () => {
  expect(answerBoxes(edition)).toEqual([
    { question: 'q1', form: 0, page: 1, rect: [10, 20, 30, 40] },
    { question: 'q1', form: 1, page: 2, rect: [10, 20, 30, 40] },
    { question: 'q3', form: 1, page: 2, rect: [10, 20, 30, 40] },
  ]);
});
