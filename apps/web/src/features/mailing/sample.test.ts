import type { MailingPlan, SourceSummary } from '@mailbag/contract';
import type { Column } from '@mailbag/core';
import { guessColumns } from './guess-columns';
import { sampleOf } from './sample';

const column = (name: string, more: Partial<Column> = {}): Column => ({
  name,
  slug: name.toLowerCase().replace(/[ -]/g, '_'),
  kind: 'text',
  empty: 0,
  distinct: 3,
  longest: '',
  examples: [],
  ...more,
});
const columns = [
  column('Site', { distinct: 2 }),
  column('Plot'),
  column('First name'),
  column('Surname'),
  column('E-mail', { kind: 'email' }),
];
const plan: MailingPlan = {
  name: 'Renewals',
  packet: [1],
  sourceId: 1,
  keyColumn: null,
  maps: {},
  leftOut: [],
  output: { folder: '', file: '{{ template }} {{ code }}.pdf' },
  message: { mailed: true, addressColumn: null, recipient: '', subject: '', body: '' },
};
const source = { columns, count: 3 } as unknown as SourceSummary;

test('a new source fills in what it makes obvious, and a second one leaves alone what still holds', () => {
  const guessed = guessColumns(plan, source);
  expect(guessed).toMatchObject({
    keyColumn: 'Plot',
    output: { file: '{{ plot }} {{ template }}.pdf' },
    message: { addressColumn: 'E-mail', recipient: '{{ first_name }} {{ surname }}', subject: 'Renewals' },
  });
  const chosen = { ...guessed, keyColumn: 'Surname', message: { ...guessed.message, subject: 'Mine' } };
  expect(guessColumns(chosen, source)).toEqual(chosen);
});

const batch = { batch: 4, today: '2027-01-02', locale: 'en-GB', zone: 'Europe/London' };

test('the sample tells path and message for the record, and faults in the words of the catalogue', () => {
  const record = { row: 2, cells: ['Mill Lane', 'B-17', 'Ayumi', 'Brandt', 'a@example.org'].map((text) => ({ text, value: text })) };
  const good = sampleOf(
    {
      ...plan,
      output: { folder: '2027/{{ site }}', file: '{{ plot }}' },
      message: { ...plan.message, recipient: '{{ surname }}', subject: '{{ plot }}', body: 'Dear {{ surname }}' },
    },
    columns,
    record,
    0,
    ['Agreement'],
    batch,
  );
  expect(good).toMatchObject({
    paths: [{ path: '2027/Mill Lane/B-17.pdf' }],
    recipient: 'Brandt',
    message: { subject: 'B-17', text: 'Dear Brandt' },
  });
  const bad = sampleOf({ ...plan, output: { folder: '', file: '{{ plott }}' } }, columns, record, 0, ['Agreement'], batch);
  expect(bad.paths[0]!.error).toContain('names plott, which is not a column');
});
