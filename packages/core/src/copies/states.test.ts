import type { CopyEventKind, CopyState, StoryLine } from './states.js';
import { assertCopy, copyEvents, copyNotes, nextCopyState } from './states.js';

/** A row of numbers that look random and are the same at every run (common practice, no source: mulberry32). */
function seeded(seed: number): () => number {
  return () => {
    seed = (seed + 0x6d2b79f5) | 0;
    let t = Math.imul(seed ^ (seed >>> 15), 1 | seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
}

test('whatever happens to a copy in whatever order, the law keeps its invariants', () => {
  const random = seeded(20270115);
  const pick = <T>(list: readonly T[]): T => list[Math.floor(random() * list.length)]!;
  let refused = 0;
  for (let run = 0; run < 3000; run++) {
    let state: CopyState = 'planned';
    const story: StoryLine[] = [];
    for (let step = 0; step < 40; step++) {
      if (random() < 0.1) {
        story.push({ event: pick(copyNotes), state });
        continue;
      }
      const event = pick(copyEvents);
      const next = nextCopyState(state, event);
      if (next === null) {
        refused++;
        continue;
      }
      state = next;
      story.push({ event, state });
    }
    const hasFile = story.some(({ event }) => event === 'make');
    expect({ run, broken: assertCopy({ state, hasFile, story }) }).toEqual({ run, broken: [] });
  }
  expect(refused).toBeGreaterThan(1000);
});

const line = (event: CopyEventKind | 'remind', state: CopyState): StoryLine => ({ event, state });
const made = [line('make', 'made'), line('queue', 'queued')];
test.each<[string, CopyState, boolean, StoryLine[], RegExp]>([
  ['sent twice', 'sent', true, [...made, line('claim', 'sending'), line('accept', 'sent'), line('accept', 'sent')], /\(6\)/],
  ['sent without having been handed over', 'sent', true, [...made, line('accept', 'sent')], /\(5\)/],
  ['claimed when it was only made', 'sending', true, [line('make', 'made'), line('claim', 'sending')], /\(2\)/],
  ['moved after it was withdrawn', 'queued', true, [...made, line('withdraw', 'withdrawn'), line('queue', 'queued')], /\(4\)/],
  ['another state than its events say', 'sent', true, made, /\(5\)/],
  ['sent, and no file', 'sent', false, [...made, line('claim', 'sending'), line('accept', 'sent')], /\(1\)/],
  ['a note that moved it', 'made', true, [line('make', 'made'), line('remind', 'sent')], /\(5\)/],
])('a copy that was %s is found out', (_, state, hasFile, story, law) => {
  expect(assertCopy({ state, hasFile, story }).join('\n')).toMatch(law);
});
