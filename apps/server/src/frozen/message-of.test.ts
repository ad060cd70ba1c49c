import type { MailingPlan } from '@mailbag/contract';
import type { Column, SourceRecord } from '@mailbag/core';
import type { FrozenMailing } from './frozen-mailing.js';
import type { RecordPlace } from './message-of.js';
import { letterPattern, passwordPattern, patternNames } from './message-of.js';
import { postalPattern } from './paper-of.js';
import { htmlToPlain, safeHtml } from './safe-html.js';

const columns = ['Plot', 'Name', 'Mail', 'Street', 'Town'].map((name): Column => ({
  name, slug: name.toLowerCase(), kind: 'text', empty: 0, distinct: 9, longest: '', examples: [],
})); // prettier-ignore
const record = (...texts: string[]): SourceRecord => ({ row: 2, cells: texts.map((text) => ({ text, value: text })) });
const place = (...texts: string[]): RecordPlace => ({
  record: record(...texts), ordinal: 4, code: 'CB1D-YXJY-V7S', batch: { batch: 7, today: '2027-01-02', locale: 'en-GB', zone: 'Europe/London' }, template: 'Permit',
}); // prettier-ignore
const ada = place('A-1', 'Ada <Quist>', 'ada@example.org', '5 Mill Lane', 'Larkmere');

const frozen = (message: Partial<MailingPlan['message']>, output: Partial<MailingPlan['output']> = {}): FrozenMailing => ({
  columns,
  templates: [{ id: 1, name: 'Permit', revisionId: 1, hash: '', pages: 1, fields: [], map: {} }],
  plan: {
    name: 'Permits', packet: [1], sourceId: 1, keyColumn: 'Plot', maps: {}, leftOut: [], output: { folder: '', file: 'x', ...output },
    message: { mailed: true, addressColumn: 'Mail', recipient: '{{ name }}', subject: 'Plot {{ plot }}', body: 'Dear {{ name }},\n\nyours.', ...message },
  } as MailingPlan,
}); // prettier-ignore

test('a letter of plain text says what its patterns say, and is escaped where it is HTML', () => {
  const { subject, text, html } = letterPattern(frozen({})).letter(ada);
  expect(subject).toBe('Plot A-1');
  expect(text).toBe('Dear Ada <Quist>,\n\nyours.');
  expect(html).toContain('Ada &#60;Quist&#62;');
  expect(html).not.toContain('<Quist>');
});

test('a rich letter keeps its text and its links, and lets no script of a value through', () => {
  const body = '<p>Dear <b>{{ name }}</b>, see <a href="https://larkmere.example/{{ plot }}">the plot</a>.</p><ul><li>one</li></ul>';
  const { text, html } = letterPattern(frozen({ body, bodyFormat: 'html' })).letter(place('A-1', '<script>alert(1)</script>', '', '', ''));
  expect(html).toContain('<a href="https://larkmere.example/A-1">the plot</a>');
  expect(html).not.toMatch(/<script/i);
  expect(text).toContain('the plot <https://larkmere.example/A-1>');
  expect(text).toContain('- one');
});

test('a subject is one line, whatever a value holds', () => {
  expect(
    letterPattern(frozen({ subject: 'Plot {{ name }}' })).letter(place('A', 'x\r\nBcc: all@example.org', '', '', '')).subject,
  ).not.toMatch(/[\r\n]/);
});

test('how to open it stands at the end of letters whose copies have a password, and of reminders that take them along', () => {
  const reminder = { subject: 'Again', body: 'Please.', afterDays: 7, maximum: 2, bySchedule: false, attach: true };
  const hint = { passwordSentence: 'It opens with your plot number, {{ name }}.', reminder };
  const open = letterPattern(frozen(hint, { openPassword: '{{ plot }}' }));
  expect(open.letter(ada).text).toMatch(/yours\.\n\nIt opens with your plot number, Ada <Quist>\.$/);
  expect(open.reminder!(ada).text).toMatch(/^Please\.\n\nIt opens/);
  expect(letterPattern(frozen(hint)).letter(ada).text).toMatch(/yours\.$/);
  const without = letterPattern(frozen({ ...hint, reminder: { ...reminder, attach: false } }, { openPassword: '{{ plot }}' }));
  expect(without.reminder!(ada).text).toBe('Please.');
  expect(letterPattern(frozen({})).reminder).toBeNull();
});

