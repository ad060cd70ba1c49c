import { PDFRef, PDFStream } from '@cantoo/pdf-lib';
import type { CompiledTemplate } from './compile.js';
import { dictEntry } from './document.js';
import { openPdf } from './document.js';
import type { FillNote } from './fill.js';
import { shownTexts, stateFor } from './fill.js';
import { readToUnicode } from './content/to-unicode.js';
import type { TextFont } from './content/text-font.js';
import { textFont } from './content/text-font.js';
import { pageText } from './content/page-text.js';
import type { FieldValues } from './value.js';

/** What does not stand in a copy as it was meant. */
export interface Difference {
  /** The field, or empty where the file itself is wrong. */
  field: string;
  /** What is wrong, to be put behind a colon. */
  what: string;
}

const latin1 = new TextDecoder('latin1');
/** Characters that leave no mark: white space, direction marks, joiners, the soft hyphen, variation selectors. */
const isUnseen = (code: number): boolean =>
  code <= 32 ||
  code === 0xa0 ||
  code === 0xad ||
  (code >= 0x2000 && code <= 0x200f) ||
  (code >= 0x2028 && code <= 0x202f) ||
  (code >= 0x2060 && code <= 0x2069) ||
  code === 0x3000 ||
  (code >= 0xfe00 && code <= 0xfe0f) ||
  code === 0xfeff;

/** Counts of characters: what is meant is added, what is found is taken away. */
class Tally {
  private readonly counts = new Map<number, number>();
  add(text: string, by: number): void {
    for (let at = 0; at < text.length; at++) {
      const code = text.charCodeAt(at);
      if (!isUnseen(code)) this.counts.set(code, (this.counts.get(code) ?? 0) + by);
    }
  }
  /** How often a character was meant and not found. */
  lacks(code: number): number {
    return Math.max(0, this.counts.get(code) ?? 0);
  }
  get isMet(): boolean {
    for (const count of this.counts.values()) if (count > 0) return false;
    return true;
  }
}

/** The strings that operators of ours show, decoded by the fonts they are shown in. */
function shownIn(content: string, fontOf: (name: string) => TextFont | null, take: (text: string) => void): void {
  let font: TextFont | null = null;
  let name = '';
  for (let at = 0; at < content.length; at++) {
    const code = content.charCodeAt(at);
    if (code === 0x2f) {
      const from = at + 1;
      while (at + 1 < content.length && content.charCodeAt(at + 1) > 32 && !'()<>[]{}/%'.includes(content[at + 1]!)) at++;
      name = content.slice(from, at + 1);
    } else if (code === 0x54 && content.charCodeAt(at + 1) === 0x66) font = fontOf(name);
    else if (code === 0x28) {
      let text = '';
      let depth = 1;
      for (at++; at < content.length; at++) {
        const char = content.charCodeAt(at);
        if (char === 0x5c) {
          const octal = /^[0-7]{1,3}/.exec(content.slice(at + 1, at + 4))?.[0];
          if (octal) {
            text += String.fromCharCode(Number.parseInt(octal, 8) & 255);
            at += octal.length;
          } else {
            const next = content[++at] ?? '';
            text += { n: '\n', r: '\r', t: '\t', b: '\b', f: '\f' }[next] ?? next;
          }
          continue;
        }
        if (char === 0x28) depth++;
        if (char === 0x29 && --depth === 0) break;
        text += content[at];
      }
      if (font) take(font.read(text).text);
    } else if (code === 0x3c && content.charCodeAt(at + 1) !== 0x3c) {
      const end = content.indexOf('>', at);
      let text = '';
      for (let digit = at + 1; digit + 1 < end; digit += 2)
        text += String.fromCharCode(Number.parseInt(content.slice(digit, digit + 2), 16));
      at = end < 0 ? content.length : end;
      if (font) take(font.read(text).text);
    }
  }
}

/** The text of a string object in hexadecimal, as this engine writes them (ISO 32000-2, 7.9.2.2). */
function hexText(hex: string): string {
  let bytes = '';
  for (let at = 0; at + 1 < hex.length; at += 2) bytes += String.fromCharCode(Number.parseInt(hex.slice(at, at + 2), 16));
  if (!bytes.startsWith('\u00fe\u00ff')) return bytes;
  let text = '';
  for (let at = 2; at + 1 < bytes.length; at += 2) text += String.fromCharCode(bytes.charCodeAt(at) * 256 + bytes.charCodeAt(at + 1));
  return text;
}

/**
 * Reads copies of one template back from their files and compares them with what was meant. The part that all copies share is read once, by the thorough reader;
 * of each copy its own part: every offset of its cross-reference, the text that its pages show through the fonts they name, the values that its fields hold.
 */
export class CopyReader {
  private constructor(
    private readonly compiled: CompiledTemplate,
    private readonly fonts: ReadonlyMap<string, TextFont>,
  ) {}

  /** @param copy a whole copy of the template, without a password */
  static async of(compiled: CompiledTemplate, copy: Uint8Array): Promise<CopyReader> {
    const { doc } = await openPdf(copy, 'The copy');
    const fonts = new Map<string, TextFont>();
    for (const { overlay } of compiled.pages) {
      const object = doc.context.lookup(PDFRef.of(overlay));
      const resources = object instanceof PDFStream ? dictEntry(object.dict, 'Resources') : undefined;
      const entries = resources && dictEntry(resources, 'Font');
      for (const [key] of entries?.entries() ?? []) {
        const name = key.decodeText();
        // What a copy brings along itself is read from each copy.
        if (!name.startsWith('MbY')) fonts.set(name, textFont(resources, name));
      }
    }
    return new CopyReader(compiled, fonts);
  }

