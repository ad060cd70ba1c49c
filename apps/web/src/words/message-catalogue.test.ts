import { count, counted, plural, speak, spokenLanguage, spokenLocale, t, translated } from '@mailbag/core/words';
import { messageCatalogue } from './message-catalogue';
import { pluralFormat } from './plural-format';

const format = pluralFormat('de-DE');
const de = messageCatalogue(
  'de-DE',
  {
    Copies: 'Kopien',
    'Sent to {0} by {1}': 'Von {1} an {0} gesendet',
    '{0, plural, one {# copy} other {# copies}}': '{0, plural, one {# Kopie} other {# Kopien}}',
    'with {0, plural, one {# copy} other {# copies}} of {1}': 'mit {0, plural, one {# Kopie} other {# Kopien}} von {1}',
    'signed in': 'hat sich angemeldet',
    'Put {{ link }} in': '{{ link }} einsetzen',
  },
  format,
);
afterEach(() => speak(null));

test('without a catalogue English is said', () => {
  expect(t`Sent to ${'Ada'} by ${'Marit'}`).toBe('Sent to Ada by Marit');
  expect(counted(1, 'copy', 'copies')).toBe('1 copy');
  expect(counted(1234, 'record')).toBe('1,234 records');
  expect([spokenLanguage(), spokenLocale()]).toEqual(['en', 'en']);
});

test('a catalogue says messages with their values in its own order, and counts in its own forms', () => {
  speak(de);
  expect(t`Copies`).toBe('Kopien');
  expect(t`Sent to ${'Ada'} by ${'Marit'}`).toBe('Von Marit an Ada gesendet');
  expect(counted(1, 'copy', 'copies')).toBe('1 Kopie');
  expect(t`with ${plural(1234, 'copy', 'copies')} of ${5}`).toBe('mit 1.234 Kopien von 5');
  expect(translated('signed in')).toBe('hat sich angemeldet');
  expect(count(1234.5)).toBe('1.234,5');
  expect(spokenLanguage()).toBe('de');
});

test('what a catalogue lacks is said in English, and braces that stand for nothing stay', () => {
  speak(de);
  expect(t`Nobody has ${3} of them`).toBe('Nobody has 3 of them');
  expect(t`Put {{ link }} in`).toBe('{{ link }} einsetzen');
});
