import { labelLikeness } from './likeness.js';

/** Whether two labels of two editions ask the same (common practice, no source). */
test.each([
  ['Surname', 'Surname'],
  ['Surname', 'Family name'],
  ['First name', 'Given names'],
  ['Telephone', 'Telephone number'],
  ['Date of birth', 'Date of birth (DD.MM.YYYY)'],
  ['Wages for 2026', 'Wages for 2027'],
  ['Name of the tenant', 'Tenant’s name'],
  ['Town', 'City'],
  ['Signature of applicant', 'Applicant signature'],
])('“%s” and “%s” ask the same', (one, other) => {
  expect(labelLikeness(one, other)).toBeGreaterThan(0.45);
  expect(labelLikeness(other, one)).toBeCloseTo(labelLikeness(one, other));
});
test.each([
  ['Telephone', 'E-mail'],
  ['Place of birth', 'Mother tongue'],
  ['Child 1', 'Child 2'],
  ['Roof', 'Height of the shed'],
  ['Street', 'Bank'],
])('“%s” and “%s” do not', (one, other) => {
  expect(labelLikeness(one, other)).toBeLessThanOrEqual(0.3);
});
test('without words nothing is alike', () => {
  expect([labelLikeness(null, null), labelLikeness('Name', null), labelLikeness('—', '—')]).toEqual([0, 0, 0]);
});
