import { filterQuery, isNarrowed, readFilter, sortOf } from './ledger-filter';

test('a filter that stands in the address comes back as it was, and nonsense is left out', () => {
  const address = 'text=quist&state=bounced&mailing=7&trouble=mailbox&from=2027-01-02&paper=yes&sort=recipient';
  const filter = readFilter(new URLSearchParams(address));
  expect(new URLSearchParams(filterQuery(filter)).toString().split('&').sort()).toEqual(address.split('&').sort());
  expect(filterQuery(readFilter(new URLSearchParams('state=broken&batch=x&from=yesterday&trouble=none&sort=best')))).toBe('');
});
test('an order alone narrows nothing', () => {
  expect(isNarrowed(readFilter(new URLSearchParams('sort=oldest')))).toBe(false);
  expect(sortOf({ column: 'recipient', isDown: true })).toBe('recipient-down');
  expect([sortOf(null), sortOf({ column: 'file', isDown: true })]).toEqual([null, null]);
  expect(isNarrowed(readFilter(new URLSearchParams('to=2027-01-02')))).toBe(true);
});
