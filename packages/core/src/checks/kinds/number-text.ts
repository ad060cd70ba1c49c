import { t } from '../../words/words.js';
import { readingOf } from '../../tables/record.js';
import { likelyNumber } from '../../tables/typed-text.js';
import type { CheckKind } from '../check.js';
import { valueCheck } from '../check.js';

/** Numbers that their program keeps as text: they are neither summed nor formatted. */
export const numberText: CheckKind = {
  order: 110,
  column: { switch: 'numberText', says: t`is a number, not text that looks like one`, proposed: ({ kind }) => kind === 'number' },
  findings: {
    'not-a-number': { title: t`Not a number`, sentence: ({ column, value }) => t`“${column}” holds numbers; “${value}” is not one.` },
    'number-as-text': {
      title: t`Number kept as text`,
      sentence: ({ value }) => t`“${value}” is kept as text, so it is neither summed nor formatted.`,
    },
  },
  begin: valueCheck('numberText', () => ({ text, value }, _, column) => {
    if (typeof value !== 'string' || text.trim() === '') return null;
    const reading = readingOf(column);
    const number = likelyNumber(text, reading);
    return number === null
      ? { code: 'not-a-number', severity: 'look' }
      : {
          code: 'number-as-text',
          severity: 'look',
          mend: reading.decimals === 'comma' ? String(number).replace('.', ',') : String(number),
        };
  }),
};
