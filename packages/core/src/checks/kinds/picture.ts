import { t } from '../../words/words.js';
import { fieldLabel } from '../../pdf/field.js';
import type { CheckKind } from '../check.js';

/** Every picture that a record names came with the records. */
export const picture: CheckKind = {
  order: 260,
  findings: {
    'picture-missing': {
      title: t`Missing picture`,
      sentence: ({ value, label }) =>
        t`No picture called “${value}” came with the records, so “${label}” would stay empty. Add it to the source, or change the name.`,
    },
  },
  begin: ({ templates, pictures }) => {
    if (!pictures || pictures.length === 0) return null;
    return {
      ofCopies: true,
      see({ row, evaluations }, say) {
        for (const { template, field, column, has } of pictures) {
          const value = evaluations[template]?.row.cell(column).text.trim() ?? '';
          if (value === '' || has(value)) continue;
          const described = templates[template]!.fields.find(({ name }) => name === field);
          const label = described ? fieldLabel(described) : field;
          say({ code: 'picture-missing', severity: 'stop', row: row.row, column, template, field, label, value, details: {} });
        }
      },
    };
  },
};
