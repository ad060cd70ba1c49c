import { t } from '../words/words.js';
import { MailbagError } from '../errors/catalogue.js';
import { parseXml } from '../tables/xml-part.js';
import type { FormRecord } from './form-record.js';
import { setValue, textValue } from './form-record.js';
import { escapeXml } from './escape-xml.js';

interface Element {
  name: string;
  attributes: Record<string, string>;
  kids: Element[];
  text: string;
}

const MOST_ELEMENTS = 5_000_000;
/** UTF-16 units of a name. */
const LONGEST_NAME = 1000;

/** `<field name="…">value</field>`: a value under a name that is no name of XML. */
const isNamedValue = ({ name, attributes, kids }: Element): boolean =>
  name === 'field' && Object.keys(attributes).length === 1 && attributes.name !== undefined && kids.length === 0;

/** Values of an element by their path below it. */
function flatten(element: Element, path: string, record: FormRecord): void {
  for (const [name, value] of Object.entries(element.attributes))
    if (!name.startsWith('xmlns')) setValue(record, path ? `${path}.${name}` : name, textValue(value));
  const text = element.text.trim();
  if (path && (text || element.kids.length === 0)) setValue(record, path, textValue(element.kids.length === 0 ? element.text : text));
  for (const kid of element.kids)
    if (isNamedValue(kid)) setValue(record, kid.attributes.name!, textValue(kid.text));
    else flatten(kid, path ? `${path}.${kid.name}` : kid.name, record);
}

/** The elements that are records: those that stand most often side by side, as near to the root as can be. */
function recordElements(root: Element): Element[] {
  let level: Element = root;
  for (let depth = 0; depth < 5; depth++) {
    const byName = new Map<string, Element[]>();
    for (const kid of level.kids.filter((one) => !isNamedValue(one))) {
      const same = byName.get(kid.name);
      if (same) same.push(kid);
      else byName.set(kid.name, [kid]);
    }
    const [limit] = [...byName.values()].sort((a, b) => b.length - a.length);
    if (limit && limit.length > 1 && limit.some(({ kids, attributes }) => kids.length > 0 || Object.keys(attributes).length > 0))
      return limit;
    if (level.kids.length !== 1) break;
    level = level.kids[0]!;
  }
  return [root];
}

/** Reads records from XML of any make: repeated elements are records, what is in them are their values. @throws MailbagError sheet-damaged, formdata-no-fields */
export async function readXml(bytes: Uint8Array, file: string): Promise<FormRecord[]> {
  const top: Element = { name: '', attributes: {}, kids: [], text: '' };
  const open: Element[] = [top];
  let count = 0;
  await parseXml([bytes], file, 'the form data', {
    open(name, attributes) {
      if (name.length > LONGEST_NAME) throw new MailbagError('sheet-damaged', { file, part: t`an element with an endless name` });
      if (++count > MOST_ELEMENTS) throw new MailbagError('sheet-too-large', { file, limitMb: 200 });
      const element: Element = { name, attributes: { ...attributes }, kids: [], text: '' };
      open.at(-1)!.kids.push(element);
      open.push(element);
    },
    text(text) {
      open.at(-1)!.text += text;
    },
    close() {
      open.pop();
    },
  });
  const root = top.kids[0];
  const records = root
    ? recordElements(root).map((element) => {
        const record: FormRecord = new Map();
        flatten(element, '', record);
        return record;
      })
    : [];
  if (!records.some((record) => record.size > 0)) throw new MailbagError('formdata-no-fields', { file });
  return records;
}

/** Writes one record as XML, a named value for each field, so that more can be put behind it and all of them read again. */
export function writeXml(values: ReadonlyMap<string, string | readonly string[]>): Uint8Array {
  const lines = [...values].map(
    ([name, value]) => `<field name="${escapeXml(name)}">${escapeXml(typeof value === 'string' ? value : value.join(', '))}</field>`,
  );
  return new TextEncoder().encode(
    `<?xml version="1.0" encoding="UTF-8"?>\n<records>\n<record>\n${lines.join('\n')}\n</record>\n</records>\n`,
  );
}
