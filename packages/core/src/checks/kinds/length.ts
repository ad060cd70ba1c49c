import { t } from '../../words/words.js';
import type { FillRule } from '../../map/registry.js';
import { readsColumns } from '../../map/registry.js';
import { fieldLabel } from '../../pdf/field.js';
import type { CheckKind } from '../check.js';
import { lengthOver } from '../field-verdict.js';

/** Characters of an answer that the boxes in front of this one take: what is too long is told by the length of all of it. */
const takenBefore = (rule: FillRule): number =>
  rule.kind === 'piece' && 'piece' in rule.box && rule.box.piece.what === 'characters' ? rule.box.piece.from - 1 : 0;

/** No value is longer than its field allows (MaxLen), over all the boxes of its answer. */
export const length: CheckKind = {
  order: 230,
  findings: {
    'too-long': {
      title: t`Longer than the field allows`,
      sentence: ({ label, details }) => t`“${label}” takes ${details.limit} characters; this value has ${details.length}.`,
    },
  },
  begin: ({ templates }) => {
    const limited = templates.map(({ fields, map }) =>
      fields.flatMap((field) => {
        const rule = map[field.name];
        return field.maxLength !== null && rule
          ? [
              {
                name: field.name,
                label: fieldLabel(field),
                limit: field.maxLength,
                before: takenBefore(rule),
                column: readsColumns(rule)[0] ?? null,
              },
            ]
          : [];
      }),
    );
    if (limited.every((fields) => fields.length === 0)) return null;
    return {
      ofCopies: true,
      see({ row, evaluations }, say) {
        limited.forEach((fields, template) => {
          for (const { name, label, limit, before, column } of fields) {
            const value = evaluations[template]?.values[name];
            const count = lengthOver(limit, value);
            if (count !== null)
              say({
                code: 'too-long',
                severity: 'stop',
                row: row.row,
                column,
                template,
                field: name,
                label,
                value: String(value),
                details: { limit: before + limit, length: before + count },
              });
          }
        });
      },
    };
  },
};
