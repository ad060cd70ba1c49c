import { t } from '../../words/words.js';
import { readingOf } from '../../tables/record.js';
import { isDateLike, isoDate } from '../../tables/typed-text.js';
import type { CheckKind } from '../check.js';
import { valueCheck } from '../check.js';

/** Dates are days of the calendar, and dates to the program they come from. */
export const date: CheckKind = {
  order: 100,
  column: { switch: 'date', says: t`is a date that exists`, proposed: ({ kind }) => kind === 'date' },
  findings: {
    'date-wrong': { title: t`Not a date`, sentence: ({ value, details }) => t`“${value}” is not a date: ${details.why}.` },
    'date-as-text': {
      title: t`Date kept as text`,
      sentence: ({ value }) => t`“${value}” is kept as text, so no date format applies to it.`,
    },
  },
  begin: valueCheck('date', () => ({ text, value }, _, column) => {
    if (text.trim() === '' || (typeof value === 'string' && /^\d{4}-\d\d-\d\d/.test(value))) return null;
    if (isoDate(text, readingOf(column).dates)) return { code: 'date-as-text', severity: 'look', mend: text.trim() };
    return {
      code: 'date-wrong',
      severity: isDateLike(text) ? 'stop' : 'look',
      details: { why: isDateLike(text) ? t`there is no such day` : t`it is not written as a date` },
    };
  }),
};
