import { t } from '../../words/words.js';
import type { CheckKind } from '../check.js';
import { aboutValue, columnsWith } from '../check.js';

/** Columns that a person has said must be filled. */
export const requiredColumn: CheckKind = {
  order: 30,
  column: { switch: 'required', says: t`is filled`, proposed: () => false },
  findings: {
    'value-missing': { title: t`Required column empty`, sentence: ({ column }) => t`“${column}” must be filled and is empty.` },
  },
  begin: (setup) => {
    const watched = columnsWith(setup, 'required').map(({ column }) => column.name);
    if (watched.length === 0) return null;
    return {
      see({ row }, say) {
        for (const column of watched)
          if (row.cell(column).text.trim() === '') say({ ...aboutValue(row.row, column, ''), code: 'value-missing', severity: 'stop' });
      },
    };
  },
};
