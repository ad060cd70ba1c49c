import { t } from '../../words/words.js';
import { readsColumns } from '../../map/registry.js';
import { fieldLabel, formatFault } from '../../pdf/field.js';
import type { CheckKind } from '../check.js';

/** Every value is what its field's format can show; a time in a date field, or a date in a time field, cannot stand there at all. */
export const format: CheckKind = {
  order: 240,
  findings: {
    'format-unfit': {
      title: t`Not what the field shows`,
      sentence: ({ value, label, details }) => t`“${value}” does not go into “${label}”: ${details.why}.`,
    },
  },
  begin: ({ templates }) => {
    const formatted = templates.map(({ fields, map }) =>
      fields.flatMap((field) => {
        const rule = map[field.name];
        return field.format && rule
          ? [{ name: field.name, label: fieldLabel(field), format: field.format, column: readsColumns(rule)[0] ?? null }]
          : [];
      }),
    );
    if (formatted.every((fields) => fields.length === 0)) return null;
    return {
      ofCopies: true,
      see({ row, evaluations }, say) {
        formatted.forEach((fields, template) => {
          for (const { name, label, format: how, column } of fields) {
            const value = evaluations[template]?.values[name];
            const why = typeof value === 'string' ? formatFault(how, value) : null;
            if (typeof value !== 'string' || why === null) continue;
            const severity = 'pattern' in how && /^[\d:.\s/-]+$/.test(value) ? 'stop' : 'look';
            say({ code: 'format-unfit', severity, row: row.row, column, template, field: name, label, value, details: { why } });
          }
        });
      },
    };
  },
};
