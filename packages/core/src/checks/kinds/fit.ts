import { t } from '../../words/words.js';
import { readsColumns } from '../../map/registry.js';
import { fieldLabel } from '../../pdf/field.js';
import type { CheckKind } from '../check.js';
import type { FillNote } from '../../pdf/value.js';
import { graphemeCount, graphemes } from '../../text/graphemes.js';
import type { Finding } from '../finding.js';
import { facesAdvice, list } from '../finding.js';

/** The end of what is lost says where the value breaks off; all of it may be a page. */
const excerpt = (lost: string): string => {
  const all = graphemes(lost.replace(/\s+/g, ' '));
  return all.length > 60 ? `${all.slice(0, 57).join('')}…` : all.join('');
};

function overflow({ unseen, lost, remedies }: FillNote, value: string): Finding['details'] {
  if (unseen) return { characters: unseen };
  if (!lost) return {};
  const length = graphemeCount(value.normalize('NFC'));
  return { lost, length, limit: Math.max(0, length - graphemeCount(lost)), ...(remedies && { remedies }) };
}

/** Every value fits its box and can be drawn, measured with the metrics that will draw it. */
export const fit: CheckKind = {
  order: 250,
  findings: {
    'cannot-draw': {
      title: t`Characters that cannot be drawn`,
      sentence: ({ label, details }) => t`No face can draw ${list(details.characters)} in “${label}”. ${facesAdvice(details.characters)}`,
    },
    overflows: {
      title: t`Does not fit its box`,
      sentence: ({ label, details }) =>
        details.characters
          ? t`The box of “${label}” is not high enough for all that is chosen: ${list(details.characters)} cannot be seen.`
          : details.lost
            ? t`The value does not fit the box of “${label}”: of its ${details.length} characters the last ${details.length! - details.limit!} cannot be seen, “${excerpt(details.lost)}”.`
            : t`The value does not fit the box of “${label}”, even in small type.`,
    },
  },
  begin: ({ templates }) => {
    if (templates.every(({ measure }) => measure === null)) return null;
    return {
      ofCopies: true,
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
            if (note.fit === 'overflows') say({ ...base, code: 'overflows', severity: 'look', details: overflow(note, base.value) });
          }
        });
      },
    };
  },
};
