import { readsColumns } from '../../map/registry.js';
import { fieldLabel } from '../../pdf/field.js';
import type { CheckKind } from '../check.js';
import { facesAdvice, list } from '../finding.js';

/** Every value fits its box and can be drawn, measured with the metrics that will draw it. */
export const fit: CheckKind = {
  order: 250,
  findings: {
    'cannot-draw': {
      title: 'Characters that cannot be drawn',
      sentence: ({ label, details }) => `No face can draw ${list(details.characters)} in “${label}”. ${facesAdvice(details.characters)}`,
    },
    overflows: {
      title: 'Does not fit its box',
      sentence: ({ label, details }) =>
        details.characters
          ? `The box of “${label}” is not high enough for all that is chosen: ${list(details.characters)} cannot be seen.`
          : `The value does not fit the box of “${label}”, even in small type.`,
    },
  },
  begin: ({ templates }) => {
    if (templates.every(({ measure }) => measure === null)) return null;
    return {
      see({ row, evaluations }, say) {
        templates.forEach(({ measure, fields, map }, template) => {
          const values = evaluations[template]?.values;
          if (!values) return;
          for (const note of measure?.(values) ?? []) {
            if (!Object.hasOwn(values, note.field)) continue;
            const field = fields.find((one) => one.name === note.field)!;
            const rule = map[note.field];
            const base = {
              row: row.row,
              column: (rule && readsColumns(rule)[0]) ?? null,
              template,
              field: note.field,
              label: fieldLabel(field),
              value: String(values[note.field]),
            };
            if (note.characters.length > 0)
              say({ ...base, code: 'cannot-draw', severity: 'stop', details: { characters: note.characters } });
            if (note.fit === 'overflows')
              say({ ...base, code: 'overflows', severity: 'look', details: note.unseen ? { characters: note.unseen } : {} });
          }
        });
      },
    };
  },
};
