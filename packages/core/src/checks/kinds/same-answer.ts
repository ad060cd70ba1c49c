import { t } from '../../words/words.js';
import { isTelling, questionWords, sameHeading } from '../../answers/same-question.js';
import { readsColumns } from '../../map/registry.js';
import type { Field } from '../../pdf/field.js';
import { fieldLabel, isFillable } from '../../pdf/field.js';
import type { FieldValue } from '../../pdf/value.js';
import type { CheckedTemplate, CheckKind } from '../check.js';

/** A field that asks what another template asks too. */
interface Place {
  template: number;
  field: Field;
}

/** Mapped fields of a template that ask something in words that none other of it has. */
function askedOnce({ fields, map }: CheckedTemplate): Map<string, Field> {
  const asked = new Map<string, Field | null>();
  for (const field of fields) {
    if (!isFillable(field) || !Object.hasOwn(map, field.name) || field.labelFrom === 'name') continue;
    const words = questionWords(field, map[field.name]!.kind === 'piece');
    if (words !== '') asked.set(words, asked.has(words) ? null : field);
  }
  return new Map([...asked].flatMap(([words, field]) => (field ? [[words, field] as const] : [])));
}

/** Pairs of fields of different templates that ask the same and are filled by different rules. */
function pairsOf(templates: readonly CheckedTemplate[]): [Place, Place][] {
  const asked = templates.map(askedOnce);
  return asked.flatMap((own, template) =>
    [...own].flatMap(([words, field]) => {
      // Each is compared with the first one that asks it.
      const first = asked.findIndex((one) => one.has(words));
      if (first === template) return [];
      const other = asked[first]!.get(words)!;
      const isSameRule = JSON.stringify(templates[template]!.map[field.name]) === JSON.stringify(templates[first]!.map[other.name]);
      const isOne = sameHeading(field.section, other.section) === 'same' || isTelling(field);
      return isSameRule || !isOne
        ? []
        : [
            [
              { template: first, field: other },
              { template, field },
            ] as [Place, Place],
          ];
    }),
  );
}

const words = (value: FieldValue | undefined): string =>
  value === undefined || value === false ? '' : value === true ? 'ticked' : Array.isArray(value) ? value.join(', ') : value.trim();

/** What several templates of a packet ask in the same words is answered alike in all of them. */
export const sameAnswer: CheckKind = {
  order: 245,
  findings: {
    'said-differently': {
      title: t`Two templates say different things`,
      sentence: ({ label, value, details }) =>
        t`“${label}” would say “${value}” here and “${details.why}” in another template of the packet. Fill both by one rule, or accept it if they ask different things.`,
    },
  },
  begin: ({ templates }) => {
    const pairs = pairsOf(templates);
    if (pairs.length === 0) return null;
    return {
      see({ row, evaluations }, say) {
        for (const [first, second] of pairs) {
          const [one, two] = [first, second].map(({ template, field }) => words(evaluations[template]?.values[field.name]));
          if (one === '' || two === '' || one === two) continue;
          const rule = templates[second.template]!.map[second.field.name]!;
          say({
            code: 'said-differently',
            severity: 'look',
            row: row.row,
            column: readsColumns(rule)[0] ?? null,
            template: second.template,
            field: second.field.name,
            label: fieldLabel(second.field),
            value: two!,
            details: { why: one! },
          });
        }
      },
    };
  },
};
