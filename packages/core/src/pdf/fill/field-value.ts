import type { CompiledTemplate } from '../plan/compile.js';
import { utf16 } from './composite-font.js';
import type { Field } from '../field.js';
import { hexOf } from '../hex.js';
import { calculate } from '../read/scripts/calculation.js';
import { applyFormat } from '../read/scripts/script.js';
import type { FieldValue, FieldValues } from '../value.js';

/** The on-value that a value of a button stands for; null: off. A value which the field does not know is off too. */
export function stateFor(field: Field, value: FieldValue | null): string | null {
  if (value === true) return field.onValues[0] ?? null;
  if (value === false || value === null || Array.isArray(value) || value === '' || value === 'Off') return null;
  if (field.onValues.includes(value)) return value;
  const option = field.options.findIndex((one) => one.value === value || one.label === value);
  return option >= 0 ? (field.widgets[option]?.onValue ?? field.onValues[option] ?? null) : null;
}

const optionOf = (field: Field, text: string) =>
  field.options.find((option) => option.value === text) ?? field.options.find((option) => option.label === text);

/** The text shown for a value: an option's display value for its export value. */
export function shownText(field: Field, value: FieldValue | null): string {
  const text = Array.isArray(value) ? value.join(', ') : value === null || typeof value === 'boolean' ? '' : value;
  if (field.kind === 'text') return field.isPassword ? '*'.repeat([...text].length) : field.format ? applyFormat(field.format, text) : text;
  const shown = optionOf(field, text)?.label ?? text;
  return field.format ? applyFormat(field.format, shown) : shown;
}

/** The value of a field; undefined where there is none. What every object has from its prototype is none. */
export function valueIn(values: FieldValues, name: string): FieldValue | undefined {
  const value = values[name];
  return typeof value === 'string' || typeof value === 'boolean' || Array.isArray(value) ? value : undefined;
}

/**
 * A text string (ISO 32000-2, 7.9.2.2) in hexadecimal: plain ASCII as it is, everything else as UTF-16BE. There the escape character begins
 * the name of a language, and readers leave out what follows it; without it the rest stays whole.
 */
export const textString = (text: string): string =>
  /^[\u0020-\u007e\t\r\n]*$/.test(text)
    ? `<${hexOf(Uint8Array.from(text, (char) => char.charCodeAt(0)))}>`
    : `<feff${utf16(text.replaceAll('\u001b', ''))}>`;

const utf8 = new TextEncoder();

/** A name (ISO 32000-2, 7.3.5): bytes of UTF-8, those which are no regular characters escaped. */
export const nameObject = (text: string): string =>
  `/${Array.from(utf8.encode(text), (byte) => (/[A-Za-z0-9_.+:@*-]/.test(String.fromCharCode(byte)) ? String.fromCharCode(byte) : `#${byte.toString(16).padStart(2, '0')}`)).join('')}`;

/** Export values that a choice field holds for a value; none for an empty one. */
export function chosenValues(field: Field, value: FieldValue | null): string[] {
  if (value === null || typeof value === 'boolean') return [];
  const chosen = (Array.isArray(value) ? value : [value]).map((one) => optionOf(field, one)?.value ?? one);
  return chosen.length === 1 && chosen[0] === '' ? [] : chosen;
}

/** The value of a field as it stands in its dictionary. */
export function valueEntries(field: Field, value: FieldValue | null): string {
  if (field.kind === 'checkbox' || field.kind === 'radio') return `/V${nameObject(stateFor(field, value) ?? 'Off')}`;
  if (value === null || typeof value === 'boolean') return '';
  if (field.kind === 'text') return `/V${textString(Array.isArray(value) ? value.join('\n') : value)}`;
  const chosen = chosenValues(field, value);
  const places = chosen.map((one) => field.options.findIndex((option) => option.value === one)).filter((at) => at >= 0);
  const indexes = field.kind === 'list' && places.length > 0 ? `/I[${[...new Set(places)].sort((a, b) => a - b).join(' ')}]` : '';
  if (chosen.length === 0) return '';
  return `/V${chosen.length === 1 ? textString(chosen[0]!) : `[${chosen.map(textString).join('')}]`}${indexes}`;
}

/** A value as a calculation reads it (the published PDF script API, Field.value): of choices the export value, of ticks the on-value or Off. */
function readByScript(field: Field, value: FieldValue | null): string | null {
  if (field.kind === 'checkbox' || field.kind === 'radio') return stateFor(field, value) ?? 'Off';
  if (field.kind === 'combo' || field.kind === 'list') return chosenValues(field, value)[0] ?? '';
  return typeof value === 'string' ? value : null;
}

/**
 * The values with those that the form's author has worked out from others and that nobody gave. What they are worked out from is what the copy will hold: the
 * record's values, and the template's own where the record says nothing. Nothing is worked out where none of it has a value and none was given.
 */
export function withCalculated({ description, fields, calculated }: CompiledTemplate, values: FieldValues): FieldValues {
  if (calculated.length === 0) return values;
  const all: FieldValues = { ...values };
  const names = description.fields.map((field) => field.name);
  const textOf = (name: string): string | null => {
    const field = fields.get(name);
    const given = valueIn(all, name);
    return field ? readByScript(field, given === undefined ? field.value : given) : null;
  };
  for (const field of calculated) {
    if (valueIn(values, field.name) !== undefined) continue;
    const { fields: inputs } = field.calculation!;
    const isConcerned = names.some(
      (name) => valueIn(all, name) !== undefined && inputs.some((input) => name === input || name.startsWith(`${input}.`)),
    );
    const result = calculate(field.calculation!, names, textOf);
    if (result !== '' || isConcerned) all[field.name] = result;
  }
  return all;
}
