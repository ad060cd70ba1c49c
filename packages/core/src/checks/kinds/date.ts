import { isDateLike, isoDate } from '../../tables/typed-text.js';
import { valueCheck } from '../check.js';

/** Dates are days of the calendar, and dates to the program they come from. */
export const date = valueCheck('date', () => ({ text, value }, _, { reading }) => {
  if (text.trim() === '' || (typeof value === 'string' && /^\d{4}-\d\d-\d\d/.test(value))) return null;
  if (isoDate(text, reading?.dates)) return { code: 'date-as-text', severity: 'look', mend: text.trim() };
  return {
    code: 'date-wrong',
    severity: isDateLike(text) ? 'stop' : 'look',
    details: { why: isDateLike(text) ? 'there is no such day' : 'it is not written as a date' },
  };
});
