import { inspectTemplate } from '@mailbag/core';
import { bankMandate } from './forms/bank-mandate.js';
import { shedPermit } from './forms/shed-permit.js';
import { tenancyAgreement } from './forms/tenancy-agreement.js';
import { tenancies } from './tenancies.js';
import { permitList } from './workbooks.js';

test('the three templates hold every kind of field that the demo promises', async () => {
  const all = await Promise.all([tenancyAgreement(), bankMandate(), shedPermit()].map((bytes) => inspectTemplate(bytes)));
  const fields = all.flatMap((one) => one.fields);
  expect(new Set(fields.map(({ kind }) => kind))).toEqual(new Set(['text', 'checkbox', 'radio', 'combo', 'signature']));
  expect(fields.some(({ flags }) => flags.includes('comb'))).toBe(true);
  expect(fields.some(({ flags }) => flags.includes('multiline'))).toBe(true);
  expect(fields.filter(({ flags }) => flags.includes('required')).length).toBeGreaterThan(4);
  expect(fields.every(({ tooltip }) => tooltip)).toBe(true);
  const name = fields.find((field) => field.name === 'tenancy.tenant.name')!;
  expect(name.widgets.map(({ page }) => page)).toEqual([1, 2]);
  expect(all.flatMap(({ notes }) => notes)).toEqual([]);
  expect(all[0]!.pages).toHaveLength(2);
});

test('the world is the same each time, and nobody in it can be reached', () => {
  const [one, two] = [tenancies(), tenancies()];
  expect(one).toEqual(two);
  expect(one).toHaveLength(480);
  for (const { email } of one)
    expect(email === '' || !email.includes('@') || /@example(\.org|\.net)?$|@@example\.net$/.test(email)).toBe(true);
  expect(permitList(one.slice(0, 3))).toEqual(permitList(two.slice(0, 3)));
});

// ISO 13616: the number with its first four characters moved to the end, letters as numbers, is 1 modulo 97.
test('account numbers have right check digits', () => {
  for (const { iban } of tenancies().slice(0, 50)) {
    const digits = (iban.slice(4) + iban.slice(0, 4)).replace(/[A-Z]/g, (letter) => String(letter.charCodeAt(0) - 55));
    expect(BigInt(digits) % 97n).toBe(1n);
  }
});
