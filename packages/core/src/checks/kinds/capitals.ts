import { t } from '../../words/words.js';
import { nameCase } from '../../text/name-case.js';
import { isNameColumn } from '../name-column.js';
import type { CheckKind } from '../check.js';
import { aboutValue, columnsWith } from '../check.js';

const isCapitals = (text: string): boolean => /\p{Lu}{2}/u.test(text) && text === text.toUpperCase() && text !== text.toLowerCase();
/** Shorter ones may be initials. */
const SHORTEST = 4;

/** Names in capitals amid names that are not. */
export const capitals: CheckKind = {
  order: 150,
  column: { switch: 'capitals', says: t`is not in capitals only`, proposed: (column) => isNameColumn(column) && column.kind !== 'key' },
  findings: {
    'all-capitals': { title: t`Name in capitals`, sentence: ({ value }) => t`“${value}” is in capitals, unlike the other names.` },
  },
  begin: (setup) => {
    const watched = columnsWith(setup, 'capitals').map(({ column }) => ({
      column: column.name,
      filled: 0,
      loud: [] as { row: number; value: string }[],
    }));
    if (watched.length === 0) return null;
    return {
      compares: watched.map(({ column }) => column),
      see({ row }) {
        for (const one of watched) {
          const { text } = row.cell(one.column);
          if (!/\p{Ll}|\p{Lu}/u.test(text)) continue;
          one.filled++;
          if (text.trim().length >= SHORTEST && isCapitals(text)) one.loud.push({ row: row.row, value: text });
        }
      },
      end(say) {
        for (const { column, filled, loud } of watched) {
          if (loud.length > filled / 2) continue;
          for (const { row, value } of loud)
            say({ ...aboutValue(row, column, value), code: 'all-capitals', severity: 'look', mend: nameCase(value) });
        }
      },
    };
  },
};
