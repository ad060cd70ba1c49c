import { t } from '../../words/words.js';
import { normalised } from '../../map/choose.js';
import type { CheckKind } from '../check.js';

/** The record key is there and stands once. */
export const key: CheckKind = {
  order: 10,
  findings: {
    'key-blank': {
      title: t`Record key is empty`,
      sentence: ({ column }) => t`“${column}” is empty. Give the record a key of its own or leave it out.`,
    },
    'key-twice': {
      title: t`Duplicate record key`,
      sentence: ({ value, details }) => t`“${value}” is also the key of row ${details.rows?.join(', ')}. Only one of them can be right.`,
    },
  },
  begin: ({ keyColumn }) => {
    if (keyColumn === null) return null;
    const rows = new Map<string, { value: string; rows: number[] }>();
    const base = { column: keyColumn, template: null, field: null, label: null, severity: 'stop' as const };
    return {
      compares: [keyColumn],
      see({ row }, say) {
        const value = row.cell(keyColumn).text.trim();
        if (value === '') return say({ ...base, code: 'key-blank', row: row.row, value: '', details: {} });
        const known = rows.get(normalised(value));
        if (known) known.rows.push(row.row);
        else rows.set(normalised(value), { value, rows: [row.row] });
      },
      end(say) {
        for (const { value, rows: all } of rows.values()) {
          if (all.length < 2) continue;
          for (const row of all)
            say({ ...base, code: 'key-twice', row, value, details: { rows: all.filter((other) => other !== row).slice(0, 5) } });
        }
      },
    };
  },
};
