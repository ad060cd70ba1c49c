import { pageTexts, withLanguage, withTranslation } from '@mailbag/core';
import type { IntakePlan } from '@mailbag/core';

/** What “Ask for a plot” says, in German. */
const german: Readonly<Record<string, string>> = {
  'Ask for a plot': 'Einen Garten pachten',
  'You would like to rent a plot in Larkmere. Have your bank card at hand; you sign on the screen at the end.':
    'Sie möchten in Larkmere einen Garten pachten. Halten Sie Ihre Bankkarte bereit; am Ende unterschreiben Sie auf dem Bildschirm.',
  'For which plot': 'Um welchen Garten es geht',
  'Which plot would you like?': 'Welchen Garten möchten Sie?',
  'The free plots hang at the gate of each site. One letter and a number, such as B-17.':
    'Die freien Gärten hängen am Tor jeder Anlage aus. Ein Buchstabe und eine Zahl, etwa B-17.',
  'Your first name and surname': 'Ihr Vor- und Nachname',
  'E-mail address': 'E-Mail-Adresse',
  'Your copy is sent to it.': 'Dorthin geht Ihre Kopie.',
  'The account': 'Das Konto',
  'Account holder': 'Kontoinhaber oder Kontoinhaberin',
  IBAN: 'IBAN',
  'Name of the bank': 'Name der Bank',
  'Collection day': 'Tag der Abbuchung',
  '1st of the month': 'am 1. des Monats',
  '15th of the month': 'am 15. des Monats',
  'How often': 'Wie oft',
  'How often would you like to pay?': 'Wie oft möchten Sie zahlen?',
  'Once a year': 'Einmal im Jahr',
  'Twice a year': 'Zweimal im Jahr',
  'Every quarter': 'Jedes Vierteljahr',
  Signed: 'Unterschrift',
  'Signature of the account holder': 'Unterschrift der Person, der das Konto gehört',
  'Place and date': 'Ort und Datum',
  'What is allowed': 'Was erlaubt ist',
  'Will you build a shed?': 'Werden Sie eine Laube bauen?',
  'Will you build a glasshouse?': 'Werden Sie ein Gewächshaus bauen?',
  'How high will the shed be, in metres?': 'Wie hoch wird die Laube, in Metern?',
  'What is to be kept to': 'Woran Sie sich halten',
  'I agree that the office keeps these answers until the plots of next year are given.':
    'Ich bin einverstanden, dass das Amt diese Angaben aufbewahrt, bis die Gärten des nächsten Jahres vergeben sind.',
  'We let you know within two weeks whether the plot is free.': 'Innerhalb von zwei Wochen teilen wir Ihnen mit, ob der Garten frei ist.',
  'the allotment office, Tuesdays and Fridays from 10 to 12': 'beim Gartenamt, dienstags und freitags von 10 bis 12 Uhr',
};

/** The plan with all that it says in German too. @throws when something has no translation */
export function inGermanToo(plan: IntakePlan): IntakePlan {
  const begun = withLanguage({ ...plan, language: 'en' }, 'de', true);
  return pageTexts(plan).reduce((so, { place, text }) => {
    const translation = german[text];
    if (translation === undefined) throw new Error(`“${text}” has no German words`);
    return withTranslation(so, 'de', place, translation);
  }, begun);
}
