import { addressFault } from './address.js';
import { replyMeaning, retryDelay } from './smtp-reply.js';

describe('addresses', () => {
  test.each([
    'a@example.org',
    'first.last+tag@sub.example.net',
    "o'derry@example.org",
    'jürgen@example.org',
    `${'a'.repeat(64)}@example.org`,
  ])('%p can be mailed to', (address) => {
    expect(addressFault(address)).toBeNull();
  });
  // RFC 5321, 4.1.2 and 4.5.3.1: what is no address, and how long its parts may be.
  test.each([
    ['', 'it is empty'],
    ['none', 'it has no @'],
    ['@example.org', 'nothing stands before the @'],
    ['a@', 'nothing stands after the @'],
    ['a b@example.org', 'it holds a space'],
    ['a@@example.org', 'it has two @'],
    ['a@example', '“example” is not a complete domain'],
    ['a@example..org', 'the dots in “example..org” are wrong'],
    ['a@example.org, b@example.org', 'it holds more than one address'],
    ['a@example.org\r\nBcc: x@example.org', 'it goes over several lines'],
    [`${'a'.repeat(65)}@example.org`, 'the part before the @ is longer than 64 characters'],
  ])('%p cannot, because %s', (address, fault) => {
    expect(addressFault(address)).toBe(fault);
  });
});

test('replies of mail servers are understood by their first digit (RFC 5321, 4.2.1)', () => {
  expect([250, 421, 452, 550, 554, undefined].map(replyMeaning)).toEqual([
    'accepted',
    'try-later',
    'try-later',
    'refused',
    'refused',
    'try-later',
  ]);
});
test('tries come further apart', () => {
  const delays = [1, 2, 3, 4, 5, 6, 7, 8, 9].map((tries) => retryDelay(tries));
  expect([...delays].sort((a, b) => a - b)).toEqual(delays);
});