test('others get it as the patterns say, openly and blind, but never the reminders', () => {
  const reminder = { subject: 'Again', body: 'Please.', afterDays: 7, maximum: 2, bySchedule: false, attach: false };
  const made = letterPattern(frozen({ copyTo: '{{ mail }}; clerk@example.org', blindCopyTo: 'file@example.org', reminder }));
  const { copyTo, blindCopyTo } = made.letter(ada);
  expect(copyTo.map(({ address }) => address)).toEqual(['ada@example.org', 'clerk@example.org']);
  expect(blindCopyTo.map(({ address }) => address)).toEqual(['file@example.org']);
  expect(made.reminder!(ada)).toMatchObject({ copyTo: [], blindCopyTo: [] });
});

test('a pattern that names no column is refused when the letter is made ready', () => {
  expect(() => letterPattern(frozen({ body: 'Dear {{ nobody }}' }))).toThrow(/nobody/);
});

test('passwords are composed in one line for each record; a mailing without any has none', () => {
  expect(passwordPattern(frozen({}).plan, columns)).toBeNull();
  const made = passwordPattern(frozen({}, { openPassword: '{{ plot }}\n{{ town }}', permissionsPassword: 'office' }).plan, columns)!;
  expect(made(ada)).toEqual({ open: 'A-1 Larkmere', permissions: 'office' });
});

test('what patterns may name are the columns and what a copy has of its own', () => {
  expect(patternNames(columns)).toEqual(['code', 'template', 'batch', 'number', 'today', 'plot', 'name', 'mail', 'street', 'town']);
  const { subject } = letterPattern(frozen({ subject: '{{ code }} {{ template }} {{ batch }} {{ number }} {{ today }}' })).letter(ada);
  expect(subject).toMatch(/^CB1D-YXJY-V7S Permit 7 5 .*2027/);
});

test('a message may name the copy that it replaces, which is empty for the first one', () => {
  const { letter } = letterPattern(
    frozen({ body: 'Hello.{% if replaces != "" %} It replaces your copy {{ replaces }} of {{ replaced_on | day }}.{% endif %}' }),
  );
  expect(letter(ada).text.trim()).toBe('Hello.');
  expect(letter({ ...ada, replaces: { code: '4KQ8-ZT0V-7QX', on: '2027-01-12' } }).text.trim()).toBe(
    'Hello. It replaces your copy 4KQ8-ZT0V-7QX of 12 January 2027.',
  );
});

test('a postal address is composed as the mailing says, and guessed from the columns where it says nothing', () => {
  const paper = {
    name: '{{ name }}',
    street: '{{ street }}',
    postalCode: '',
    town: '{{ town }}',
    region: '',
    country: 'GB',
    wantsColumn: null,
    wantsValues: [],
  };
  expect(postalPattern({ ...frozen({}).plan, paper }, columns)(ada)).toEqual({
    name: 'Ada <Quist>', street: '5 Mill Lane', postalCode: '', town: 'Larkmere', region: '', country: 'GB',
  }); // prettier-ignore
  expect(postalPattern(frozen({}).plan, columns)(ada)).toMatchObject({ street: '5 Mill Lane', town: 'Larkmere' });
});

test.each([
  ['<p onclick="x()">Hi</p>', '<p>Hi</p>'],
  ['<img src="https://elsewhere.example/a.png">', ''],
  ['<a href="javascript:alert(1)">x</a>', '<a>x</a>'],
  ['<a href="//elsewhere.example">x</a>', '<a>x</a>'],
  ['<a href="tel:+4930">call</a>', '<a href="tel:+4930">call</a>'],
  ['<style>p{}</style><iframe src="x"></iframe>text', 'text'],
  ['<h1>A</h1><blockquote>B</blockquote><hr />', '<h1>A</h1><blockquote>B</blockquote><hr />'],
])('only what is harmless is let through: %s', (given, expected) => expect(safeHtml(given)).toBe(expected));

test('the text of a rich body keeps its headings as they are written', () => {
  expect(htmlToPlain('<h1>Plots 2027</h1><p>One<br>two</p>')).toBe('Plots 2027\n\nOne\ntwo');
});
