import { t } from '../words/words.js';
import { MailbagError } from '../errors/catalogue.js';
import type { FormRecord } from './form-record.js';
import { setValue, textValue } from './form-record.js';

/** Objects of FDF as they are needed here: names with their slash, dictionaries as maps, references as `{ ref }`. */
type Cos = string | number | Text | Cos[] | Map<string, Cos> | { ref: number } | null;
/** A string object, in bytes. */
class Text {
  constructor(readonly bytes: readonly number[]) {}
}

const WHITE = new Set([0, 9, 10, 12, 13, 32]);
const DELIMITERS = new Set([...'()<>[]{}/%'].map((char) => char.charCodeAt(0)));
const ESCAPES: Record<string, number> = { n: 10, r: 13, t: 9, b: 8, f: 12 };
const DEEPEST = 200;

/** Reads objects one after the other (ISO 32000-2, 7.3). */
class CosReader {
  constructor(
    private readonly bytes: Uint8Array,
    public at: number,
    private depth = 0,
  ) {}
  /** Whether the file ended within an object. */
  isCut = false;

  private skip(): void {
    for (;;) {
      while (this.at < this.bytes.length && WHITE.has(this.bytes[this.at]!)) this.at++;
      if (this.bytes[this.at] !== 0x25) return;
      while (this.at < this.bytes.length && this.bytes[this.at] !== 10 && this.bytes[this.at] !== 13) this.at++;
    }
  }
  private isStray(byte: number): boolean {
    return byte === 0x29 || byte === 0x3e || byte === 0x5d || byte === 0x7b || byte === 0x7d;
  }
  private word(): string {
    let word = '';
    while (this.at < this.bytes.length && !WHITE.has(this.bytes[this.at]!) && !DELIMITERS.has(this.bytes[this.at]!))
      word += String.fromCharCode(this.bytes[this.at++]!);
    return word;
  }
  private literal(): Text {
    const out: number[] = [];
    let depth = 1;
    this.at++;
    while (this.at < this.bytes.length) {
      const byte = this.bytes[this.at++]!;
      if (byte === 0x5c) {
        const next = this.bytes[this.at++] ?? 0;
        const char = String.fromCharCode(next);
        if (/[0-7]/.test(char)) {
          let octal = char;
          while (octal.length < 3 && /[0-7]/.test(String.fromCharCode(this.bytes[this.at] ?? 0)))
            octal += String.fromCharCode(this.bytes[this.at++]!);
          out.push(Number.parseInt(octal, 8) & 255);
        } else if (next === 13) {
          if (this.bytes[this.at] === 10) this.at++;
        } else if (next !== 10) out.push(ESCAPES[char] ?? next);
        continue;
      }
      if (byte === 0x28) depth++;
      if (byte === 0x29 && --depth === 0) return new Text(out);
      // The end of a line is a line feed, however it is written; in UTF-16 half a character may look like one.
      const isWide = out[0] === 0xfe && out[1] === 0xff;
      if (byte === 13 && !isWide && this.bytes[this.at] === 10) continue;
      out.push(byte === 13 && !isWide ? 10 : byte);
    }
    this.isCut = true;
    return new Text(out);
  }
  private hex(): Text {
    this.at++;
    let digits = '';
    while (this.at < this.bytes.length && this.bytes[this.at] !== 0x3e) digits += String.fromCharCode(this.bytes[this.at++]!);
    if (this.at++ >= this.bytes.length) this.isCut = true;
    digits = digits.replace(/[^0-9A-Fa-f]/g, '');
    if (digits.length % 2) digits += '0';
    return new Text(digits.match(/../g)?.map((pair) => Number.parseInt(pair, 16)) ?? []);
  }
  /** The next object; undefined at the end or where none stands. */
  next(): Cos | undefined {
    this.skip();
    // Brackets that close nothing are passed over.
    while (this.at < this.bytes.length && this.isStray(this.bytes[this.at]!)) {
      this.at++;
      this.skip();
    }
    const byte = this.bytes[this.at];
    if (byte === undefined || this.depth > DEEPEST) return undefined;
    if (byte === 0x28) return this.literal();
    if (byte === 0x3c && this.bytes[this.at + 1] !== 0x3c) return this.hex();
    if (byte === 0x2f) {
      this.at++;
      return `/${this.word().replace(/#([0-9A-Fa-f]{2})/g, (_, hex: string) => String.fromCharCode(Number.parseInt(hex, 16)))}`;
    }
    if (byte === 0x5b || byte === 0x3c) {
      const isDict = byte === 0x3c;
      this.at += isDict ? 2 : 1;
      this.depth++;
      const items: Cos[] = [];
      for (;;) {
        this.skip();
        if (this.at >= this.bytes.length) {
          this.isCut = true;
          break;
        }
        if (this.bytes[this.at] === (isDict ? 0x3e : 0x5d)) {
          this.at += isDict ? 2 : 1;
          if (this.at > this.bytes.length) this.isCut = true;
          break;
        }
        const item = this.next();
        if (item === undefined) break;
        if (item === 'R' && typeof items.at(-2) === 'number') {
          const ref = items.at(-2) as number;
          items.splice(-2, 2, { ref });
        } else items.push(item);
      }
      this.depth--;
      if (!isDict) return items;
      const dict = new Map<string, Cos>();
      for (let index = 0; index + 1 < items.length; index += 2)
        if (typeof items[index] === 'string') dict.set(items[index] as string, items[index + 1]!);
      return dict;
    }
    const word = this.word();
    if (/^[+-]?[\d.]+$/.test(word)) return Number(word);
    return word === 'null' ? null : word;
  }
}

