import { headingWords } from './heading-words.js';

/** Headings and labels that ask for the same; common practice, no source. */
test.each<[string[], string]>([
  [['Surname', 'Last name', 'family_name', 'Nachname', 'Familienname', 'Apellidos', 'Nom de famille', 'Nazwisko'], 'surname'],
  [['First name', 'Given names', 'Vorname', 'Prénom', 'Imię'], 'firstname'],
  [['E-mail', 'E-Mail-Adresse', 'Email address', 'eMail', 'Mailadresse', 'Courriel', 'Correo electrónico', 'e_mail'], 'email'],
  [['Postcode', 'ZIP code', 'Postal Code', 'PLZ', 'Postleitzahl', 'Code postal', 'Código postal', 'Kod pocztowy'], 'postcode'],
  [['Street', 'Straße', 'Strasse', 'Anschrift', 'Rue', 'Dirección', 'ulica'], 'street'],
  [['Town', 'Ort', 'Wohnort', 'Ville', 'Ciudad', 'Città'], 'city'],
  [['Country', 'Land', 'Pays', 'País', 'Kraj'], 'country'],
  [['Date of birth', 'Fecha de nacimiento'], 'date birth'],
  [['Geburtsdatum'], 'birth date'],
  [['Telephone number', 'Telefonnummer', 'Telefon-Nr.', 'TelefonNr'], 'phone number'],
  [['Account number', 'Kontonummer', 'konto_nr'], 'account number'],
  [['Street and house number', 'Straße und Hausnummer', 'Straße, Nr.', 'Straße/Hausnr.', 'Strasse Nr.', 'Rue et numéro', 'Str.'], 'street'],
  [['Mitgl.-Nr.', 'Mitglied Nr'], 'member number'],
  [['Street number'], 'street number'],
  [['Account holder', 'Kontoinhaberin'], 'account holder'],
  [['Member number', 'Mitgliedsnummer', 'Mitglieds-Nr'], 'member number'],
  [['tenant.firstName', 'Mieters Vorname'], 'tenant firstname'],
])('%j are “%s”', (texts, words) => expect(texts.map((text) => headingWords(text).join(' '))).toEqual(texts.map(() => words)));

test('a word that is another only by itself stays what it is beside others', () => {
  expect(['Area of land', 'Who pays', 'Land use'].map((text) => headingWords(text).join(' '))).toEqual([
    'area land',
    'who pays',
    'land use',
  ]);
});

test('words that only end like a German compound stay whole', () => {
  expect(headingWords('filename username support passport sort report')).toEqual([
    'filename',
    'username',
    'support',
    'passport',
    'sort',
    'report',
  ]);
});
