import { MailbagError } from '../../errors/catalogue.js';
import type { FieldOption } from '../field.js';
import type { DrawnField } from './drawn-field.js';
import { drawnFaces, drawnField, drawnKinds } from './drawn-field.js';

const record = (given: unknown): Record<string, unknown> =>
  typeof given === 'object' && given !== null ? (given as Record<string, unknown>) : {};
const textOr = <Other>(given: unknown, other: Other): string | Other => (typeof given === 'string' && given.trim() !== '' ? given : other);
const numberOr = <Other>(given: unknown, other: Other): number | Other =>
  typeof given === 'number' && Number.isFinite(given) ? given : other;
const oneOf = <Word extends string>(given: unknown, words: readonly Word[]): Word | undefined => words.find((word) => word === given);

function options(given: unknown): FieldOption[] {
  return Array.isArray(given)
    ? given.flatMap((one): FieldOption[] => {
        if (typeof one === 'string') return [{ value: one, label: one }];
        const { say, label, value } = record(one);
        const text = textOr(say, textOr(label, textOr(value, null)));
        return text === null ? [] : [{ value: textOr(value, text), label: text }];
      })
    : [];
}

/** Red, green and blue from 0 to 1; anything else is black. */
function colour(given: unknown): DrawnField['colour'] {
  const parts = Array.isArray(given) ? given.map((part) => Math.min(1, Math.max(0, numberOr(part, NaN)))) : [];
  return parts.length === 3 && !parts.some(Number.isNaN) ? (parts as DrawnField['colour']) : [0, 0, 0];
}

/** Reads one field to be drawn. @param index its place in a list, from 0 @throws MailbagError layout-no-name, layout-kind, layout-no-size */
export function readDrawnField(given: unknown, index: number): DrawnField {
  const field = record(given);
  const name = textOr(field['name'], null)?.trim();
  if (!name) throw new MailbagError('layout-no-name', { number: index + 1 });
  const kind = oneOf(field['kind'], drawnKinds);
  if (!kind) throw new MailbagError('layout-kind', { field: name, kind: String(field['kind'] ?? ''), kinds: drawnKinds });
  const rect = Array.isArray(field['rect']) ? field['rect'].map((side) => numberOr(side, NaN)) : [];
  if (rect.length !== 4 || rect.some(Number.isNaN)) throw new MailbagError('layout-no-size', { field: name });
  const [a, b, c, d] = rect as [number, number, number, number];
  const cells = numberOr(field['cells'], null);
  const align = textOr(field['align'], 'left');
  return drawnField({
    name,
    kind,
    page: numberOr(field['page'], 1),
    rect: [Math.min(a, c), Math.min(b, d), Math.max(a, c), Math.max(b, d)],
    cells: kind === 'comb' ? (cells ?? numberOr(field['limit'], null)) : null,
    label: textOr(field['label'], null),
    tooltip: textOr(field['tooltip'], null),
    required: field['required'] === true,
    limit: numberOr(field['limit'], null),
    options: options(field['options']),
    value: textOr(field['value'], null),
    font: oneOf(field['font'], Object.keys(drawnFaces) as (keyof typeof drawnFaces)[]) ?? 'Helvetica',
    size: Math.max(0, numberOr(field['size'], 0)),
    align: align === 'center' ? 'centre' : (oneOf(align, ['left', 'centre', 'right'] as const) ?? 'left'),
    colour: colour(field['colour']),
    border: field['border'] === true,
  });
}

/**
 * Reads a list of fields to be drawn, as `mailbag blanks` prints it with a name for each.
 * @throws MailbagError layout-not-a-list, layout-no-name, layout-kind, layout-no-size
 */
export function readLayout(given: unknown): DrawnField[] {
  if (!Array.isArray(given)) throw new MailbagError('layout-not-a-list', {});
  return given.map(readDrawnField);
}
