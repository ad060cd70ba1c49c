import { meaningOf } from './label-meaning.js';
import type { Meaning } from './label-meaning.js';

/** Labels as forms print them, with what they ask for (common practice, no source). */
test.each<[string, Meaning | null]>([
  ['E-mail address', 'e-mail'],
  ['Correo electrónico', 'e-mail'],
  ['Signature of the tenant', 'signature'],
  ['Unterschrift', 'signature'],
  ['Firma', 'signature'],
  ['Initials', 'signature'],
  ['Your first name and middle initial', null],
  ['Date of birth', 'date'],
  ['Geburtsdatum', 'date'],
  ['Fecha de nacimiento', 'date'],
  ['D.O.B.', 'date'],
  ['Inspected on', 'date'],
  ['Ausgestellt am', 'date'],
  ['Fait le', 'date'],
  ['Born in', null],
  ['Daytime telephone', 'telephone'],
  ['Mobile', 'telephone'],
  ['Téléphone', 'telephone'],
  ['ZIP code', 'postal code'],
  ['Postleitzahl', 'postal code'],
  ['PLZ', 'postal code'],
  ['IBAN', 'IBAN'],
  ['Total amount due', 'amount'],
  ['Wages, salaries, tips', 'amount'],
  ['Gesamtbetrag', 'amount'],
  ['Deposit (€)', 'amount'],
  ['Payment method', null],
  ['Number of children', 'number'],
  ['Anzahl Schlüssel', 'number'],
  ['Photograph', 'image'],
  ['Surname', null],
  ['Street and house number', null],
])('“%s” asks for %s', (words, meaning) => {
  expect(meaningOf(words)).toBe(meaning);
});
