import type { IntakeQuestion } from '@mailbag/core/intake';

/** Words by which a question is one that browsers know the answer to (HTML, 4.10.18.7.1); in the languages of forms, common practice, no source. */
const TOKENS: readonly [token: string, words: RegExp][] = [
  ['given-name', /^(?:first|given) names?$|^vornamen?$|^prénoms?$|^nombres?$|^imię|^ім.я$/i],
  ['family-name', /^(?:last|family) name$|^surname$|^(?:nach|familien)name$|^nom(?: de famille)?$|^apellidos?$|^nazwisko$|^прізвище$/i],
  [
    'name',
    /^(?:full |your )?name(?: of the (?:applicant|tenant|person|owner|member|parent|account holder))?$|^first and last name$|^vor- und nachname$|^nom et prénom$|^nombre y apellidos$|^imię i nazwisko$/i,
  ],
  ['bday', /date of birth|^born$|geburtsdatum|geboren am|date de naissance|fecha de nacimiento|data urodzenia|дата народження/i],
  ['street-address', /^street\b|^address$|^stra(?:ß|ss)e\b|^adresse$|^rue\b|^calle\b|^dirección$|^ulica\b|^вулиця/i],
  ['address-level2', /^(?:town|city)$|^(?:wohn)?ort$|^stadt$|^ville$|^ciudad$|^miasto$|^miejscowość$|^місто$/i],
  ['organization', /^(?:company|organi[sz]ation)$|^firma$|^société$|^empresa$/i],
];

/** The token of what a question asks for; undefined: browsers do not know it. */
export function autofillOf({ kind, words }: Pick<IntakeQuestion, 'kind' | 'words'>): string | undefined {
  if (kind === 'e-mail') return 'email';
  if (kind === 'telephone') return 'tel';
  if (kind === 'postal code') return 'postal-code';
  return kind === 'text' || kind === 'date' ? TOKENS.find(([, pattern]) => pattern.test(words.trim()))?.[0] : undefined;
}
