import { Tries, stretchOf } from './tries.js';

const wait = (work: () => void): number => {
  try {
    work();
    return 0;
  } catch (error) {
    return (error as { fields: { seconds: number } }).fields.seconds;
  }
};

test('what is wrong too often waits longer and longer, and is forgotten after a while', () => {
  let now = 1_000_000;
  const tries = new Tries(() => now);
  const key = [{ name: 'vera from here', free: 3, longest: 60 }];
  expect([1, 2, 3, 4].map(() => wait(() => tries.begin(key)))).toEqual([0, 0, 0, 0]);
  const waits: number[] = [];
  for (let more = 0; more < 8; more++) {
    const seconds = wait(() => tries.begin(key));
    waits.push(seconds);
    now += seconds * 1000;
    tries.begin(key);
  }
  expect(waits).toEqual([2, 4, 8, 16, 32, 60, 60, 60]);
  now += 16 * 60_000;
  expect([1, 2, 3].map(() => wait(() => tries.begin(key)))).toEqual([0, 0, 0]);
});

test('a right one is not counted, and frees whoever had been wrong before', () => {
  const tries = new Tries(() => 0);
  const [own, place] = [
    { name: 'vera from here', free: 2, longest: 60 },
    { name: 'here', free: 4, longest: 60 },
  ];
  for (let round = 0; round < 20; round++) {
    tries.begin([own, place]);
    tries.right([own, place], own.name);
  }
  expect([1, 2, 3].map(() => wait(() => tries.begin([own, place])))).toEqual([0, 0, 0]);
  expect(wait(() => tries.begin([own, place]))).toBe(2);
  // Another account in the same office is not held up by that.
  expect(wait(() => tries.begin([{ ...own, name: 'ulf from here' }, place]))).toBe(0);
});

// RFC 4291, 2.5.1: a host chooses the last 64 bits itself. RFC 4291, 2.5.5.2: an IPv4 address in IPv6 clothes.
test.each([
  ['203.0.113.7', '203.0.113.7'],
  ['::ffff:203.0.113.7', '203.0.113.7'],
  ['2001:db8:1:2:3:4:5:6', '2001:db8:1:2::/64'],
  ['2001:db8:1:2::9', '2001:db8:1:2::/64'],
  ['2001:db8::9', '2001:db8:0:0::/64'],
])('%s counts as %s', (address, stretch) => expect(stretchOf(address)).toBe(stretch));
