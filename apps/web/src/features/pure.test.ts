import { counted } from '@mailbag/core/words';
import type { MailingPlan, SourceSummary } from '@mailbag/contract';
import type { Column, ColumnKind, Field } from '@mailbag/core';
import { filterQuery, isNarrowed, readFilter } from './copies/ledger-filter';
import { stateParts } from './copies/state-parts';
import { differs } from './differs';
import { guessColumns } from './mailing/guess-columns';
import { kindWords } from '@mailbag/core';
import { calculationWords, fieldLimits, formatWords } from './page/field-facts';
import { about, kilobytes } from './when';

test('the ledger’s filter stands in the address and comes back as it was; what is no filter is left out', () => {
  const address =
    'text=mill+lane&state=bounced&batch=3&mailing=2&template=1&trouble=mailbox&from=2027-01-01&to=2027-01-31&paper=yes&sort=changed';
  const filter = readFilter(new URLSearchParams(address));
  expect(filter).toMatchObject({ text: 'mill lane', state: 'bounced', batch: 3, trouble: 'mailbox', from: '2027-01-01', sort: 'changed' });
  expect(new URLSearchParams(filterQuery(filter)).toString()).toBe(new URLSearchParams(address).toString());
  expect(isNarrowed(filter)).toBe(true);
  const nothing = readFilter(new URLSearchParams('state=broken&batch=-1&from=yesterday&sort=random&paper=no'));
  expect([filterQuery(nothing), isNarrowed(nothing), isNarrowed({ ...nothing, sort: 'oldest' })]).toEqual(['', false, false]);
});

test('a bar shows what is furthest first, and only states that there are', () => {
  expect(stateParts({ made: 2, sent: 5, bounced: 0, returned: 1 }).map(({ name, share }) => [name, share])).toEqual([['returned', 1], ['sent', 5], ['made', 2]]); // prettier-ignore
});

test('one is one, and several are several', () => {
  expect([counted(1, 'copy', 'copies'), counted(0, 'copy', 'copies'), counted(2, 'record')]).toEqual(['1 copy', '0 copies', '2 records']);
  expect([2, 20, 59, 480, 3600, 7900, 86_400 * 3].map(about)).toEqual(['a few seconds', 'about 20 s', 'about 1 min', 'about 8 min', 'about 1 h', 'about 2 h 10 min', 'about 3 days']); // prettier-ignore
  expect([kilobytes(1), kilobytes(2048), kilobytes(3_145_728)]).toEqual(['1 KB', '2 KB', '3.0 MB']);
  expect([differs<'a' | 'b'>({ a: 1, b: 2 }, { a: 1, b: 3 }, ['a']), differs({ a: 1, b: 2 }, { a: 1, b: 3 }, ['a', 'b'])]).toEqual([
    false,
    true,
  ]);
});

const field = (part: Partial<Field>): Field => ({
  name: 'a', kind: 'text', partialName: 'a', tooltip: null, label: null, page: 1, flags: [], maxLength: null, options: [], onValues: [], value: null, defaultValue: null,
  format: null, calculation: null, isPassword: false, widgets: [], ...part,
}); // prettier-ignore

test('a field is told by its kind, its limits, its format and how it is worked out', () => {
  expect([
    kindWords(field({})),
    kindWords(field({ flags: ['multiline'] })),
    kindWords(field({ flags: ['comb'], maxLength: 9 })),
    kindWords(field({ kind: 'radio' })),
  ]).toEqual(['text', 'text, several lines', 'comb, 9 cells', 'radio buttons']);
  const widgets = [{ page: 1 }, { page: 2 }, { page: 0 }] as Field['widgets'];
  expect(fieldLimits(field({ flags: ['required', 'readOnly'], maxLength: 5, widgets }))).toEqual([
    'required',
    'read-only',
    'at most 5 characters',
    'stands in 2 places',
  ]);
  expect(formatWords(field({}))).toBe('');
  expect(formatWords(field({ format: { kind: 'special', which: 2 } as never }))).toBe('telephone number');
  expect(calculationWords(field({ calculation: { operation: 'sum', fields: ['a', 'b'] } as never }))).toBe('the sum of a, b');
  expect(calculationWords(field({}))).toBe('');
});

const column = (name: string, kind: ColumnKind, distinct = 10, empty = 0): Column => ({
  name, slug: name.toLowerCase().replaceAll(' ', '_'), kind, empty, distinct, longest: '', examples: [],
}); // prettier-ignore
const plan = {
  name: 'Renewals', packet: [], sourceId: 1, keyColumn: null, maps: {}, leftOut: [], output: { folder: '', file: '{{ template }} {{ code }}.pdf' },
  message: { mailed: true, addressColumn: null, recipient: '', subject: '', body: '' },
} as unknown as MailingPlan; // prettier-ignore
const source = (...columns: Column[]): SourceSummary => ({ columns, count: 10 }) as SourceSummary;

test('a new source makes key, address and name obvious', () => {
  const guessed = guessColumns(
    plan,
    source(
      column('Site', 'text', 2),
      column('Plot', 'key'),
      column('First name', 'text', 8),
      column('Surname', 'text', 9),
      column('E-mail', 'email', 9, 1),
    ),
  );
  expect(guessed).toMatchObject({
    keyColumn: 'Plot',
    output: { file: '{{ plot }} {{ template }}.pdf' },
    message: { addressColumn: 'E-mail', recipient: '{{ first_name }} {{ surname }}', subject: 'Renewals' },
  });
  expect(guessed.message.body).toMatch(/^Dear \{\{ first_name }} \{\{ surname }},/);
});

test('a German sheet is understood as well', () => {
  const sheet = source(column('Nr', 'key'), column('Vorname', 'text'), column('Name', 'text'), column('E-Mail-Adresse', 'email'));
  expect(guessColumns(plan, sheet)).toMatchObject({
    keyColumn: 'Nr',
    message: { addressColumn: 'E-Mail-Adresse', recipient: '{{ vorname }} {{ name }}' },
  });
});

test('what a person chose and still holds stays; what is gone is guessed anew', () => {
  const chosen = {
    ...plan,
    keyColumn: 'Number',
    output: { ...plan.output, file: 'mine.pdf' },
    message: { ...plan.message, addressColumn: 'Gone', recipient: 'You', subject: 'Mine', body: 'Hi' },
  };
  expect(guessColumns(chosen, source(column('Plot', 'key'), column('Number', 'text'), column('Mail', 'email')))).toMatchObject({
    keyColumn: 'Number',
    output: { file: 'mine.pdf' },
    message: { addressColumn: 'Mail', recipient: 'You', subject: 'Mine', body: 'Hi' },
  });
});

test('a source in which nothing is obvious leaves it to the person', () => {
  expect(guessColumns(plan, source(column('Remarks', 'text', 3)))).toMatchObject({
    keyColumn: null,
    output: { file: '{{ template }} {{ code }}.pdf' },
    message: { addressColumn: null, recipient: '', body: expect.stringMatching(/^Dear reader,/) },
  });
});
