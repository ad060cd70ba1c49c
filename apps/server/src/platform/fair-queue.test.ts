import { FairQueue } from './fair-queue.js';

/** Work that ends when it is told to, and notes when it began. */
function controlled(queue: FairQueue) {
  const begun: string[] = [];
  const ends = new Map<string, () => void>();
  const ask = (key: string, name: string): Promise<void> =>
    queue.run(key, () => {
      begun.push(name);
      return new Promise<void>((end) => ends.set(name, end));
    });
  const end = async (name: string): Promise<void> => {
    ends.get(name)!();
    await new Promise((done) => setImmediate(done));
  };
  return { begun, ask, end };
}

test('askers take turns, however much one of them asks for', async () => {
  const { begun, ask, end } = controlled(new FairQueue(1));
  const all = [ask('ann', 'a1'), ask('ann', 'a2'), ask('ann', 'a3'), ask('ben', 'b1')];
  for (const name of ['a1', 'b1', 'a2', 'a3']) {
    await new Promise((done) => setImmediate(done));
    expect(begun.at(-1)).toBe(name);
    await end(name);
  }
  await Promise.all(all);
});
test('one asker never takes the last place from the others', async () => {
  const { begun, ask, end } = controlled(new FairQueue(2, 1));
  const all = [ask('ann', 'a1'), ask('ann', 'a2'), ask('ben', 'b1')];
  await new Promise((done) => setImmediate(done));
  expect(begun).toEqual(['a1', 'b1']);
  await end('a1');
  expect(begun).toEqual(['a1', 'b1', 'a2']);
  await end('a2');
  await end('b1');
  await Promise.all(all);
});
test('what fails gives its place back, and too much that waits is said to be full', async () => {
  const queue = new FairQueue(1, 1, 2);
  await expect(queue.run('ann', () => Promise.reject(new Error('no')))).rejects.toThrow('no');
  let end!: () => void;
  const first = queue.run('ann', () => new Promise<void>((done) => (end = done)));
  await new Promise((done) => setImmediate(done));
  const others = [queue.run('ann', () => Promise.resolve()), queue.run('ann', () => Promise.resolve())];
  expect([queue.isFull('ann'), queue.isFull('ben')]).toEqual([true, false]);
  end();
  await Promise.all([first, ...others]);
  expect(queue.isFull('ann')).toBe(false);
});
