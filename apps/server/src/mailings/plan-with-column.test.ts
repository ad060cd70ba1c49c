import type { MailingPlan } from '@mailbag/contract';
import { planWithColumn } from './plan-with-column.js';

const plan: MailingPlan = {
  name: 'Renewals',
  packet: [1],
  sourceId: 1,
  keyColumn: 'Name',
  maps: { 1: { tenant: { kind: 'column', column: 'Name' }, plot: { kind: 'column', column: 'Plot' } } },
  leftOut: [],
  checks: { columns: { Name: { capitals: false }, Plot: { unique: true } } },
  output: { folder: '{{ site }}', file: '{{ name }} {{ name_2 }} name.pdf' },
  message: {
    mailed: true,
    addressColumn: 'Name',
    recipient: '{{ name }}',
    subject: 'Dear {{name}}',
    body: 'name {{ name | upcase }}, {{ surname }}',
  },
};

test('a renamed column is renamed wherever the plan reads it, and nowhere else', () => {
  const after = planWithColumn(plan, { name: 'Name', slug: 'name' }, { name: 'Full name', slug: 'full_name' });
  expect(after).toMatchObject({
    keyColumn: 'Full name',
    maps: { 1: { tenant: { column: 'Full name' }, plot: { column: 'Plot' } } },
    checks: { columns: { 'Full name': { capitals: false }, Plot: { unique: true } } },
    output: { file: '{{ full_name }} {{ name_2 }} name.pdf' },
    message: {
      addressColumn: 'Full name',
      recipient: '{{ full_name }}',
      subject: 'Dear {{full_name}}',
      body: 'name {{ full_name | upcase }}, {{ surname }}',
    },
  });
  expect(plan.keyColumn).toBe('Name');
});
