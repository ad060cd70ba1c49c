import type { Field } from '../pdf/field.js';
import { inReadingOrder } from '../page/reading-order.js';
import type { Answer } from './answer.js';
import type { PlacedField, PrintedForm } from './printed-form.js';
import { lineAnswers, rowAnswers } from './rows.js';
import { joinSame } from './same.js';
import { tickAnswers } from './ticks.js';

/**
 * The answers of a form: each field belongs to one of them, buttons to none.
 * @param isMonthFirst whether dates are written month, day, year where nothing tells, as on paper of the United States
 */
export function proposeAnswers(fields: readonly Field[], printed: PrintedForm, isMonthFirst: boolean): Answer[] {
  const asked = fields.filter(({ kind }) => kind !== 'button');
  const places = new Map(
    asked.flatMap((field): [string, PlacedField][] => {
      const place = printed.placeOf(field);
      return place ? [[field.name, place]] : [];
    }),
  );
  const placed = [...places.values()];
  const groups = rowAnswers(placed, printed, isMonthFirst);
  const taken = new Set(groups.flatMap(({ parts }) => parts.map(({ field }) => field)));
  groups.push(...lineAnswers(placed, taken, printed), ...tickAnswers(placed, printed));
  for (const { parts } of groups) for (const { field } of parts) taken.add(field);
  const alone = asked
    .filter(({ name }) => !taken.has(name))
    .map((field): Answer => ({
      label: field.label,
      section: field.section ?? null,
      parts: [{ field: field.name, piece: null, option: null }],
      reason: 'alone',
    }));
  // In the order in which a form is read.
  const byName = new Map(asked.map((field) => [field.name, field]));
  const place = ({ parts }: Answer): PlacedField | undefined => places.get(parts[0]!.field);
  const inOrder = [...groups, ...alone].sort((a, b) => {
    const [one, other] = [place(a), place(b)];
    if (!one || !other) return one ? -1 : other ? 1 : 0;
    return one.page - other.page || inReadingOrder(one.box, other.box);
  });
  return joinSame(inOrder, byName);
}
