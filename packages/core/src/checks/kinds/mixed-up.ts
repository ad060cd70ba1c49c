import { t } from '../../words/words.js';
import type { ColumnKind } from '../../tables/record.js';
import type { CheckKind } from '../check.js';
import { aboutValue } from '../check.js';
import { ibanFault } from './iban.js';

/** Shapes that nothing else has, so that a value of them in a column of another kind is in the wrong one. */
const shapes: [kind: ColumnKind, is: (text: string) => boolean][] = [
  ['email', (text) => /^[^\s@]+@[^\s@.]+\.[^\s@]+$/.test(text)],
  ['iban', (text) => text.length >= 15 && /^[A-Z]{2}\d\d[A-Z0-9 ]+$/.test(text) && ibanFault(text) === null],
  ['date', (text) => /^(\d{4}-\d\d-\d\d|\d{1,2}\.\d{1,2}\.\d{4})$/.test(text)],
  ['phone', (text) => /^\+\d[\d\s()/-]{6,}$/.test(text)],
];

/** Values that have the shape of another column, while that one has not got its own. */
export const mixedUp: CheckKind = {
  order: 190,
  findings: {
    'mixed-up': {
      title: t`In the wrong column`,
      sentence: ({ value, details }) => t`“${value}” looks like a value for “${details.why}”, which has none of its own here.`,
    },
  },
  begin: ({ columns, plan = {}, usedColumns }) => {
    if (plan.mixedUp === false) return null;
    const homes = shapes.flatMap(([kind, is]) => {
      const own = columns.filter((column) => column.kind === kind && column.distinct > 1);
      return own.length > 0 ? [{ kind, is, columns: own.map(({ name }) => name) }] : [];
    });
    const strangers = columns.filter(
      ({ name, kind, distinct }) =>
        distinct > 1 && !homes.some((home) => home.kind === kind) && (!usedColumns || usedColumns.includes(name)),
    );
    if (homes.length === 0 || strangers.length === 0) return null;
    return {
      see({ row }, say) {
        for (const { name } of strangers) {
          const { text } = row.cell(name);
          // The shortest of the shapes is a date.
          if (text.length < 8) continue;
          for (const home of homes) {
            if (!home.is(text.trim())) continue;
            const missing = home.columns.find((other) => !home.is(row.cell(other).text.trim()));
            if (missing) say({ ...aboutValue(row.row, name, text), code: 'mixed-up', severity: 'look', details: { why: missing } });
          }
        }
      },
    };
  },
};
