import { t } from '../../words/words.js';
import { fieldLabel } from '../../pdf/field.js';
import type { CheckKind } from '../check.js';
import { nearest } from '../../text/nearest.js';
import { list, proposed } from '../finding.js';

/** Every value for a tick box, radio button or choice has a translation. */
export const translation: CheckKind = {
  order: 210,
  findings: {
    untranslated: {
      title: t`Value without a translation`,
      sentence: ({ label, value, details }) =>
        t`“${label}” does not accept “${value}”. It accepts ${list(details.accepted)}.${proposed(details.near)}`,
    },
  },
  begin: ({ templates }) => ({
    ofCopies: true,
    see({ row, evaluations }, say) {
      evaluations.forEach((evaluation, template) => {
        for (const { field, untranslated } of evaluation?.problems ?? []) {
          if (!untranslated) continue;
          const described = templates[template]!.fields.find((one) => one.name === field);
          const { near, sure } = nearest(untranslated.text, untranslated.accepted);
          say({
            code: 'untranslated',
            severity: 'stop',
            row: row.row,
            column: untranslated.column,
            template,
            field,
            label: described ? fieldLabel(described) : field,
            value: untranslated.text,
            details: { accepted: untranslated.accepted, near },
            // Only what stands in one column can be put right there.
            mend: evaluation!.row.cell(untranslated.column).text === untranslated.text ? sure : null,
          });
        }
      });
    },
  }),
};
