import { TokenBuckets, VisitorLimits } from './visitor-limits.js';

test('a bucket gives what is in it, then what comes back each second, and never more than it holds', () => {
  let now = 0;
  const buckets = new TokenBuckets({ maximum: 3, perSecond: 0.5 }, () => now);
  expect([1, 2, 3, 4].map(() => buckets.take('a'))).toEqual([0, 0, 0, 2]);
  expect([buckets.wait('a'), buckets.wait('b'), buckets.wait('b')]).toEqual([2, 0, 0]);
  expect(buckets.take('b')).toBe(0);
  now = 2000;
  expect([buckets.take('a'), buckets.take('a')]).toEqual([0, 2]);
  now = 3_600_000;
  expect([1, 2, 3, 4].map(() => buckets.take('a'))).toEqual([0, 0, 0, 2]);
});

test('those who ask too often are told how long to wait; others, and other pages, are not held up', () => {
  let now = 0;
  const limits = new VisitorLimits(1, () => now);
  for (let tries = 0; tries < 20; tries++) limits.take('submit', '192.0.2.1', 'permits');
  expect(() => limits.take('submit', '192.0.2.1', 'permits')).toThrow('Too much came from here in a short time. Try again in 5 seconds.');
  limits.take('submit', '192.0.2.2', 'permits');
  limits.take('look', '192.0.2.1', 'permits');
  now = 5000;
  limits.take('submit', '192.0.2.1', 'permits');
});

test('a page that is sent very much from everywhere waits, without holding the others up; an IPv6 host is one asker, whatever address it takes (RFC 4291, 2.5.1)', () => {
  const limits = new VisitorLimits(1, () => 0);
  for (let at = 0; at < 600; at++) limits.take('submit', `198.51.${100 + (at >> 8)}.${at & 255}`, 'permits');
  expect(() => limits.take('submit', '203.0.113.9', 'permits')).toThrow(/in 1 second\./);
  limits.take('submit', '203.0.113.9', 'others');
  for (let at = 0; at < 20; at++) limits.take('submit', `2001:db8:1:2::${at + 1}`, 'more');
  expect(() => limits.take('submit', '2001:db8:1:2:9:9:9:9', 'more')).toThrow(/Too much/);
  limits.take('submit', '2001:db8:1:3::1', 'more');
});

test('the first three from somewhere cost no work, the next ones do, and after a while they do not; many to one intake cost everybody work', () => {
  let now = 0;
  const limits = new VisitorLimits(1, () => now);
  const needs = (address = '192.0.2.1'): boolean => limits.needsWork(address, 'permits');
  for (let times = 0; times < 3; times++) {
    expect(needs()).toBe(false);
    limits.take('submit', '192.0.2.1', 'permits');
  }
  expect([needs(), needs('192.0.2.2')]).toEqual([true, false]);
  now = 60_000;
  expect(needs()).toBe(false);
  for (let at = 0; at < 300; at++) limits.take('submit', `198.51.${100 + (at >> 8)}.${at & 255}`, 'permits');
  expect([needs('203.0.113.9'), limits.needsWork('203.0.113.9', 'others')]).toEqual([true, false]);
});