  /** Own objects of a copy by number; null: its cross-reference is wrong. @param tail its bytes behind the shared part */
  private objects(tail: string): Map<number, string> | null {
    const { base, first } = this.compiled;
    const start = /startxref\n(\d+)\n%%EOF\n$/.exec(tail.slice(-64));
    if (!start) return null;
    const table = tail.slice(Number(start[1]) - base.length);
    const head = /^xref\n0 (\d+)\n/.exec(table.slice(0, 40));
    if (!head) return null;
    const objects = new Map<number, string>();
    const places: [number: number, at: number][] = [];
    for (let number = first; number < Number(head[1]); number++) {
      const entry = table.slice(head[0].length + number * 20, head[0].length + number * 20 + 20);
      if (!/^\d{10} 00000 n\r\n$/.test(entry)) return null;
      places.push([number, Number(entry.slice(0, 10)) - base.length]);
    }
    for (const [number, at] of places) {
      const label = `${number} 0 obj\n`;
      if (tail.slice(at, at + label.length) !== label) return null;
      const end = tail.indexOf('\nendobj', at);
      objects.set(number, tail.slice(at + label.length, end));
    }
    return objects;
  }

  private streamOf(object: string): string | null {
    const found = /\/Length (\d+)>>\nstream\n/.exec(object);
    return found ? object.slice(found.index + found[0].length, found.index + found[0].length + Number(found[1])) : null;
  }

  /**
   * @param file the bytes as they lie on disk @param values what was meant @param notes what was known not to fit or not to be drawable
   * @returns what differs; null: nothing does
   */
  async compare(file: Uint8Array, values: FieldValues, notes: readonly FillNote[] = []): Promise<Difference | null> {
    const { compiled } = this;
    const tail = latin1.decode(file.subarray(compiled.base.length));
    const objects = this.objects(tail);
    if (!objects) return { field: '', what: 'its cross-reference does not lead to its objects' };
    const known = new Map(notes.map((note) => [note.field, note]));
    const own = new Map<string, TextFont>();
    const fontOf =
      (object: string) =>
      (name: string): TextFont | null => {
        const shared = this.fonts.get(name);
        if (shared) return shared;
        if (!own.has(name)) {
          const map = new RegExp(`/${name} [^]*?/ToUnicode (\\d+) 0 R`).exec(object);
          const stream = map && this.streamOf(objects.get(Number(map[1])) ?? '');
          if (stream === null || stream === undefined) return null;
          const { texts } = readToUnicode(Uint8Array.from(stream, (char) => char.charCodeAt(0)));
          own.set(name, {
            read(bytes) {
              let text = '';
              for (let at = 0; at + 1 < bytes.length; at += 2)
                text += texts.get(bytes.charCodeAt(at) * 256 + bytes.charCodeAt(at + 1)) ?? '';
              return { text, width: 0 };
            },
          });
        }
        return own.get(name)!;
      };
    for (const page of compiled.pages) {
      const meant = shownTexts(compiled, page, values).filter(({ field }) => known.get(field)?.fit !== 'overflows');
      if (meant.length === 0) continue;
      const object = objects.get(page.overlay) ?? '';
      const content = this.streamOf(object);
      if (content === null) return { field: '', what: `page ${page.page + 1} has no content of its own` };
      const tally = new Tally();
      for (const { field, text } of meant) {
        const missing = known.get(field)?.characters ?? [];
        tally.add(
          missing.reduce((rest, char) => rest.replaceAll(char, ''), text),
          1,
        );
      }
      shownIn(content, fontOf(object), (text) => tally.add(text, -1));
      if (tally.isMet) continue;
      const difference = await this.thorough(file, page.page, meant, known);
      if (difference) return difference;
    }
    return this.values(objects, values);
  }

  /** What the quick look did not find is looked for once more by the reader of whole documents, which knows nothing of how this engine writes. */
  private async thorough(
    file: Uint8Array,
    page: number,
    meant: readonly { field: string; text: string }[],
    known: ReadonlyMap<string, FillNote>,
  ): Promise<Difference | null> {
    const { doc } = await openPdf(file, 'The copy');
    const shown = doc.getPages()[page];
    if (!shown) return { field: '', what: `page ${page + 1} is missing` };
    const tally = new Tally();
    for (const { field, text } of meant)
      tally.add(
        (known.get(field)?.characters ?? []).reduce((rest, char) => rest.replaceAll(char, ''), text),
        1,
      );
    for (const { text } of pageText(shown)) tally.add(text, -1);
    if (tally.isMet) return null;
    const worst = meant.find(({ text }) => [...text].some((char) => tally.lacks(char.charCodeAt(0)) > 0)) ?? meant[0]!;
    return { field: worst.field, what: `“${worst.text.slice(0, 80)}” is not shown whole on page ${page + 1}` };
  }

  /** Copies that keep their form: what their fields hold. */
  private values(objects: ReadonlyMap<number, string>, values: FieldValues): Difference | null {
    for (const { number, field, holdsValue } of this.compiled.holders) {
      const given = values[field.name];
      if (!holdsValue || given === undefined || given === null) continue;
      const object = objects.get(number) ?? '';
      if (field.kind === 'text' && typeof given === 'string') {
        const held = hexText(/\/V<([0-9a-f]*)>/.exec(object)?.[1] ?? '');
        if (held !== given.replaceAll('\u001b', ''))
          return { field: field.name, what: `the field holds “${held.slice(0, 80)}” in place of “${given.slice(0, 80)}”` };
      } else if (field.kind === 'checkbox' || field.kind === 'radio') {
        const isOn = !/\/V\/Off(?=[/>])/.test(object) && /\/V\//.test(object);
        if (isOn !== (stateFor(field, given) !== null)) return { field: field.name, what: `the box is ${isOn ? '' : 'not '}ticked` };
      }
    }
    return null;
  }
}
