import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import { copyStates } from '@mailbag/core';
import { batchMail, durationWords } from './batch-mail-words.js';

const end = {
  number: 3,
  mailingName: 'Plots',
  isPaused: false,
  took: 5 * 60_000,
  counts: { sent: 1200, bounced: 2, made: 0 },
  reason: null,
};

test.each([
  [10_000, 'a minute'],
  [119 * 60_000, '119 minutes'],
  [180 * 60_000, '3 hours'],
])('%d ms are “%s”', (ms, words) => expect(durationWords(ms)).toBe(words));

test.each([
  ['en', 'Batch 3 of Plots is done', 'It took 5 minutes.', '1,200 sent, 2 bounced.'],
  ['de', 'Stapel 3 von Plots ist fertig', 'Es dauerte 5 Minuten.', '1.200 gesendet, 2 unzustellbar.'],
  ['', 'Batch 3 of Plots is done', 'It took 5 minutes.', '1,200 sent, 2 bounced.'],
])('whoever is spoken to in “%s” is told “%s”, with what became of the copies', (language, subject, took, counts) => {
  const mail = batchMail(language, end);
  expect(mail.subject).toBe(subject);
  expect(mail.text).toContain(took);
  expect(mail.text.split('\n\n')).toContain(counts);
});

test.each([
  ['en', 'The disk is full.', 'Batch 3 of Plots is paused: The disk is full.'],
  ['en', null, 'Batch 3 of Plots is paused: somebody paused it.'],
  ['de', 'The disk is full.', 'Was geschehen ist, steht in Mailbag bei diesem Stapel.'],
  ['de', null, 'Jemand hat ihn angehalten.'],
])('a pause is told in “%s” (%s)', (language, reason, words) => {
  expect(batchMail(language, { ...end, isPaused: true, reason, counts: {} }).text).toContain(words);
});

test('states are called in German as the screens call them', () => {
  const catalogue = join(import.meta.dirname, '../../../web/src/words/de/common.json');
  const words = JSON.parse(readFileSync(catalogue, 'utf8')) as Record<string, string>;
  for (const state of copyStates) expect(batchMail('de', { ...end, counts: { [state]: 1 } }).text).toContain(`1 ${words[state]}.`);
});
