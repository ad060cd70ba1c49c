import type { ReadingPlan } from './plan-with-column.js';
import { planWithColumn } from './plan-with-column.js';

const plan: ReadingPlan = {
  keyColumn: 'Name',
  maps: { 1: { tenant: { kind: 'column', column: 'Name' }, plot: { kind: 'column', column: 'Plot' } } },
  checks: { columns: { Name: { capitals: false }, Plot: { unique: true } } },
  output: { folder: '{{ site }}', file: '{{ name }} {{ name_2 }} name.pdf' },
  message: {
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
