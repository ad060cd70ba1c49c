import { RateKeeper } from './rate-limit.js';
import type { RateLimits } from './rate-limit.js';
import { minutesUntilOpen } from './send-window.js';

const MINUTE = 60_000;
const none: RateLimits = { perMinute: 0, perHour: 0, perDomainMinute: 0 };
/** A random source that says the same at each run (Park and Miller, 1988). */
function randomOf(seed: number): () => number {
  let state = seed;
  return () => (state = (state * 48_271) % 2_147_483_647) / 2_147_483_647;
}

/** Sends as soon as it may until a time is over. @returns when each message left, and to which domain */
function sent(limits: RateLimits, minutes: number, domains: readonly string[], random: () => number): { at: number; domain: string }[] {
  const keeper = new RateKeeper();
  const all: { at: number; domain: string }[] = [];
  for (let now = 1_800_000_000_000, end = now + minutes * MINUTE; now < end;) {
    const domain = domains[Math.floor(random() * domains.length)]!;
    const wait = keeper.wait(limits, domain, now);
    if (wait > 0) {
      now += wait;
      continue;
    }
    keeper.add(domain, now);
    all.push({ at: now, domain });
    now += Math.floor(random() * 400);
  }
  return all;
}
/** The most that left within any stretch of that length. */
function busiest(times: readonly number[], length: number): number {
  let maximum = 0;
  for (let first = 0, last = 0; last < times.length; last++) {
    while (times[last]! - times[first]! >= length) first++;
    maximum = Math.max(maximum, last - first + 1);
  }
  return maximum;
}

test.each([
  [{ ...none, perMinute: 30 }, 1],
  [{ ...none, perHour: 100 }, 2],
  [{ ...none, perDomainMinute: 5 }, 3],
  [{ perMinute: 60, perHour: 500, perDomainMinute: 20 }, 4],
])('in no minute and no hour, wherever it begins, more leaves than %j allows, and no less than it could', (limits, seed) => {
  const domains = ['example.org', 'larkmere.example', 'quist.example'];
  const all = sent(limits, 180, domains, randomOf(seed));
  const times = all.map(({ at }) => at);
  // Where one limit is all there is, it is reached.
  const isAlone = Object.values(limits).filter(Boolean).length === 1;
  const keeps = (maximum: number, limit: number): void =>
    isAlone ? expect(maximum).toBe(limit) : expect(maximum).toBeLessThanOrEqual(limit);
  if (limits.perMinute) keeps(busiest(times, MINUTE), limits.perMinute);
  if (limits.perHour) keeps(busiest(times, 60 * MINUTE), limits.perHour);
  if (limits.perDomainMinute)
    for (const domain of domains)
      expect(
        busiest(
          all.filter((one) => one.domain === domain).map(({ at }) => at),
          MINUTE,
        ),
      ).toBeLessThanOrEqual(limits.perDomainMinute);
});

test('without limits nothing waits', () => {
  const keeper = new RateKeeper();
  for (let count = 0; count < 5000; count++) keeper.add('example.org', count);
  expect([keeper.wait(none, 'example.org', 5000), keeper.waitAny(none, 5000)]).toEqual([0, 0]);
});

test('a slow domain holds up nobody else', () => {
  const keeper = new RateKeeper();
  const limits = { ...none, perDomainMinute: 1 };
  keeper.add('slow.example', 0);
  expect(keeper.wait(limits, 'slow.example', 20_000)).toBe(40_000);
  expect(keeper.wait(limits, 'other.example', 20_000)).toBe(0);
  expect(keeper.waitAny(limits, 20_000)).toBe(0);
});

test('a clock that is set back by hours holds nothing up', () => {
  const keeper = new RateKeeper();
  const limits = { ...none, perMinute: 1 };
  keeper.add('example.org', 3 * 60 * MINUTE);
  expect(keeper.wait(limits, 'example.org', 0)).toBe(0);
});

test('very many domains are forgotten once their minute is over', () => {
  const keeper = new RateKeeper();
  for (let at = 0; at < 200_000; at++) keeper.add(`d${at}.example`, at * 100);
  // 600 in a minute, and those since the last look.
  expect(keeper.knownDomains).toBeLessThan(6000);
});

describe('hours in which mail may leave', () => {
  const office = { from: 8 * 60, until: 17 * 60, days: [1, 2, 3, 4, 5] };
  test.each([
    ['Monday at 8', 1, 8 * 60, 0],
    ['Monday at 7:59', 1, 8 * 60 - 1, 1],
    ['Monday at 17', 1, 17 * 60, 15 * 60],
    ['Friday at 17', 5, 17 * 60, 2 * 24 * 60 + 15 * 60],
    ['Sunday at noon', 7, 12 * 60, 20 * 60],
  ])('%s', (_, weekday, minute, wait) => expect(minutesUntilOpen(office, { weekday, minute })).toBe(wait));

  const night = { from: 22 * 60, until: 6 * 60, days: [7] };
  test.each([
    ['Sunday at 22', 7, 22 * 60, 0],
    ['Monday at 5:59, which still is Sunday’s night', 1, 6 * 60 - 1, 0],
    ['Monday at 6', 1, 6 * 60, 6 * 24 * 60 + 16 * 60],
    ['Sunday at 5, which is Saturday’s night', 7, 5 * 60, 17 * 60],
  ])('over midnight: %s', (_, weekday, minute, wait) => expect(minutesUntilOpen(night, { weekday, minute })).toBe(wait));

  test('no days are never, no window is always, and from equal to until is the whole day', () => {
    expect(minutesUntilOpen({ ...office, days: [] }, { weekday: 1, minute: 0 })).toBeNull();
    expect(minutesUntilOpen(null, { weekday: 1, minute: 0 })).toBe(0);
    expect(minutesUntilOpen({ from: 0, until: 0, days: [3] }, { weekday: 3, minute: 700 })).toBe(0);
    expect(minutesUntilOpen({ from: 0, until: 0, days: [3] }, { weekday: 4, minute: 0 })).toBe(6 * 24 * 60);
  });

  test('what it says is right for every minute of the week: then it is open, and before it was not', () => {
    for (const window of [office, night, { from: 600, until: 601, days: [2, 6] }])
      for (let at = 0; at < 7 * 1440; at += 61) {
        const wait = minutesUntilOpen(window, { weekday: Math.floor(at / 1440) + 1, minute: at % 1440 })!;
        const then = (at + wait) % (7 * 1440);
        expect(minutesUntilOpen(window, { weekday: Math.floor(then / 1440) + 1, minute: then % 1440 })).toBe(0);
        if (wait === 0) continue;
        const before = (then + 7 * 1440 - 1) % (7 * 1440);
        expect(minutesUntilOpen(window, { weekday: Math.floor(before / 1440) + 1, minute: before % 1440 })).toBe(1);
      }
  });
});
