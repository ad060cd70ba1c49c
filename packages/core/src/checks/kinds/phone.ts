import { t } from '../../words/words.js';
import type { CountryCode } from 'libphonenumber-js';
import { isSupportedCountry, parsePhoneNumberFromString } from 'libphonenumber-js/max';
import { trimEnds } from '../../text/trim.js';
import type { CheckKind } from '../check.js';
import { valueCheck } from '../check.js';

/** Most digits of a number with its country code (ITU-T E.164, 6.1), and fewest of one that can be dialled (common practice, no source). */
const MOST = 15;
const FEWEST = 4;

/** An extension at the end is dialled after the number (common practice, no source, for its marks). */
function withoutExtension(text: string): string {
  const digits = trimEnds(text, /\d/, 'end');
  const mark = trimEnds(digits, /[\s.]/, 'end');
  const [found = ''] = digits.length < text.length ? (/(?:ext|x|dw|app)$/i.exec(mark.slice(-3)) ?? []) : [];
  return found === '' ? text : mark.slice(0, mark.length - found.length);
}

/** Telephone numbers that can be dialled: by their country's numbering plan where it is known, else by their digits (ITU-T E.164). */
export const phone: CheckKind = {
  order: 70,
  column: { switch: 'phone', says: t`is a telephone number`, proposed: ({ kind }) => kind === 'phone' },
  findings: {
    'phone-wrong': { title: t`Not a telephone number`, sentence: ({ value, details }) => t`“${value}” cannot be dialled: ${details.why}.` },
  },
  begin: valueCheck('phone', ({ plan = {} }) => {
    const country = plan.country && isSupportedCountry(plan.country) ? (plan.country as CountryCode) : undefined;
    return ({ text }) => {
      const trimmed = text.trim();
      if (trimmed === '') return null;
      const say = (why: string) => ({ code: 'phone-wrong' as const, severity: 'look' as const, details: { why } });
      const digits = trimmed.replace(/\D/g, '').length;
      if (/[^\d\s()+./\u00a0\u2010-\u2013-]/.test(withoutExtension(trimmed))) return say(t`it holds other characters than a number does`);
      if (digits > MOST) return say(t`it has ${digits} digits, more than the ${MOST} that are possible`);
      if (digits < FEWEST) return say(t`it has only ${digits} digits`);
      if (!trimmed.startsWith('+') && !trimmed.startsWith('00') && !country) return null;
      const parsed = parsePhoneNumberFromString(trimmed.replace(/^00/, '+'), country);
      if (!parsed) return say(t`its country code is not known`);
      if (!parsed.isPossible()) return say(t`numbers of ${parsed.country ?? t`that country`} are longer or shorter`);
      return parsed.isValid() ? null : say(t`there is no such number in ${parsed.country ?? t`the numbering plan of that country`}`);
    };
  }),
};
