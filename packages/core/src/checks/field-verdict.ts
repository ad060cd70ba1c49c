import type { Evaluation } from '../map/field-map.js';
import type { FillRule } from '../map/registry.js';
import type { Field } from '../pdf/field.js';
import { isRequired } from '../pdf/field.js';
import type { FieldValue, FieldValues, FillNote } from '../pdf/value.js';
import { graphemeCount } from '../text/graphemes.js';

/** Whether nothing stands in a field: no text but spaces, no tick (ISO 32000-2, 12.7.5.2.3: Off), nothing chosen. */
export const isBlank = (value: FieldValue | null | undefined): boolean =>
  value === undefined ||
  value === null ||
  value === false ||
  value === 'Off' ||
  (typeof value === 'string' && value.trim() === '') ||
  (Array.isArray(value) && value.length === 0);

/** What will stand in a field: the value that is made for it, or else the template's own. */
export const valueToStand = (field: Pick<Field, 'name' | 'value'>, values: FieldValues): FieldValue | null =>
  Object.hasOwn(values, field.name) ? values[field.name]! : field.value;

/** Characters of a value as a field counts them (ISO 32000-2, 12.7.5.3, MaxLen), where it has more than the field takes; null: it has not. */
export function lengthOver(maxLength: number | null, value: FieldValue | null | undefined): number | null {
  if (typeof value !== 'string' || maxLength === null) return null;
  const count = graphemeCount(value.normalize('NFC'));
  return count > maxLength ? count : null;
}

/**
 * How a field stands for one record, the worst first: no value can be made of the record's; it must be filled and is not; characters cannot be drawn; more
 * characters than it takes; more than its box shows; only in smaller type; no rule fills it; its rule leaves it blank; all is well.
 */
export type FieldVerdict = 'untranslated' | 'required' | 'cannot-draw' | 'too-long' | 'overflows' | 'tight' | 'open' | 'blank' | 'fits';

/**
 * Judges a field as the checks of a batch do.
 * @param evaluation what the map makes of a record; null: there is no record yet
 * @param notes how values were laid out, of this field and of others
 */
export function fieldVerdict(
  field: Field,
  rule: FillRule | undefined,
  evaluation: Evaluation | null,
  notes: readonly FillNote[],
): FieldVerdict {
  const values = evaluation?.values ?? {};
  const note = notes.find((one) => one.field === field.name);
  if (evaluation?.problems.some((problem) => problem.field === field.name)) return 'untranslated';
  if (isRequired(field) && (evaluation || !rule) && isBlank(valueToStand(field, values))) return 'required';
  if (note && note.characters.length > 0) return 'cannot-draw';
  if (lengthOver(field.maxLength, values[field.name]) !== null) return 'too-long';
  if (note?.fit === 'overflows' || note?.fit === 'tight') return note.fit;
  if (!rule) return 'open';
  return isBlank(values[field.name]) ? 'blank' : 'fits';
}
