import { inspectTemplate } from './inspect.js';

/**
 * The values that a filled form holds, by field name: text, on-value or chosen options; null: none.
 * @throws MailbagError as `inspectTemplate`; a flattened copy has no fields left
 */
export async function readValues(bytes: Uint8Array, file = 'The file', password = ''): Promise<Record<string, string | string[] | null>> {
  const { fields } = await inspectTemplate(bytes, file, password);
  return Object.fromEntries(fields.map((field) => [field.name, field.value]));
}
