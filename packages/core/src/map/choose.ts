import { acceptedValues, isButtonWithStates, isChoice } from '../pdf/field.js';
import type { Field } from '../pdf/field.js';
import type { Cell } from '../tables/record.js';
import { blankFor } from './rule.js';
import type { RuleResult } from './rule.js';

/** Text for comparing: case, stray and double spaces do not count. */
export const normalised = (text: string): string =>
  text
    .replace(/[\s\u00a0]+/g, ' ')
    .trim()
    .toLowerCase();

/** The first of several things that go by a name, by the names as they are compared. */
export function byNormalised<T>(entries: Iterable<readonly [name: string, thing: T]>): ReadonlyMap<string, T> {
  const found = new Map<string, T>();
  for (const [name, thing] of entries) {
    const key = normalised(name);
    if (!found.has(key)) found.set(key, thing);
  }
  return found;
}

/** Values of choices and buttons by their names. A batch asks for the same fields again and again. */
const valuesOf = new WeakMap<Field, ReadonlyMap<string, string>>();

function namedValues(field: Field): ReadonlyMap<string, string> {
  let known = valuesOf.get(field);
  if (!known) {
    const { options, onValues } = field;
    known = isButtonWithStates(field)
      ? byNormalised(onValues.flatMap((on, at) => [[on, on] as const, [options[at]?.label ?? on, on] as const]))
      : byNormalised([
          ...options.map(({ label, value }) => [label, value] as const),
          ...options.map(({ value }) => [value, value] as const),
        ]);
    valuesOf.set(field, known);
  }
  return known;
}

/** Text as the value of a field: an option by its display or export value, a button by its on-value. Anything else is untranslated. */
export function chooseValue(field: Field, text: string, column: string): RuleResult {
  if (text.trim() === '') return { value: blankFor(field) };
  const isButton = isButtonWithStates(field);
  if (!isButton && !isChoice(field)) return { value: text };
  const wanted = normalised(text);
  if (isButton && wanted === 'off') return { value: false };
  const value = namedValues(field).get(wanted);
  if (value !== undefined) return { value: field.kind === 'list' ? [value] : value };
  if (!isButton && field.flags.includes('edit')) return { value: text };
  return { value: blankFor(field), untranslated: { column, text, accepted: acceptedValues(field) } };
}

const ISO = /^\d{4}-\d{2}-\d{2}([T ]\d{2}:\d{2}(:\d{2})?)?$|^\d{2}:\d{2}(:\d{2})?$/;

/**
 * The text of a cell for a field. One with a format of its own is given the typed value, which is read in one way only: “3/5/2027” may be in March or in May,
 * and “1,5” one and a half or fifteen.
 */
function textFor(field: Field, { text, value }: Cell): string {
  const { format } = field;
  if (!format || 'which' in format) return text;
  if ('pattern' in format) return typeof value === 'string' && ISO.test(value) ? value : text;
  return typeof value === 'number' ? String(value) : text;
}

/** A cell as the value of a field. @param columns where it comes from, asked only when it is not accepted */
export function takeCell(field: Field, cell: Cell, columns: () => string): RuleResult {
  const result = chooseValue(field, textFor(field, cell), '');
  return result.untranslated ? { ...result, untranslated: { ...result.untranslated, column: columns() } } : result;
}
