import { t } from '../../words/words.js';
import type { CheckKind } from '../check.js';
import { aboutValue, columnsWith } from '../check.js';
import { postalDigits } from './postal-code.js';

/** Share of a column that must have the full length before shorter values count as spoiled. */
const MOST_OF_IT = 0.6;

/** Digits whose leading zeros a program has dropped: shorter than nearly all others of their column. */
export const zeros: CheckKind = {
  order: 120,
  column: { switch: 'zeros', says: t`has lost no leading zero`, proposed: ({ kind }) => kind === 'postal-code' },
  findings: {
    'lost-zeros': {
      title: t`Leading zero lost`,
      sentence: ({ value, details }) =>
        t`“${value}” has ${details.length} digits, the others have ${details.limit}. Its leading zero was lost.`,
    },
  },
  begin: (setup) => {
    const watched = columnsWith(setup, 'zeros').map(({ column }) => ({
      column: column.name,
      lengths: new Map<number, number>(),
      filled: 0,
      short: [] as { row: number; value: string }[],
    }));
    if (watched.length === 0) return null;
    const told = postalDigits[setup.plan?.country ?? ''];
    return {
      compares: watched.map(({ column }) => column),
      see({ row }) {
        for (const one of watched) {
          const text = row.cell(one.column).text.trim();
          if (text === '') continue;
          one.filled++;
          if (!/^\d{3,9}$/.test(text)) continue;
          one.lengths.set(text.length, (one.lengths.get(text.length) ?? 0) + 1);
          if (!text.startsWith('0')) one.short.push({ row: row.row, value: row.cell(one.column).text });
        }
      },
      end(say) {
        for (const { column, lengths, filled, short } of watched) {
          const [usual = 0, count = 0] = [...lengths].sort((a, b) => b[1] - a[1])[0] ?? [];
          const digits = told ?? (count >= filled * MOST_OF_IT ? usual : 0);
          for (const { row, value } of short) {
            const bare = value.trim();
            if (bare.length >= digits || bare.length < digits - 2) continue;
            say({
              ...aboutValue(row, column, value),
              code: 'lost-zeros',
              severity: 'look',
              details: { length: bare.length, limit: digits },
              mend: bare.padStart(digits, '0'),
            });
          }
        }
      },
    };
  },
};
