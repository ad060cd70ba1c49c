import type { Answer } from '../answers/answer.js';
import { joinedPieces } from '../answers/split-answer.js';
import { MailbagError } from '../errors/catalogue.js';
import { inspectTemplate } from '../pdf/read/inspect.js';
import type { FormRecord } from './form-record.js';
import { setValue, textValue } from './form-record.js';

/** The value of an answer that stands over several boxes, in one; null: nothing is filled in, or it is no such answer. */
function wholeValue({ parts }: Answer, values: ReadonlyMap<string, string>): string | null {
  if (parts.length < 2) return null;
  if (parts.every(({ piece }) => piece !== null))
    return joinedPieces(parts.map(({ field, piece }) => ({ piece, value: values.get(field) ?? '' })));
  if (!parts.every(({ option }) => option !== null)) return null;
  const set = parts.flatMap(({ field, option }) => (['', 'Off'].includes(values.get(field) ?? '') ? [] : [option!.label]));
  return set.length > 0 ? set.join(', ') : null;
}

/**
 * The values of a filled PDF as a record: by the names of its fields, and what stands over several boxes once more as a whole, by what a person calls it.
 * @throws MailbagError pdf-*, formdata-no-fields
 */
export async function readFilledPdf(bytes: Uint8Array, file: string): Promise<FormRecord> {
  const { fields, answers = [] } = await inspectTemplate(bytes, file);
  const record: FormRecord = new Map();
  const values = new Map(fields.map(({ name, value }) => [name, Array.isArray(value) ? value.join(', ') : (value ?? '')]));
  for (const [name, value] of values) setValue(record, name, textValue(value));
  if (record.size === 0) throw new MailbagError('formdata-no-fields', { file });
  for (const answer of answers) {
    if (answer.label === null || answer.parts.length < 2 || !answer.parts.every(({ piece, option }) => piece !== null || option !== null))
      continue;
    setValue(record, answer.label, textValue(wholeValue(answer, values) ?? ''));
  }
  return record;
}
