import { t } from '../../words/words.js';
import { fieldLabel } from '../../pdf/field.js';
import type { CheckKind } from '../check.js';

/** Every rule can be worked out for every record: an amount is a number, a date a date, a key stands in its table. */
export const computed: CheckKind = {
  order: 205,
  findings: {
    'cannot-work-out': {
      title: t`Rule that cannot be calculated`,
      sentence: ({ label, details }) => t`“${label}” cannot be calculated. ${details.why ?? ''}`,
    },
  },
  begin: ({ templates }) => ({
    ofCopies: true,
    see({ row, evaluations }, say) {
      evaluations.forEach((evaluation, template) => {
        for (const { field, cannot } of evaluation?.problems ?? []) {
          if (!cannot) continue;
          const described = templates[template]!.fields.find((one) => one.name === field);
          say({
            code: 'cannot-work-out',
            severity: 'stop',
            row: row.row,
            column: cannot.column || null,
            template,
            field,
            label: described ? fieldLabel(described) : field,
            value: cannot.text,
            details: { why: cannot.cannot },
          });
        }
      });
    },
  }),
};
