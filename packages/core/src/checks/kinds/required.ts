import { t } from '../../words/words.js';
import { readsColumns } from '../../map/registry.js';
import { fieldLabel, isFillable, isRequired } from '../../pdf/field.js';
import type { CheckKind } from '../check.js';
import { isBlank, valueToStand } from '../field-verdict.js';

/** Every required field gets a value. A field for which the template itself has one may stay as it is. */
export const required: CheckKind = {
  order: 220,
  findings: {
    'required-blank': {
      title: t`Required field left blank`,
      sentence: ({ label }) => t`“${label}” must be filled, and this record has nothing for it.`,
    },
  },
  begin: ({ templates }) => {
    const wanted = templates.map(({ fields, map }) =>
      fields
        .filter((field) => isFillable(field) && isRequired(field))
        .map((field) => ({
          name: field.name,
          label: fieldLabel(field),
          value: field.value,
          column: map[field.name] ? (readsColumns(map[field.name]!)[0] ?? null) : null,
        })),
    );
    if (wanted.every((fields) => fields.length === 0)) return null;
    return {
      ofCopies: true,
      see({ row, evaluations }, say) {
        wanted.forEach((fields, template) => {
          const evaluation = evaluations[template];
          if (!evaluation) return;
          const { values, problems } = evaluation;
          for (const field of fields) {
            if (!isBlank(valueToStand(field, values)) || problems.some((problem) => problem.field === field.name)) continue;
            say({
              code: 'required-blank',
              severity: 'stop',
              row: row.row,
              column: field.column,
              template,
              field: field.name,
              label: field.label,
              value: '',
              details: {},
            });
          }
        });
      },
    };
  },
};
