import { isAllowedTarget, isLocalAddress } from './targets.js';

// RFC 6890 names the address blocks; RFC 4291, 2.5.5.2, the way an IPv4 address is written as an IPv6 one.
test.each([
  '127.0.0.1',
  '127.8.9.1',
  '0.0.0.0',
  '169.254.169.254',
  '224.0.0.1',
  '255.255.255.255',
  '::1',
  '::',
  'fe80::1',
  'ff02::1',
  '::ffff:127.0.0.1',
])('%s leads no farther than this machine or its wire', (address) => expect(isLocalAddress(address)).toBe(true));
test.each(['10.0.0.1', '192.168.1.9', '172.16.0.1', '203.0.113.7', '2001:db8::1', 'fd00::1', '::ffff:203.0.113.7'])(
  '%s leads elsewhere',
  (address) => expect(isLocalAddress(address)).toBe(false),
);

test('a local target is allowed by name or address, with its port or for all of them', () => {
  expect(isAllowedTarget([], ['localhost', '127.0.0.1'], 25)).toBe(false);
  expect(isAllowedTarget(['all'], ['localhost', '127.0.0.1'], 25)).toBe(true);
  expect(isAllowedTarget(['localhost:25'], ['127.0.0.1'], 25)).toBe(true);
  expect(isAllowedTarget(['localhost:25'], ['127.0.0.1'], 26)).toBe(false);
  expect(isAllowedTarget(['localhost'], ['169.254.1.1'], 26)).toBe(false);
});
