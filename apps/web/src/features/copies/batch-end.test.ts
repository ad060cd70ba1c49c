import { endWords, isLong } from './batch-end';

const batch = { number: 3, mailingName: 'Plot renewals', state: 'done' as const, counts: { sent: 1480, bounced: 2, made: 0 }, error: null };
test('what became of the copies is told by number, in the order of the bars', () => {
  const { title, about, isStopped } = endWords(batch);
  expect([title, isStopped]).toEqual(['Batch 3 of Plot renewals is done', false]);
  expect(about).toMatch(/1.?480 sent/);
  expect(about).toMatch(/2 bounced/);
  expect(about).not.toContain('made');
});
test('a batch that stopped says why', () => {
  const error = { code: 'mail-server-refused', message: 'The mail server refused the password.' };
  expect(endWords({ ...batch, state: 'paused', error })).toEqual({
    title: 'Batch 3 of Plot renewals is paused',
    about: 'The mail server refused the password.',
    isStopped: true,
  });
  expect(endWords({ ...batch, state: 'paused' }).about).toBe('Somebody paused it.');
});
test('only a batch that took its time is told of', () => {
  expect(isLong({ startedAt: '2026-01-12T10:00:00Z', finishedAt: '2026-01-12T10:00:05Z' })).toBe(false);
  expect(isLong({ startedAt: '2026-01-12T10:00:00Z', finishedAt: '2026-01-12T10:01:00Z' })).toBe(true);
  expect(isLong({ startedAt: '2026-01-12T10:00:00Z', finishedAt: null })).toBe(true);
});
