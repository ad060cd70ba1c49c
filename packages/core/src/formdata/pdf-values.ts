import { MailbagError } from '../errors/catalogue.js';
import { readValues } from '../pdf/read/read.js';
import type { FormRecord } from './form-record.js';
import { setValue, textValue } from './form-record.js';

/** The values of a filled PDF as a record. @throws MailbagError pdf-*, formdata-no-fields */
export async function readFilledPdf(bytes: Uint8Array, file: string): Promise<FormRecord> {
  const record: FormRecord = new Map();
  for (const [name, value] of Object.entries(await readValues(bytes, file)))
    setValue(record, name, textValue(Array.isArray(value) ? value.join(', ') : (value ?? '')));
  if (record.size === 0) throw new MailbagError('formdata-no-fields', { file });
  return record;
}
