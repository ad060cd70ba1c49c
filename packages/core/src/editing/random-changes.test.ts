import type { Json } from './changes.js';
import { changesBetween, inverseOf, isChange, same, withChanges } from './changes.js';

/** A random source that says the same at each run (Park and Miller, 1988). */
function randomOf(seed: number): (limit: number) => number {
  let state = seed;
  return (maximum) => (state = (state * 48_271) % 2_147_483_647) % maximum;
}
const never = (): boolean => false;

/** A document as plans are: objects by name, lists of single things, texts, numbers and nothing. */
function someDocument(random: (maximum: number) => number, depth = 3): Json {
  const names = ['name', 'packet', 'maps', 'leftOut', 'message', 'output', '1', '2'];
  if (depth === 0) return [null, true, random(5), ['a', 'b', 'Dear', ''][random(4)]!][random(4)]!;
  if (random(4) === 0) return [...new Set(Array.from({ length: random(5) }, () => random(9)))];
  return Object.fromEntries(Array.from({ length: random(5) }, () => [names[random(names.length)]!, someDocument(random, depth - 1)]));
}
/** Another one that was made of it by a few changes. */
function edited(document: Json, random: (maximum: number) => number, depth = 3): Json {
  if (Array.isArray(document)) {
    const kept = document.filter(() => random(5) > 0);
    if (random(3) === 0) kept.reverse();
    return random(2) === 0 ? [...kept, 20 + random(9)].filter((one, at, all) => all.indexOf(one) === at) : kept;
  }
  if (typeof document !== 'object' || document === null) return random(3) === 0 ? someDocument(random, 0) : document;
  const entries = Object.entries(document)
    .filter(() => random(8) > 0)
    .map(([name, value]) => [name, random(2) === 0 ? value : edited(value, random, depth - 1)] as const);
  return Object.fromEntries(random(3) === 0 ? [...entries, [`new${random(3)}`, someDocument(random, 1)]] : entries);
}

const seeds = Array.from({ length: 300 }, (_, at) => at * 104_729 + 17);

test('the changes between any two documents lead from one to the other, and their inverse leads back', () => {
  for (const seed of seeds) {
    const random = randomOf(seed);
    const was = { root: someDocument(random) };
    const is = { root: edited(was.root, random) };
    const changes = changesBetween(was, is, never);
    for (const change of changes) expect([seed, isChange(JSON.parse(JSON.stringify(change)))]).toEqual([seed, true]);
    expect([seed, withChanges(was, changes)]).toEqual([seed, { document: is, clashes: [] }]);
    expect([seed, withChanges(is, inverseOf(changes))]).toEqual([seed, { document: was, clashes: [] }]);
    expect(changes.length === 0).toBe(same(was, is));
  }
});

test('two windows that make their changes in another order come to the same, unless they are told of a clash', () => {
  let agreed = 0;
  for (const seed of seeds) {
    const random = randomOf(seed);
    const was = { left: someDocument(random), right: someDocument(random) };
    const mine = changesBetween(was, { ...was, left: edited(was.left, random) }, never);
    const theirs = changesBetween(was, { ...was, right: edited(was.right, random) }, never);
    const one = withChanges(withChanges(was, mine).document, theirs);
    const other = withChanges(withChanges(was, theirs).document, mine);
    // They worked at different places, so nobody is told of anything and nothing is lost.
    expect([seed, one.clashes, other.clashes]).toEqual([seed, [], []]);
    expect([seed, same(one.document, other.document)]).toEqual([seed, true]);
    agreed++;
  }
  expect(agreed).toBe(seeds.length);
});

test('a change of the same place by both is either told or came to the same', () => {
  for (const seed of seeds) {
    const random = randomOf(seed);
    const was = { text: 'Dear' };
    const mine = { text: ['Hello', 'Good day', 'Dear'][random(3)]! };
    const theirs = { text: ['Hello', 'Good morning', 'Dear'][random(3)]! };
    const after = withChanges(withChanges(was, changesBetween(was, theirs, never)).document, changesBetween(was, mine, never));
    const isClash = mine.text !== 'Dear' && theirs.text !== 'Dear' && mine.text !== theirs.text;
    expect([mine.text, theirs.text, after.clashes.length > 0]).toEqual([mine.text, theirs.text, isClash]);
  }
});

test.each<[unknown]>([
  [null],
  [{}],
  [{ kind: 'set' }],
  [{ kind: 'burn', place: [] }],
  [{ kind: 'set', place: 'name', is: 1 }],
  [{ kind: 'set', place: [1], is: 1 }],
  ['set'],
  [[]],
])('%j is no change', (given) => expect(isChange(given)).toBe(false));

test('documents are the same by what they hold, not by the order of names', () => {
  expect(same({ a: 1, b: [1, 2] }, { b: [1, 2], a: 1 })).toBe(true);
  expect(same([1, 2], [2, 1])).toBe(false);
  expect(same({ a: null }, {})).toBe(false);
  expect(same(undefined, undefined)).toBe(true);
});
