import type { Need } from '@mailbag/contract';
import { remark } from '@mailbag/core';
import { needWords } from './need-words';

const need = (part: Partial<Need>): Need => ({ kind: 'bounced', count: 1, name: null, id: null, number: null, detail: null, ...part });

test('a need says how many, of what, and why, and leads to the list behind it', () => {
  expect(needWords(need({ count: 2, name: 'Permits', id: 7, detail: '550 5.1.1 unknown' }))).toEqual({
    title: '2 copies bounced',
    about: 'Permits · 550 5.1.1 unknown',
    action: 'Look at them',
    to: '/ledger?state=bounced&mailing=7',
  });
  expect(needWords(need({ kind: 'print-run', number: 3, detail: remark('run-not-made') })).about).toBe(
    'Print run 3 · It could not be put together. No copy was marked.',
  );
  expect(needWords(need({ kind: 'paused', id: 4, number: 9, name: 'Permits' }))).toMatchObject({
    about: 'Batch 9 of Permits · Paused by hand.',
    to: '/batches/4',
  });
  expect(needWords(need({ kind: 'answers', count: 3, id: 2, name: 'Ask for a plot' }))).toMatchObject({
    title: '3 answers wait for a batch',
    to: '/intakes/2/answers',
  });
  // Nothing is said where nothing is known.
  expect(needWords(need({ kind: 'set-aside', name: 'Permits', id: 1 })).about).toBe('Permits');
});
