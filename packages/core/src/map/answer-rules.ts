import type { Answer } from '../answers/answer.js';
import { same } from '../editing/changes.js';
import type { Json } from '../editing/changes.js';
import type { Field } from '../pdf/field.js';
import type { FieldMap } from './field-map.js';
import type { PieceRule } from './kinds/piece.js';
import type { FillRule } from './registry.js';
import { makesValue } from './registry.js';

/** Width of a letter of ten points in the middle, by which the room of a line without a limit is told (common practice, no source). */
const LETTER = 5;

/** Whether the boxes of an answer take pieces of it, or ticks that stand for it, so that one rule is cut up for them. */
const isCut = ({ parts }: Answer): boolean => parts.length > 1 && parts.every(({ piece, option }) => piece !== null || option !== null);

const roomOf = ({ maxLength, widgets }: Field): number =>
  maxLength ?? Math.max(1, Math.floor((widgets[0] ? widgets[0].rect[2] - widgets[0].rect[0] : 100) / LETTER));

/** The rules of all boxes of an answer, of one rule that gives the whole of it. */
export function rulesOfAnswer(answer: Answer, whole: FillRule, fields: ReadonlyMap<string, Field>): FieldMap {
  const { parts } = answer;
  if (!isCut(answer) || whole.kind === 'blank') return Object.fromEntries(parts.map(({ field }) => [field, whole]));
  if (!makesValue(whole)) return {};
  const own = parts.map(({ field }) => fields.get(field)!);
  return Object.fromEntries(
    parts.map(({ field, piece, option }, index): [string, PieceRule] => {
      if (option) {
        const among = parts.flatMap((one) => one.option ?? []);
        return [field, { kind: 'piece', of: whole, box: { option, among, isSeveral: answer.reason === 'some-of' } }];
      }
      return [
        field,
        {
          kind: 'piece',
          of: whole,
          box: {
            piece: piece!,
            isLast: index === parts.length - 1,
            ...(piece!.what === 'line' && { rooms: own.map(roomOf) }),
            ...(piece!.what === 'year' && own[index]!.maxLength === 2 && { digits: 2 }),
          },
        },
      ];
    }),
  );
}

/** The one rule of which all boxes of an answer take their piece; null: they have none, or different ones. */
export function wholeRuleOf({ parts }: Answer, map: FieldMap): FillRule | null {
  const wholes = parts.map(({ field, piece, option }) => {
    const rule = Object.hasOwn(map, field) ? map[field] : undefined;
    if ((piece === null && option === null) || rule?.kind === 'blank') return rule;
    return rule?.kind === 'piece' ? rule.of : undefined;
  });
  const [first] = wholes;
  return first && wholes.every((one) => one !== undefined && same(one as unknown as Json, first as unknown as Json)) ? first : null;
}

/** A field that stands for a whole answer where a rule is chosen or suggested for it. */
export function answerField(answer: Answer, fields: ReadonlyMap<string, Field>): Field {
  const first = fields.get(answer.parts[0]!.field)!;
  const label = answer.label ?? first.label;
  if (!isCut(answer)) return { ...first, label, tooltip: null, ...(label !== null && { labelFrom: 'print' as const }) };
  return {
    ...first,
    kind: 'text',
    label,
    tooltip: null,
    ...(label !== null && { labelFrom: 'print' as const }),
    flags: first.flags.filter((flag) => flag === 'required'),
    maxLength: null,
    options: [],
    onValues: [],
    format: null,
  };
}
