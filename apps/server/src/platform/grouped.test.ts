import { Grouped } from './grouped.js';

test('pieces of one turn are done together, what comes meanwhile afterwards, and one that fails takes no other with it', async () => {
  const calls: number[][] = [];
  const double = (one: number): number => {
    if (one === 3) throw new Error('three is not to be had');
    return one * 2;
  };
  const grouped = new Grouped<number, number>(
    async (all) => {
      calls.push([...all]);
      await new Promise((done) => setTimeout(done, 5));
      return all.map(double);
    },
    (one) => Promise.resolve().then(() => double(one)),
    null,
    4,
  );
  const first = [1, 2].map((one) => grouped.submit(one));
  await new Promise((done) => setImmediate(() => setImmediate(done)));
  const later = [3, 4, 5, 6, 7].map((one) => grouped.submit(one).catch((error: Error) => error.message));
  expect(await Promise.all(first)).toEqual([2, 4]);
  expect(await Promise.all(later)).toEqual(['three is not to be had', 8, 10, 12, 14]);
  expect(calls).toEqual([[1, 2], [3, 4, 5, 6], [7]]);
  expect(await grouped.submit(8)).toBe(16);
});
