import { readsColumns } from '../../map/registry.js';
import { fieldLabel } from '../../pdf/field.js';
import { graphemeCount } from '../../text/graphemes.js';
import type { CheckKind } from '../check.js';

/** No value is longer than its field allows (MaxLen). */
export const length: CheckKind = {
  order: 230,
  findings: {
    'too-long': {
      title: 'Longer than the field allows',
      sentence: ({ label, details }) => `“${label}” takes ${details.limit} characters; this value has ${details.length}.`,
    },
  },
  begin: ({ templates }) => {
    const limited = templates.map(({ fields, map }) =>
      fields.flatMap((field) => {
        const rule = map[field.name];
        return field.maxLength !== null && rule
          ? [{ name: field.name, label: fieldLabel(field), limit: field.maxLength, column: readsColumns(rule)[0] ?? null }]
          : [];
      }),
    );
    if (limited.every((fields) => fields.length === 0)) return null;
    return {
      see({ row, evaluations }, say) {
        limited.forEach((fields, template) => {
          for (const { name, label, limit, column } of fields) {
            const value = evaluations[template]!.values[name];
            if (typeof value !== 'string') continue;
            const count = graphemeCount(value.normalize('NFC'));
            if (count > limit)
              say({
                code: 'too-long',
                severity: 'stop',
                row: row.row,
                column,
                template,
                field: name,
                label,
                value,
                details: { limit, length: count },
              });
          }
        });
      },
    };
  },
};
