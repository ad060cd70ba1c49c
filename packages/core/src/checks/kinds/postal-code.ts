import { t } from '../../words/words.js';
import validator from 'validator';
import type { CheckKind } from '../check.js';
import { valueCheck } from '../check.js';

type Locale = Parameters<typeof validator.isPostalCode>[1];
const locales = new Set<string>(validator.isPostalCodeLocales);

/** Digits of the countries whose postal codes are digits only; those that begin with zero are the ones that sheets spoil. Common practice, no source. */
export const postalDigits: Record<string, number> = {
  AT: 4,
  BE: 4,
  BG: 4,
  CH: 4,
  DK: 4,
  HU: 4,
  LU: 4,
  NO: 4,
  SI: 4,
  AU: 4,
  CZ: 5,
  DE: 5,
  EE: 5,
  ES: 5,
  FI: 5,
  FR: 5,
  GR: 5,
  HR: 5,
  IT: 5,
  MX: 5,
  SE: 5,
  SK: 5,
  TR: 5,
  UA: 5,
  US: 5,
  CN: 6,
  IN: 6,
  RO: 6,
  RU: 6,
  SG: 6,
};

/** Postal codes of the country that is set. Without one nothing is known of them but their shape, which another check looks at. */
export const postalCode: CheckKind = {
  order: 80,
  column: { switch: 'postalCode', says: t`is a postal code`, proposed: ({ kind }) => kind === 'postal-code' },
  findings: {
    'postal-code-wrong': {
      title: t`Not a postal code`,
      sentence: ({ value, details }) => t`“${value}” is not a postal code of ${details.why}.`,
    },
  },
  begin: valueCheck('postalCode', ({ plan = {} }) => {
    const country = plan.country ?? '';
    return ({ text }) => {
      const trimmed = text.trim();
      if (trimmed === '' || !locales.has(country)) return null;
      const digits = postalDigits[country];
      // Digits that are missing in front are another check's business.
      if (digits && /^\d+$/.test(trimmed) && trimmed.length < digits) return null;
      return validator.isPostalCode(trimmed, country as Locale)
        ? null
        : { code: 'postal-code-wrong', severity: 'look', details: { why: country } };
    };
  }),
};
