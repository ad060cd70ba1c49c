import { columnOf, findingsIn, toldOf } from '../../testing/findings.js';
import type { CheckSetup } from '../check.js';

const recipient = (texts: readonly string[], more: Partial<CheckSetup> = {}): [string, string, string | null | undefined][] =>
  findingsIn(
    [columnOf('Mail', 'email')],
    texts.map((text) => [text]),
    { addressColumn: 'Mail', ...more },
  ).map(({ severity, value, mend }) => [severity, value, mend]);

/** Examples of RFC 5321 (4.1.2) and RFC 5322 (3.4.1) that a mail server takes, and such that none does. */
test.each([
  'ada@example.org',
  'ada.quist@example.org',
  'ada+plots@example.org',
  'x@sub.sub.example.org',
  "o'hara@example.org",
  'a_b-c@example-site.org',
  '1@example.org',
])('%s is an address', (text) => expect(recipient([text])).toEqual([]));
test.each([
  'ada',
  'ada@',
  '@example.org',
  'ada@example',
  'ada quist@example.org',
  'ada@exa mple.org',
  'ada@example..org',
  '.ada@example.org',
  `${'a'.repeat(65)}@example.org`,
])('%s is none, which stops the batch', (text) => expect(recipient([text])).toEqual([['stop', text, null]]));

test.each([
  ['ada@@example.org', 'ada@example.org'],
  ['<ada@example.org>', 'ada@example.org'],
  ['mailto:ada@example.org', 'ada@example.org'],
  ['ada@example,org', 'ada@example.org'],
  ['ada@example.org.', 'ada@example.org'],
  ['ada@example.org;', 'ada@example.org'],
])('“%s” can only mean “%s”', (text, mend) => expect(recipient([text])).toEqual([['stop', text, mend]]));

test('no address is a thing to look at, since the copy is made all the same', () => {
  expect(recipient(['', '  '])).toEqual([
    ['look', '', undefined],
    ['look', '', undefined],
  ]);
});

test('several addresses in a cell are right only where a person has said so', () => {
  const two = 'ada@example.org, ben@example.org';
  expect(recipient([two]).map(([severity]) => severity)).toEqual(['stop']);
  expect(recipient([two], { severalAddresses: true })).toEqual([]);
  expect(recipient(['ada@example.org, ben@'], { severalAddresses: true }).map(([severity]) => severity)).toEqual(['stop']);
});

test('another column of addresses is looked at, and may be blank', () => {
  expect(toldOf('email', ['ada@example.org', '', 'ada@'], 'address-wrong', {}, 'Second mail')).toEqual([['ada@', null]]);
});
