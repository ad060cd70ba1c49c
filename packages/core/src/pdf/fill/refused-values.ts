import { MailbagError } from '../../errors/catalogue.js';
import type { Field } from '../field.js';
import { acceptedValues, isButtonWithStates } from '../field.js';
import { graphemeCount } from '../../text/graphemes.js';
import { stateFor } from './field-value.js';
import { formatFault } from '../read/scripts/script.js';
import type { FieldValue, FieldValues } from '../value.js';

function refusal(field: Field, value: FieldValue): MailbagError | null {
  if (field.kind === 'button' || field.kind === 'signature')
    return new MailbagError('value-not-fillable', { field: field.name, kind: field.kind });
  const isOff = value === false || value === '' || value === 'Off' || (Array.isArray(value) && value.length === 0);
  if (isOff) return null;
  const accepted = acceptedValues(field);
  if (isButtonWithStates(field)) {
    return typeof value !== 'object' && stateFor(field, value) !== null
      ? null
      : new MailbagError('value-not-accepted', { field: field.name, value: String(value), accepted });
  }
  if (typeof value === 'boolean') return new MailbagError('value-not-accepted', { field: field.name, value: String(value), accepted });
  const texts = Array.isArray(value) ? value : [value];
  if (field.kind === 'text') {
    const text = texts.join('\n');
    const length = graphemeCount(text.normalize('NFC'));
    if (field.maxLength !== null && length > field.maxLength)
      return new MailbagError('value-too-long', { field: field.name, limit: field.maxLength, length });
    const why = field.format && 'pattern' in field.format ? formatFault(field.format, text) : null;
    // Text such as “on request” is shown as it is; a time is no date, and a date no time.
    return why && /^[\d:.\s/-]+$/.test(text) ? new MailbagError('value-format', { field: field.name, value: text, why }) : null;
  }
  if (texts.length > 1 && !field.flags.includes('multiSelect')) {
    return new MailbagError('value-one-option', { field: field.name, count: texts.length });
  }
  if (field.flags.includes('edit')) return null;
  const wrong = texts.find((text) => !field.options.some((option) => option.value === text || option.label === text));
  return wrong === undefined ? null : new MailbagError('value-not-accepted', { field: field.name, value: wrong, accepted });
}

/** Why values cannot go into a template as they are: all reasons at once. Empty: they can. */
export function refusedValues(fields: readonly Field[], values: FieldValues): MailbagError[] {
  const byName = new Map(fields.map((field) => [field.name, field]));
  return Object.entries(values).flatMap(([name, value]) => {
    const field = byName.get(name);
    const found = field ? refusal(field, value) : new MailbagError('pdf-field-unknown', { field: name });
    return found ?? [];
  });
}
