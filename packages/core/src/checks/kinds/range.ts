import { t } from '../../words/words.js';
import type { Cell, ColumnReading } from '../../tables/record.js';
import { readingOf } from '../../tables/record.js';
import { isoDate, likelyNumber } from '../../tables/typed-text.js';
import type { CheckKind } from '../check.js';
import { valueCheck } from '../check.js';

const asNumber = ({ text, value }: Cell, reading: ColumnReading): number | null =>
  typeof value === 'number' ? value : likelyNumber(text, reading);
const asDate = ({ text, value }: Cell, reading: ColumnReading): string | null =>
  typeof value === 'string' && /^\d{4}-\d\d-\d\d/.test(value) ? value.slice(0, 10) : isoDate(text, reading.dates);

/** Numbers and dates lie between the limits that a person has set. What is neither is for other checks. */
export const range: CheckKind = {
  order: 170,
  column: { switch: 'range', says: t`lies between two limits`, proposed: () => false },
  findings: {
    'out-of-range': {
      title: t`Outside its limits`,
      sentence: ({ value, details }) => {
        const [minimum, maximum] = details.accepted ?? [];
        return t`“${value}” is not ${minimum && maximum ? t`between ${minimum} and ${maximum}` : minimum ? t`${minimum} or more` : t`${maximum} or less`}.`;
      },
    },
  },
  begin: valueCheck('range', () => (cell, { minimum, maximum }, column) => {
    const reading = readingOf(column);
    const isDates = /^\d{4}-\d\d-\d\d$/.test(minimum || maximum);
    const value = isDates ? asDate(cell, reading) : asNumber(cell, reading);
    if (value === null) return null;
    const limit = (text: string): number | string => (isDates ? text : Number(text));
    const isLow = minimum !== '' && value < limit(minimum);
    const isHigh = maximum !== '' && value > limit(maximum);
    return isLow || isHigh ? { code: 'out-of-range', severity: 'stop', details: { accepted: [minimum, maximum] } } : null;
  }),
};
