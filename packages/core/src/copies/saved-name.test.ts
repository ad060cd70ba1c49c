import { savedName } from './saved-name.js';

test('a file is called after what it holds, without what a file system refuses', () => {
  expect(savedName(['Ledger', 'bounced', '', null], '2027-01-12', 'csv')).toBe('Ledger · bounced · 2027-01-12.csv');
  expect(savedName(['Templates', 'shed/permit'], '2027-01-12', 'csv')).not.toContain('/');
  expect(savedName(['Ledger', 'x'.repeat(400)], '2027-01-12', 'csv').length).toBeLessThan(256);
});
