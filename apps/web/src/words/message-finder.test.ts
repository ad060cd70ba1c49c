import { speak, translated } from '@mailbag/core/words';
import { MailbagError, detailText, remark } from '@mailbag/core';
import { messageCatalogue } from './message-catalogue';
import { messageFinder } from './message-finder';
import { pluralFormat } from './plural-format';

const messages = {
  'Batch {0} of {1}': 'Stapel {0} von {1}',
  'Batch {0} of {1} is paused': 'Stapel {0} von {1} ist angehalten',
  '“{0}” in it is not an address: {1}': '„{0}“ darin ist keine Adresse: {1}',
  'it has no @': 'sie hat kein @',
  '“{0}” is not a complete domain': '„{0}“ ist keine vollständige Domain',
  '“{0}” is not an e-mail address: {1}.': '„{0}“ ist keine E-Mail-Adresse: {1}.',
  '{0, plural, one {# record} other {# records}}, {1, plural, one {# copy} other {# copies}}':
    '{0, plural, one {# Datensatz} other {# Datensätze}}, {1, plural, one {# Exemplar} other {# Exemplare}}',
  'Our side: {0}': 'Unsere Seite: {0}',
  '{0} · {1}': '{0} – {1}',
  '{0} and {0} again': '{0} und noch einmal {0}',
  first: 'erste',
};
const find = messageFinder(Object.keys(messages));
afterEach(() => speak(null));
const inGerman = (): void => speak(messageCatalogue('de-DE', messages, pluralFormat('de-DE')));

test.each([
  ['Batch 3 of Plots', 'Batch {0} of {1}', ['3', 'Plots']],
  ['Batch 3 of Plots is paused', 'Batch {0} of {1} is paused', ['3', 'Plots']],
  ['Batch 3 of a day of rest', 'Batch {0} of {1}', ['3', 'a day of rest']],
  ['Ann and Ann again', '{0} and {0} again', ['Ann']],
])('“%s” is the message “%s”', (text, message, values) => {
  expect(find(text)?.message).toBe(message);
  expect(find(text)?.values.map(({ value }) => String(value))).toEqual(values);
});

test.each([
  ['words of others', '550 5.1.1 user unknown'],
  ['nothing behind the last words', 'Batch 3 of '],
  ['two values where one stands twice', 'Ann and Bob again'],
  ['a message that says nothing in words of its own', 'Ann · Bob'],
  ['a count that is no number', 'many records, 3 copies'],
  ['a text without end', `Batch 3 of ${'x'.repeat(2000)}`],
  ['nothing', ''],
])('%s is no message', (_, text) => {
  expect(find(text)).toBeNull();
});

test('what was told in English is said in the language that is spoken, with what stands in it; names in quotes stay', () => {
  expect(translated('“first” in it is not an address: it has no @')).toBe('“first” in it is not an address: it has no @');
  inGerman();
  expect(translated('“first” in it is not an address: it has no @')).toBe('„first“ darin ist keine Adresse: sie hat kein @');
  expect(translated('1 record, 1,234 copies')).toBe('1 Datensatz, 1.234 Exemplare');
  expect(translated('550 5.1.1 user unknown')).toBe('550 5.1.1 user unknown');
});

test('errors that another process told, and words that are stored with a copy, are said so too', () => {
  inGerman();
  const told = MailbagError.from({ code: 'mail-address-refused', fields: { address: 'a@b', why: '“b” is not a complete domain' } });
  expect(told.message).toBe('„a@b“ ist keine E-Mail-Adresse: „b“ ist keine vollständige Domain.');
  expect(told.fields.why).toBe('“b” is not a complete domain');
  expect(detailText('“a@b” is not an e-mail address: it has no @.')).toBe('„a@b“ ist keine E-Mail-Adresse: sie hat kein @.');
  expect(detailText(remark('our-side', { answer: 'it has no @' }))).toBe('Unsere Seite: sie hat kein @');
  expect(detailText(remark('our-side', { answer: '454 4.7.0 try later' }))).toBe('Unsere Seite: 454 4.7.0 try later');
});
