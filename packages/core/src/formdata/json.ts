import { t } from '../words/words.js';
import { MailbagError } from '../errors/catalogue.js';
import type { Cell } from '../tables/record.js';
import { isoDate } from '../tables/typed-text.js';
import { nestingOf } from '../text/nesting.js';
import type { FormRecord } from './form-record.js';
import { setValue } from './form-record.js';

type Json = string | number | boolean | null | Json[] | { [name: string]: Json };
const isObject = (value: Json | undefined): value is { [name: string]: Json } =>
  typeof value === 'object' && value !== null && !Array.isArray(value);

const cellOf = (value: Exclude<Json, Json[] | object>): Cell => {
  if (value === null) return { text: '', value: null };
  if (typeof value === 'string') return { text: value, value: value === '' ? null : (isoDate(value) ?? value) };
  return { text: String(value), value };
};

/** Levels of names within a record that become columns, and levels that are read at all. */
const DEEPEST = 6;
const DEEPEST_READ = 100;

function flatten(value: Json, path: string, record: FormRecord, depth: number, leftOut: Set<string>): void {
  if (Array.isArray(value)) {
    if (value.every((one) => typeof one !== 'object' || one === null)) {
      const text = value.map((one) => String(one ?? '')).join(', ');
      return setValue(record, path, { text, value: text === '' ? null : text });
    }
    return value.forEach((one, index) => flatten(one, `${path} ${index + 1}`, record, depth + 1, leftOut));
  }
  if (!isObject(value)) return setValue(record, path, cellOf(value));
  if (depth > DEEPEST) return void leftOut.add(path);
  for (const [name, one] of Object.entries(value)) flatten(one, path ? `${path}.${name}` : name, record, depth + 1, leftOut);
}

/** The list of records in a value: itself, or the first list of objects in it. */
function listOf(value: Json, depth = 0): Json[] | null {
  if (Array.isArray(value)) return value.some(isObject) ? value : null;
  if (!isObject(value) || depth > 3) return null;
  for (const one of Object.values(value)) {
    const found = listOf(one, depth + 1);
    if (found && found.length > 1) return found;
  }
  return null;
}

/** Whole numbers too long for a double, outside of strings, come in as strings, so that no digit is lost. */
const keepDigits = (text: string): string =>
  text.replace(/"(?:[^"\\]|\\.)*"?|-?\d[\d.eE+-]*/g, (piece) => (/^-?\d{16,}$/.test(piece) ? `"${piece}"` : piece));

/**
 * Reads records from JSON: a list of objects wherever it lies, or one object. Values deeper inside get names with dots.
 * `{ "values": … }` as Mailbag itself writes is one record of its values.
 * @throws MailbagError sheet-damaged, formdata-no-fields
 */
export function readJson(text: string, file: string): { records: FormRecord[]; leftOut: string[] } {
  if (nestingOf(text, DEEPEST_READ) > DEEPEST_READ)
    throw new MailbagError('sheet-damaged', { file, part: t`its JSON (more than ${DEEPEST_READ} lists within one another)` });
  let value: Json;
  try {
    value = JSON.parse(keepDigits(text)) as Json;
  } catch (error) {
    throw new MailbagError('sheet-damaged', { file, part: t`its JSON (${error instanceof Error ? error.message : String(error)})` });
  }
  const only = isObject(value) && Object.keys(value).length === 1 && isObject(value.values) ? value.values : value;
  const list = listOf(only) ?? (isObject(only) ? [only] : []);
  const leftOut = new Set<string>();
  const records = list.filter(isObject).map((one) => {
    const record: FormRecord = new Map();
    flatten(one, '', record, 0, leftOut);
    return record;
  });
  if (!records.some((record) => record.size > 0)) throw new MailbagError('formdata-no-fields', { file });
  return { records, leftOut: [...leftOut] };
}
