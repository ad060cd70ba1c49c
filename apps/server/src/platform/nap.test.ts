import { Nap } from './nap.js';

/** A rest that nobody would wait for: it ends because it was cut short, or the test does not. */
const FOR_EVER = 1_000_000_000;
const timed = async (work: () => Promise<void>): Promise<number> => {
  const from = performance.now();
  await work();
  return performance.now() - from;
};

test('a rest lasts until it is cut short, is left out once when it was cut short before, and ends with the work', async () => {
  const nap = new Nap();
  const { signal } = new AbortController();
  expect(await timed(() => nap.rest(30, signal))).toBeGreaterThanOrEqual(25);
  setTimeout(() => nap.cutShort(), 5);
  await nap.rest(FOR_EVER, signal);
  nap.cutShort();
  nap.cutShort();
  await nap.rest(FOR_EVER, signal);
  expect(await timed(() => nap.rest(30, signal))).toBeGreaterThanOrEqual(25);
  const over = new AbortController();
  setTimeout(() => over.abort(), 5);
  await nap.rest(FOR_EVER, over.signal);
  await nap.rest(FOR_EVER, over.signal);
});
