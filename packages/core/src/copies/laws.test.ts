import type { Law } from './laws.js';
import { batchLaw, batchStates, deliveryLaw, deliveryStates, leads, printRunLaw, printRunStates } from './laws.js';

const laws: [name: string, law: Law<string>, states: readonly string[], first: string, final: readonly string[]][] = [
  ['a batch', batchLaw, batchStates, 'planning', ['done', 'cancelled']],
  ['a delivery', deliveryLaw, deliveryStates, 'queued', ['bounced', 'withdrawn', 'stopped']],
  ['a print run', printRunLaw, printRunStates, 'making', ['printed', 'cancelled']],
];

describe.each(laws)('the law of %s', (_, law, states, first, final) => {
  const next = (state: string): string[] => states.filter((other) => leads(law, state, other));

  test('names states that there are, and no event goes nowhere or comes from nowhere', () => {
    for (const { from, to } of Object.values(law)) {
      expect([from.length > 0, to.length > 0]).toEqual([true, true]);
      for (const state of [...from, ...to]) expect(states).toContain(state);
    }
  });
  test('leads from its beginning to every state', () => {
    const reached = new Set([first]);
    for (const state of reached) for (const other of next(state)) reached.add(other);
    expect([...reached].sort()).toEqual([...states].sort());
  });
  test('leaves its ends by nothing, and everything else by something', () => {
    for (const state of states) expect([state, next(state).length === 0]).toEqual([state, final.includes(state)]);
  });
  test('leads from everywhere to an end', () => {
    for (const state of states) {
      const reached = new Set([state]);
      for (const one of reached) for (const other of next(one)) reached.add(other);
      expect([state, [...reached].some((one) => final.includes(one))]).toEqual([state, true]);
    }
  });
  test('never comes back to its beginning, but where it says so', () => {
    const back = states.filter((state) => leads(law, state, first));
    expect(back).toEqual(first === 'planning' ? ['paused'] : first === 'queued' ? ['sending'] : []);
  });
});

test('a message is sent from “sending” or by a person’s word alone, and entered under a claim only', () => {
  const into = (to: string): string[] =>
    Object.entries(deliveryLaw)
      .filter(([, event]) => (event.to as readonly string[]).includes(to))
      .flatMap(([, event]) => event.from);
  expect(into('sending').sort()).toEqual(['queued', 'retrying']);
  expect(into('sent').sort()).toEqual(['sending', 'unconfirmed']);
  // What may have left is never sent again by itself.
  expect(leads(deliveryLaw, 'unconfirmed', 'queued')).toBe(false);
  expect(leads(deliveryLaw, 'unconfirmed', 'sending')).toBe(false);
  expect(leads(deliveryLaw, 'sent', 'sending')).toBe(false);
});
test('paper that may lie in the tray is not printed again by itself', () => {
  expect(leads(printRunLaw, 'unconfirmed', 'sending')).toBe(false);
  expect(leads(printRunLaw, 'printed', 'sending')).toBe(false);
});
