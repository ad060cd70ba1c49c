import { nestingOf } from './nesting.js';

const depth = (text: string, enough = 100): number => nestingOf(text, enough);

test.each([
  ['1', 0],
  ['[]', 1],
  ['[[],[]]', 2],
  ['{"a":{"b":[1,{"c":2}]}}', 4],
  ['{"a":"[[[[","b":"\\"[[["}', 1],
  ['["\\\\",[1]]', 2],
])('%s is as deep as its arrays and objects stand in one another', (text, levels) => expect(depth(text)).toBe(levels));

test('what is too deep is not gone through to its end', () => {
  expect(depth('['.repeat(50), 8)).toBe(9);
});
test('agrees with what JSON.parse makes of random values', () => {
  const deepest = (value: unknown): number =>
    typeof value === 'object' && value !== null ? 1 + Math.max(0, ...Object.values(value).map(deepest)) : 0;
  let seed = 7;
  const random = (): number => (seed = (seed * 48271) % 2147483647) / 2147483647;
  const make = (left: number): unknown => {
    const kind = Math.floor(random() * (left > 0 ? 4 : 2));
    if (kind === 0) return '[{"\\é'.slice(Math.floor(random() * 6));
    if (kind === 1) return Math.floor(random() * 1000);
    const parts = Array.from({ length: Math.floor(random() * 4) }, () => make(left - 1));
    return kind === 2 ? parts : Object.fromEntries(parts.map((part, index) => [`[{${index}"`, part]));
  };
  for (let round = 0; round < 500; round++) {
    const value = make(8);
    expect([depth(JSON.stringify(value)), depth(JSON.stringify(value, null, 2))]).toEqual([deepest(value), deepest(value)]);
  }
});
