import { isDateLike, isoDate } from '../../tables/typed-text.js';
import type { CheckKind } from '../check.js';
import { valueCheck } from '../check.js';

/** Dates are days of the calendar, and dates to the program they come from. */
export const date: CheckKind = {
  order: 100,
  column: { switch: 'date', says: 'is a date that exists', proposed: ({ kind }) => kind === 'date' },
  findings: {
    'date-wrong': { title: 'Not a date', sentence: ({ value, details }) => `“${value}” is not a date: ${details.why}.` },
    'date-as-text': { title: 'Date kept as text', sentence: ({ value }) => `“${value}” is kept as text, so no date format applies to it.` },
  },
  begin: valueCheck('date', () => ({ text, value }, _, { reading }) => {
    if (text.trim() === '' || (typeof value === 'string' && /^\d{4}-\d\d-\d\d/.test(value))) return null;
    if (isoDate(text, reading?.dates)) return { code: 'date-as-text', severity: 'look', mend: text.trim() };
    return {
      code: 'date-wrong',
      severity: isDateLike(text) ? 'stop' : 'look',
      details: { why: isDateLike(text) ? 'there is no such day' : 'it is not written as a date' },
    };
  }),
};
