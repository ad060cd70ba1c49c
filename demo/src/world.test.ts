import { evaluateMap, fillContext, inspectTemplate, parseRule, rowReader } from '@mailbag/core';
import type { FieldMap } from '@mailbag/core';
import { bankMandate } from './forms/bank-mandate.js';
import { shedPermit } from './forms/shed-permit.js';
import { tenancyAgreement } from './forms/tenancy-agreement.js';
import { tenancies } from './tenancies.js';
import { permitList } from './workbooks.js';
import { renewalMap } from './world.js';

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

test('what is to be paid comes out as the sheet has it, for everybody whose concession is known', async () => {
  const { fields } = await inspectTemplate(tenancyAgreement());
  const names = ['Area m²', 'Concession', 'Water charge'];
  const read = rowReader(names.map((name) => ({ name })));
  const amounts = ['tenancy.rent.yearly', 'tenancy.rent.total'] as const;
  const map = Object.fromEntries(amounts.map((name) => [name, parseRule(renewalMap[name]).rule!])) as FieldMap;
  const context = fillContext({ batch: 1, today: '2027-01-02', locale: 'en-GB', zone: 'UTC' }, 0, 'X');
  let unknown = 0;
  for (const one of tenancies()) {
    const cells = [one.area, one.concession, one.water].map((value) => ({ text: String(value), value }));
    const { values, problems } = evaluateMap(fields, map, read({ row: 2, cells }), context);
    if (problems.length > 0) {
      unknown++;
      expect(one.concession).toBe('Student');
    } else expect(Object.values(values)).toEqual([one.rent, one.total].map((amount) => `${amount.toFixed(2)} €`));
  }
  expect(unknown).toBeLessThan(5);
});
