import { t } from '../../words/words.js';
import { normalised } from '../../map/choose.js';
import type { CheckKind } from '../check.js';
import { aboutValue, columnsWith } from '../check.js';

/** Columns in which no value may stand twice. */
export const unique: CheckKind = {
  order: 40,
  column: { switch: 'unique', says: t`appears only once`, proposed: () => false },
  findings: {
    'not-unique': {
      title: t`Appears more than once`,
      sentence: ({ value, details }) => t`“${value}” is also in row ${details.rows?.join(', ')}.`,
    },
  },
  begin: (setup) => {
    const watched = columnsWith(setup, 'unique')
      .filter(({ column }) => column.name !== setup.keyColumn)
      .map(({ column }) => ({ column: column.name, places: new Map<string, { row: number; value: string }[]>() }));
    if (watched.length === 0) return null;
    return {
      compares: watched.map(({ column }) => column),
      see({ row }) {
        for (const { column, places } of watched) {
          const { text } = row.cell(column);
          if (text.trim() === '') continue;
          const known = places.get(normalised(text));
          if (known) known.push({ row: row.row, value: text });
          else places.set(normalised(text), [{ row: row.row, value: text }]);
        }
      },
      end(say) {
        for (const { column, places } of watched)
          for (const all of places.values()) {
            if (all.length < 2) continue;
            for (const { row, value } of all) {
              const rows = all.filter((one) => one.row !== row).slice(0, 5);
              say({
                ...aboutValue(row, column, value),
                code: 'not-unique',
                severity: 'stop',
                details: { rows: rows.map((one) => one.row) },
              });
            }
          }
      },
    };
  },
};
