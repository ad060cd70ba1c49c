import { Nap } from './nap.js';

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
  expect(await timed(() => nap.rest(5000, signal))).toBeLessThan(1000);
  nap.cutShort();
  nap.cutShort();
  expect(await timed(() => nap.rest(5000, signal))).toBeLessThan(1000);
  expect(await timed(() => nap.rest(30, signal))).toBeGreaterThanOrEqual(25);
  const over = new AbortController();
  setTimeout(() => over.abort(), 5);
  expect(await timed(() => nap.rest(5000, over.signal))).toBeLessThan(1000);
  expect(await timed(() => nap.rest(5000, over.signal))).toBeLessThan(1000);
});
