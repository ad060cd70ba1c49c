import { columnOf } from '../testing/findings.js';
import { field } from '../testing/field.js';
import { suggest, suggestRules } from './suggest.js';

const labelled = (...labels: string[]) => labels.map((label, at) => field(`x${at}`, { label, labelFrom: 'print' }));
const columns = (...names: string[]) => names.map((name) => columnOf(name, 'text'));
/** The columns of the rule that is suggested for each label; a composed text as its parts. */
const suggested = (labels: string[], names: string[]): (string | null)[] => {
  const found = suggest(labelled(...labels), columns(...names), {});
  return labels.map((_, at) => {
    const rule = found[`x${at}`]?.rule;
    if (rule?.kind === 'column') return rule.column;
    return rule?.kind === 'compose'
      ? rule.parts.map((part) => ('column' in part ? part.column : 'text' in part ? part.text : '')).join('')
      : null;
  });
};

test('a German form finds the headings of a German sheet, also where they are called otherwise', () => {
  const sheet = [
    'Mitgliedsnr.',
    'Nachname',
    'Vorname',
    'Strasse',
    'Postleitzahl',
    'Wohnort',
    'Mail',
    'Handy',
    'Geburtsdatum',
    'Kontoinhaber',
  ];
  const form = [
    'Mitgliedsnummer',
    'Familienname',
    'Vorname',
    'Straße',
    'PLZ',
    'Ort',
    'E-Mail-Adresse',
    'Telefonnummer',
    'geboren am',
    'Inhaber des Kontos',
  ];
  expect(suggested(form, sheet)).toEqual(sheet);
});

test('a form in one language finds the headings of another', () => {
  expect(
    suggested(['Apellidos', 'Código postal', 'Ciudad', 'Fecha de nacimiento'], ['Surname', 'Postcode', 'Town', 'Date of birth']),
  ).toEqual(['Surname', 'Postcode', 'Town', 'Date of birth']);
  expect(suggested(['Nom de famille', 'Prénom', 'Ville'], ['Nachname', 'Vorname', 'Ort'])).toEqual(['Nachname', 'Vorname', 'Ort']);
});

test('a box for both names takes them in the order in which it asks for them', () => {
  const names = ['Vorname', 'Nachname'];
  expect(suggested(['Name, Vorname', 'Vorname und Nachname', 'Name des Mieters'], names)).toEqual([
    'Nachname, Vorname',
    'Vorname Nachname',
    'Vorname Nachname',
  ]);
  expect(suggested(['Surname, first name', 'First and last name'], ['First name', 'Surname'])).toEqual([
    'Surname, First name',
    'First name Surname',
  ]);
});

test('beside a field for the first name, one for a name takes the surname', () => {
  expect(suggested(['Name', 'Vorname', 'Name des Kontoinhabers'], ['Vorname', 'Nachname'])).toEqual([
    'Nachname',
    'Vorname',
    'Vorname Nachname',
  ]);
  // Also when the first name has its rule already.
  const rules = suggestRules(labelled('Name', 'First name'), columns('First name', 'Surname'), {
    x1: { kind: 'column', column: 'First name' },
  });
  expect(rules).toEqual({ x0: { kind: 'column', column: 'Surname' } });
});

test('a box that is called after a person asks for the name, but nobody is sure of it', () => {
  const found = suggest(labelled('Kontoinhaber', 'Account holder', 'Mitgliedsnummer'), columns('Vorname', 'Nachname'), {});
  expect(Object.values(found).map(({ rule: { kind }, confidence }) => [kind, confidence])).toEqual([
    ['compose', 0.7],
    ['compose', 0.7],
  ]);
  expect(suggested(['Tenant'], ['Tenant', 'First name', 'Surname'])).toEqual(['Tenant']);
});

test('an address for mail is no street, and land is no country where more is said', () => {
  expect(suggested(['E-mail address', 'Area of land'], ['Address', 'Country'])).toEqual([null, null]);
});