type Decoder = new (label: string) => { decode(bytes: Uint8Array): string };

/** A text string (ISO 32000-2, 7.9.2.2): UTF-16BE or UTF-8 by its mark, else PDFDocEncoding. */
function textOf({ bytes }: Text): string {
  const decode = (label: string): string =>
    new (globalThis as unknown as { TextDecoder: Decoder }).TextDecoder(label).decode(Uint8Array.from(bytes));
  if (bytes[0] === 0xfe && bytes[1] === 0xff) return decode('utf-16be');
  if (bytes[0] === 0xff && bytes[1] === 0xfe) return decode('utf-16le');
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) return decode('utf-8');
  return bytes.map((byte) => (byte >= 0x80 && byte <= 0xa0 ? (PDF_DOC[byte - 0x80] ?? '') : String.fromCharCode(byte))).join('');
}
/** PDFDocEncoding from 80 to A0 in hexadecimal (ISO 32000-2, annex D.3); the rest above is Latin-1. */
const PDF_DOC = [...'•†‡…—–ƒ⁄‹›−‰„“”‘’‚™ﬁﬂŁŒŠŸŽıłœšž', '', '€'];

/** Reads form data in FDF (ISO 32000-2, 12.7.8). @throws MailbagError sheet-damaged, formdata-no-fields */
export function readFdf(bytes: Uint8Array, file: string): FormRecord {
  let latin = '';
  for (let from = 0; from < bytes.length; from += 8192) latin += String.fromCharCode(...bytes.subarray(from, from + 8192));
  const objects = new Map<number, Cos>();
  const object = /(?:^|\s)(\d+)\s+\d+\s+obj\b/g;
  for (let found = object.exec(latin); found; found = object.exec(latin)) {
    const reader = new CosReader(bytes, object.lastIndex);
    objects.set(Number(found[1]), reader.next() ?? null);
    if (reader.isCut) throw new MailbagError('sheet-damaged', { file, part: t`its end` });
    object.lastIndex = Math.max(object.lastIndex, reader.at);
  }
  const resolve = (value: Cos | undefined, left = 20): Cos =>
    value !== null && typeof value === 'object' && 'ref' in value
      ? left > 0
        ? resolve(objects.get(value.ref), left - 1)
        : null
      : (value ?? null);
  const root = [...objects.values()].find((value) => value instanceof Map && value.has('/FDF'));
  const fdf = root instanceof Map ? resolve(root.get('/FDF')) : null;
  const fields = fdf instanceof Map ? resolve(fdf.get('/Fields')) : null;
  if (!Array.isArray(fields)) throw new MailbagError('sheet-damaged', { file, part: t`the list of fields` });
  const record: FormRecord = new Map();
  const shown = (value: Cos): string | null => {
    if (value instanceof Text) return textOf(value);
    if (typeof value === 'string') return value.startsWith('/') ? value.slice(1) : null;
    if (typeof value === 'number') return String(value);
    if (Array.isArray(value)) return value.flatMap((one) => shown(resolve(one)) ?? []).join(', ');
    return null;
  };
  // A field stands in one place; one that is its own descendant would be gone through for ever.
  const visited = new Set<Cos>();
  const visit = (list: Cos[], above: string[], depth: number): void => {
    for (const item of list) {
      const field = resolve(item);
      if (!(field instanceof Map) || visited.has(field)) continue;
      visited.add(field);
      const part = resolve(field.get('/T'));
      const names = part instanceof Text ? [...above, textOf(part)] : above;
      const value = shown(resolve(field.get('/V')));
      if (value !== null && names.length > 0) setValue(record, names.join('.'), textValue(value));
      const kids = resolve(field.get('/Kids'));
      if (Array.isArray(kids) && depth < DEEPEST) visit(kids, names, depth + 1);
    }
  };
  visit(fields, [], 0);
  if (record.size === 0) throw new MailbagError('formdata-no-fields', { file });
  return record;
}

const hexString = (text: string): string => {
  let out = 'FEFF';
  for (let index = 0; index < text.length; index++) out += text.charCodeAt(index).toString(16).padStart(4, '0').toUpperCase();
  return `<${out}>`;
};

/** Writes form data as FDF: full names, values as text strings. @param template file name of the form */
export function writeFdf(values: ReadonlyMap<string, string | readonly string[]>, template: string | null = null): Uint8Array {
  const fields = [...values].map(([name, value]) => {
    const shown = typeof value === 'string' ? hexString(value) : `[${value.map(hexString).join('')}]`;
    return `<</T ${hexString(name)}/V ${shown}>>`;
  });
  const form = template === null ? '' : `/F ${hexString(template)}`;
  return new TextEncoder().encode(
    `%FDF-1.2\n1 0 obj\n<</FDF<<${form}/Fields[\n${fields.join('\n')}\n]>>>>\nendobj\ntrailer\n<</Root 1 0 R>>\n%%EOF\n`,
  );
}
