import type { MailingPlan } from '@mailbag/contract';
import type { Column } from '@mailbag/core';
import { withColumns } from './with-columns';

const plan: MailingPlan = {
  name: 'Renewals',
  packet: [1],
  sourceId: 2,
  keyColumn: 'Plot',
  maps: { 1: { tenant: { kind: 'column', column: 'Surname' } } },
  leftOut: [],
  output: { folder: '{{ site }}', file: '{{ plot }} {{ surname }}.pdf', openPassword: '{{ plot }}-{{ born }}' },
  message: { mailed: true, addressColumn: 'E-mail', recipient: '{{ surname }}', subject: 'Plot {{ plot }}', body: 'Dear {{ surname }}' },
};

test('columns that are linked by hand are other ones in rules, patterns and passwords too', () => {
  const columns = [
    { name: 'Plot no.', slug: 'plot_no' },
    { name: 'Name', slug: 'name_2' },
  ] as Column[];
  const names = new Map([
    ['Plot', 'Plot no.'],
    ['Surname', 'Name'],
  ]);
  expect(withColumns(plan, names, columns)).toMatchObject({
    keyColumn: 'Plot no.',
    maps: { 1: { tenant: { column: 'Name' } } },
    output: { folder: '{{ site }}', file: '{{ plot_no }} {{ name_2 }}.pdf', openPassword: '{{ plot_no }}-{{ born }}' },
    message: { addressColumn: 'E-mail', recipient: '{{ name_2 }}', subject: 'Plot {{ plot_no }}', body: 'Dear {{ name_2 }}' },
  });
});
