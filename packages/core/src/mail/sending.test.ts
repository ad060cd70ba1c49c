import { deliveryHeaders } from './headers.js';
import { RateKeeper } from './rate-limit.js';
import { MOST_ADDRESSES, addressesIn } from './recipients.js';
import { minutesUntilOpen } from './send-window.js';

describe('several recipients in one cell', () => {
  test('are told apart by comma, semicolon and line, with names, each once', () => {
    expect(addressesIn('Roe, Ann <ann@example.org>'.replace('Roe, ', ''), true).addresses).toEqual([
      { name: 'Ann', address: 'ann@example.org' },
    ]);
    expect(addressesIn('"Roe, Ann" <ann@example.org>; bo@example.net,\nBO@example.net', true)).toEqual({
      addresses: [
        { name: 'Roe, Ann', address: 'ann@example.org' },
        { name: '', address: 'bo@example.net' },
      ],
      fault: null,
    });
  });
  test('one wrong address stops all, and is named', () => {
    expect(addressesIn('a@example.org; nonsense', true).fault).toBe('“nonsense” in it is not an address: it has no @');
  });
  test('a list of 10,000 in one cell is refused without being read to its end', () => {
    const cell = Array.from({ length: 10_000 }, (_, index) => `a${index}@example.org`).join(';');
    expect(addressesIn(cell, true)).toEqual({ addresses: [], fault: `it holds more than ${MOST_ADDRESSES} addresses` });
    expect(addressesIn(cell, false).fault).toBe('it holds more than one address');
  });
  test('no header can be slipped in by a line break', () => {
    expect(addressesIn('a@example.org\r\nBcc: b@example.org', true).fault).not.toBeNull();
  });
});

describe('limits', () => {
  const limits = { perMinute: 3, perHour: 5, perDomainMinute: 2 };
  test('hold a message until the stretch has room again, for each domain by itself', () => {
    const keeper = new RateKeeper();
    keeper.add('a.example', 0);
    keeper.add('a.example', 1000);
    expect(keeper.wait(limits, 'a.example', 2000)).toBe(58_000);
    expect(keeper.wait(limits, 'b.example', 2000)).toBe(0);
    keeper.add('b.example', 2000);
    expect(keeper.wait(limits, 'b.example', 3000)).toBe(57_000);
    keeper.add('b.example', 61_000);
    keeper.add('b.example', 62_000);
    expect(keeper.wait(limits, 'c.example', 200_000)).toBe(3_600_000 - 200_000);
  });
  test('a clock that is set back holds nothing up', () => {
    const keeper = new RateKeeper();
    for (const at of [10_000_000, 10_000_001, 10_000_002]) keeper.add('a.example', at);
    expect(keeper.wait(limits, 'a.example', 1000)).toBe(0);
  });
  test('no limits, no waiting', () => {
    const keeper = new RateKeeper();
    for (let at = 0; at < 5000; at++) keeper.add('a.example', at);
    expect(keeper.wait({ perMinute: 0, perHour: 0, perDomainMinute: 0 }, 'a.example', 5000)).toBe(0);
  });
});

describe('hours of sending', () => {
  const office = { from: 8 * 60, until: 17 * 60, days: [1, 2, 3, 4, 5] };
  test.each([
    [1, 9 * 60, 0],
    [1, 7 * 60 + 30, 30],
    [5, 17 * 60, (7 + 48 + 8) * 60],
    [7, 0, 32 * 60],
  ])('on day %p at minute %p it opens in %p minutes', (weekday, minute, wait) => {
    expect(minutesUntilOpen(office, { weekday, minute })).toBe(wait);
  });
  test('over midnight, the hours after it belong to the day before', () => {
    const night = { from: 22 * 60, until: 6 * 60, days: [5] };
    expect(minutesUntilOpen(night, { weekday: 6, minute: 60 })).toBe(0);
    expect(minutesUntilOpen(night, { weekday: 5, minute: 60 })).toBe(21 * 60);
  });
  test('without a day it never opens', () => expect(minutesUntilOpen({ ...office, days: [] }, { weekday: 1, minute: 0 })).toBeNull());
});

test('the headers say that a machine sends one of many (RFC 3834, 5; RFC 2919, 2)', () => {
  const headers = deliveryHeaders({
    list: 'Plot renewals 2027\r\nBcc: x@y.example',
    number: 4,
    from: 'office@larkmere.example',
    replyTo: '',
  });
  expect(headers['Auto-Submitted']).toBe('auto-generated');
  expect(headers['List-ID']).toMatch(/^<[a-z0-9-]+\.4\.larkmere\.example>$/);
});
