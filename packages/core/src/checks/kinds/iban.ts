import { t } from '../../words/words.js';
import { ValidationErrorsIBAN, electronicFormatIBAN, isSEPACountry, validateIBAN } from 'ibantools';
import type { CheckKind } from '../check.js';
import { valueCheck } from '../check.js';

/** The check digits are right (ISO 13616-1, 6, by ISO/IEC 7064, MOD 97-10): the number with its first four characters at its end leaves 1. */
export function hasRightCheckDigits(iban: string): boolean {
  let rest = 0;
  for (const char of iban.slice(4) + iban.slice(0, 4)) {
    const value = Number.parseInt(char, 36);
    if (Number.isNaN(value)) return false;
    rest = (rest * (value > 9 ? 100 : 10) + value) % 97;
  }
  return rest === 1;
}

/** Why a text is no IBAN; null when it is one. Countries that the register does not know are judged by their check digits alone. */
export function ibanFault(text: string): string | null {
  const iban = electronicFormatIBAN(text) ?? '';
  if (!/^[A-Z]{2}\d{2}[A-Z0-9]{11,30}$/.test(iban)) return t`it is not two letters, two digits and the account`;
  const { errorCodes } = validateIBAN(iban);
  const isKnown = !errorCodes.includes(ValidationErrorsIBAN.NoIBANCountry) || isSEPACountry(iban.slice(0, 2));
  if (isKnown && errorCodes.includes(ValidationErrorsIBAN.WrongBBANLength)) return t`accounts of ${iban.slice(0, 2)} are longer or shorter`;
  if (!hasRightCheckDigits(iban)) return t`its check digits do not go with it, so a digit or letter is wrong`;
  if (isKnown && errorCodes.includes(ValidationErrorsIBAN.WrongBBANFormat))
    return t`accounts of ${iban.slice(0, 2)} are made up differently`;
  return null;
}

export const iban: CheckKind = {
  order: 90,
  column: { switch: 'iban', says: t`is an IBAN`, proposed: ({ kind }) => kind === 'iban' },
  findings: {
    'iban-wrong': { title: t`Not an IBAN`, sentence: ({ value, details }) => t`“${value}” is not an IBAN: ${details.why}.` },
  },
  begin: valueCheck('iban', () => ({ text }) => {
    const why = text.trim() === '' ? null : ibanFault(text);
    return why ? { code: 'iban-wrong', severity: 'look', details: { why } } : null;
  }),
};
