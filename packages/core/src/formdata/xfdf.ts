import { MailbagError } from '../errors/catalogue.js';
import { parseXml } from '../tables/xml-part.js';
import type { FormRecord } from './form-record.js';
import { escapeXml } from './escape-xml.js';
import { setValue, textValue } from './form-record.js';

/**
 * Reads form data in XFDF (ISO 19444-1, 6.2 and 6.3): fields nested by their partial names, several values joined.
 * @throws MailbagError sheet-damaged, formdata-no-fields
 */
export async function readXfdf(bytes: Uint8Array, file: string): Promise<FormRecord> {
  const record: FormRecord = new Map();
  const names: string[] = [];
  /** Values of the fields that are open, one list a depth. */
  const values: string[][] = [];
  let inFields = 0;
  let text: string | null = null;
  let inRichText = 0;
  await parseXml([bytes], file, 'the form data', {
    open(name, attributes) {
      if (name === 'fields') inFields++;
      else if (inFields > 0 && name === 'field') {
        names.push(attributes.name ?? '');
        values.push([]);
      } else if (inFields > 0 && (name === 'value' || name === 'value-richtext')) {
        text = '';
        if (name === 'value-richtext') inRichText++;
      } else if (inRichText > 0 && name === 'p' && text) text += '\n';
    },
    text(piece) {
      if (text !== null) text += piece;
    },
    close(name) {
      if (name === 'fields') inFields--;
      else if (text !== null && (name === 'value' || name === 'value-richtext')) {
        if (name === 'value-richtext') inRichText--;
        const all = values.at(-1);
        // A field with both has the same value in rich text again.
        if (all && (name === 'value' || all.length === 0)) all.push(text);
        text = null;
      } else if (inFields > 0 && name === 'field') {
        const own = values.pop() ?? [];
        const full = names.filter((part) => part !== '').join('.');
        names.pop();
        if (own.length > 0 && full) setValue(record, full, textValue(own.join(', ')));
      }
    },
  });
  if (record.size === 0) throw new MailbagError('formdata-no-fields', { file });
  return record;
}

interface Branch {
  values: readonly string[];
  kids: Map<string, Branch>;
}

/** Writes form data as XFDF. @param template file name of the form, for programs that open it with the data */
export function writeXfdf(values: ReadonlyMap<string, string | readonly string[]>, template: string | null = null): Uint8Array {
  const root: Branch = { values: [], kids: new Map() };
  for (const [name, value] of values) {
    let branch = root;
    for (const part of name.split('.')) {
      let kid = branch.kids.get(part);
      if (!kid) branch.kids.set(part, (kid = { values: [], kids: new Map() }));
      branch = kid;
    }
    branch.values = typeof value === 'string' ? [value] : value;
  }
  const write = ({ values: own, kids }: Branch): string =>
    own.map((value) => `<value>${escapeXml(value)}</value>`).join('') +
    [...kids].map(([name, kid]) => `<field name="${escapeXml(name)}">${write(kid)}</field>`).join('\n');
  const form = template === null ? '' : `<f href="${escapeXml(template)}"/>\n`;
  return new TextEncoder().encode(
    `<?xml version="1.0" encoding="UTF-8"?>\n<xfdf xmlns="http://ns.adobe.com/xfdf/" xml:space="preserve">\n${form}<fields>\n${write(root)}\n</fields>\n</xfdf>\n`,
  );
}
