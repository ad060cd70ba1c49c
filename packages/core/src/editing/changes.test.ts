import type { Change, Json } from './changes.js';
import { changesBetween, inverseOf, valueAt, withChanges } from './changes.js';
import { isWholeInPlan, planPlaceWords } from './plan-places.js';

const plan = {
  name: 'Renewals',
  packet: [1, 2],
  maps: { 1: { plot: { kind: 'column', column: 'Plot' } } },
  leftOut: [4, 9],
  message: { subject: 'Yours', body: 'Dear', reminder: null },
} satisfies Json;
const between = (was: Json, is: Json): Change[] => changesBetween(was, is, isWholeInPlan);
const both = (mine: Json, theirs: Json) => withChanges(withChanges(plan, between(plan, theirs)).document, between(plan, mine));

test('changes lead from one version to the other, and their inverse leads back', () => {
  const is: Json = {
    ...plan,
    packet: [2, 3],
    maps: { 1: { plot: { kind: 'text', text: 'A' } }, 3: { name: { kind: 'blank' } } },
    leftOut: [],
    message: { subject: 'Mine', body: 'Dear', reminder: { subject: 'Soon' } },
  };
  const changes = between(plan, is);
  expect(withChanges(plan, changes)).toEqual({ document: is, clashes: [] });
  expect(withChanges(is, inverseOf(changes))).toEqual({ document: plan, clashes: [] });
  expect(between(plan, structuredClone(plan))).toEqual([]);
});

test('a fill rule is changed as a whole, everything else as small as can be', () => {
  expect(between(plan, { ...plan, maps: { 1: { plot: { kind: 'text', text: 'x' } } } })).toEqual([
    { kind: 'set', place: ['maps', '1', 'plot'], was: { kind: 'column', column: 'Plot' }, is: { kind: 'text', text: 'x' } },
  ]);
  expect(between(plan, { ...plan, message: { ...plan.message, subject: 'New' } })).toEqual([
    { kind: 'set', place: ['message', 'subject'], was: 'Yours', is: 'New' },
  ]);
});

test('two people keep both their work where they changed different things, in lists too', () => {
  const { document, clashes } = both(
    { ...plan, name: 'Renewals 2027', packet: [1, 2, 5], leftOut: [9, 12], message: { ...plan.message, subject: 'Mine' } },
    { ...plan, packet: [2, 7], leftOut: [4, 9, 10], message: { ...plan.message, body: 'Theirs' } },
  );
  expect(clashes).toEqual([]);
  expect(document).toEqual({
    ...plan,
    name: 'Renewals 2027',
    packet: [2, 5, 7],
    leftOut: [9, 12, 10],
    message: { ...plan.message, subject: 'Mine', body: 'Theirs' },
  });
});

test('a true clash leaves what stands there and tells both values; the same change twice is none', () => {
  const mine = { ...plan, message: { ...plan.message, subject: 'Mine' } };
  const theirs = { ...plan, message: { ...plan.message, subject: 'Theirs' } };
  expect(both(mine, theirs)).toEqual({ document: theirs, clashes: [{ place: ['message', 'subject'], mine: 'Mine', theirs: 'Theirs' }] });
  expect(both(mine, mine)).toEqual({ document: mine, clashes: [] });
});

test('what lost its parent is a clash, not a fault', () => {
  const withPaper = { ...plan, paper: { town: 'Larkmere' } };
  const changes = between(withPaper, { ...plan, paper: { town: 'Mill Lane' } });
  const { document, clashes } = withChanges({ ...plan, paper: null }, changes);
  expect(document).toEqual({ ...plan, paper: null });
  expect(clashes).toEqual([{ place: ['paper', 'town'], mine: 'Mill Lane', theirs: undefined }]);
});

test('two who begin the same part keep what each put into it', () => {
  const { document, clashes } = both(
    { ...plan, checks: { country: 'GB', columns: { A: { email: true } } } },
    { ...plan, checks: { columns: { A: { iban: true } } } },
  );
  expect(clashes).toEqual([]);
  expect(document).toEqual({ ...plan, checks: { country: 'GB', columns: { A: { email: true, iban: true } } } });
});

test('an order is kept with what others have put in and taken out', () => {
  expect(valueAt(both({ ...plan, packet: [2, 1] }, { ...plan, packet: [1, 3, 2] }).document, ['packet'])).toEqual([2, 1, 3]);
});

test('lists in which something stands twice are set as a whole', () => {
  const is = { ...plan, leftOut: [4, 4] };
  expect(between(plan, is)).toEqual([{ kind: 'set', place: ['leftOut'], was: [4, 9], is: [4, 4] }]);
});

/** A generator with a seed, so that a failure can be seen again: Lehmer (Park and Miller, 1988). */
function random(seed: number): (below: number) => number {
  let state = seed;
  return (below) => (state = (state * 48_271) % 2_147_483_647) % below;
}
const edit = (document: Json, next: (below: number) => number): Json => {
  const now = structuredClone(document) as typeof plan & { maps: Record<string, Record<string, Json>> };
  const which = next(6);
  if (which === 0) now.message.subject = `s${next(50)}`;
  else if (which === 1) now.message.body = `b${next(50)}`;
  else if (which === 2) now.leftOut = now.leftOut.includes(7) ? now.leftOut.filter((row) => row !== 7) : [...now.leftOut, 7];
  else if (which === 3) now.packet = [...now.packet].reverse();
  else if (which === 4)
    (now.maps as Record<string, Record<string, Json>>)[1] = { ...now.maps[1], [`f${next(4)}`]: { kind: 'text', text: `${next(9)}` } };
  else now.name = `n${next(50)}`;
  return now as Json;
};

test.each([1, 2, 3, 4, 5, 6, 7, 8])('random edits on both sides: no change is lost without a clash that tells it (seed %i)', (seed) => {
  const next = random(seed * 7919);
  let [mine, theirs]: [Json, Json] = [plan, plan];
  for (let count = 0; count < 6; count++) {
    mine = edit(mine, next);
    theirs = edit(theirs, next);
  }
  const changes = between(plan, mine);
  const { document, clashes } = withChanges(theirs, changes);
  for (const change of changes) {
    if (change.kind === 'order' || change.kind === 'make' || change.kind === 'unmake') continue;
    const there = valueAt(document, change.place);
    const isMade =
      change.kind === 'set'
        ? JSON.stringify(there) === JSON.stringify(change.is)
        : (there as Json[]).includes(change.value) === (change.kind === 'insert');
    const isTold = clashes.some(({ place }) => place.join() === change.place.join());
    expect({ change, made: isMade || isTold }).toEqual({ change, made: true });
  }
  // What only they changed stays.
  for (const change of between(plan, theirs))
    if (change.kind === 'set' && !changes.some(({ place }) => place.join() === change.place.join()))
      expect(valueAt(document, change.place)).toEqual(change.is);
});

test('places have names on the screen', () => {
  expect(planPlaceWords(['maps', '3', 'tenant.name'])).toBe('the rule of “tenant.name”');
  expect(planPlaceWords(['message', 'subject'])).toBe('the subject');
  expect(planPlaceWords(['paper', 'town'])).toBe('the postal address');
  expect(planPlaceWords(['output', 'duplex'])).toBe('a setting of the output');
});
