import { boundDay } from './answer-faults.js';
import type { AnswerValue, IntakeAnswers, IntakeKind, IntakePlan, IntakeQuestion } from './intake.js';
import { YES, askedSections, isAnswered } from './intake.js';

/** What is typed into a page that is only tried. Addresses are of a domain that is nobody's (RFC 2606), the account is the IBAN registry's example (ISO 13616). */
const values: Partial<Record<IntakeKind, string>> = {
  'long text': 'This is a made-up answer.\nIt has two lines.',
  number: '3',
  amount: '12.50',
  'yes or no': YES,
  consent: YES,
  'e-mail': 'robin.made-up@example.org',
  telephone: '+49 30 901820',
  IBAN: 'DE89 3704 0044 0532 0130 00',
};
/** By the country of the office; elsewhere five digits do. */
const postalCodes: Readonly<Record<string, string>> = {
  AT: '1010',
  BE: '1000',
  CH: '8001',
  DK: '1050',
  GB: 'EC1A 1BB',
  IE: 'D02 AF30',
  NL: '1012 AB',
  NO: '0150',
  PL: '00-950',
  SE: '111 22',
};
const words: readonly (readonly [RegExp, string])[] = [
  [/bank/i, 'Made-Up Bank'],
  [/(?:first|given).*(?:last|sur|family)/i, 'Robin Made-Up'],
  [/first|given|forename|vorname/i, 'Robin'],
  [/last|surname|family|nachname/i, 'Made-Up'],
  [/name|holder|tenant/i, 'Robin Made-Up'],
  [/street|address|stra(?:ß|ss)e/i, '12 Made-Up Street'],
  [/town|city|place|\bort\b/i, 'Made-Up Town'],
];

/** A made-up answer to a question. @param today ISO 8601 @param picture a data URL for what is drawn or photographed */
function madeUp(question: IntakeQuestion, today: string, country: string, picture: string): AnswerValue {
  const { kind, options, words: asked, limit, shape, minimum, maximum } = question;
  if (kind === 'signature' || kind === 'image') return picture;
  if (kind === 'date') {
    const [first, last] = [boundDay(minimum, today), boundDay(maximum, today)];
    return last !== null && last < today ? last : first !== null && first > today ? first : today;
  }
  if (shape && shape.parts.length > 0) return shape.example;
  if ((kind === 'number' || kind === 'amount') && (minimum || maximum)) return minimum || maximum || '';
  if (kind === 'one of') return options[0]?.value ?? '';
  if (kind === 'some of') return options.slice(0, 2).map(({ value }) => value);
  if (kind === 'postal code') return postalCodes[country] ?? '12345';
  const text = values[kind] ?? words.find(([pattern]) => pattern.test(asked))?.[1] ?? 'Made up';
  return limit === null ? text : [...text].slice(0, limit).join('');
}

/** An answer to every question of a page, to try it. @param country of the office (ISO 3166-1, two letters) @param picture a data URL */
export const madeUpAnswers = (plan: IntakePlan, today: string, country: string, picture: string): IntakeAnswers =>
  Object.fromEntries(
    askedSections(plan)
      .flatMap(({ questions }) => questions)
      .filter(isAnswered)
      .map((question) => [question.id, madeUp(question, today, country, picture)] as const)
      .filter(([, answer]) => answer.length > 0),
  );
