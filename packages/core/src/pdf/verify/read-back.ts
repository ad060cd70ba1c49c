import { PDFRef, PDFStream } from '@cantoo/pdf-lib';
import type { CompiledTemplate, PagePlan } from '../plan/compile.js';
import type { CopyTail } from './copy-tail.js';
import { tailObject, tailOf } from './copy-tail.js';
import { dictEntry, latin1, nameEntry, openPdf } from '../read/document.js';
import { CHOSEN, listRows } from '../fill/drawing.js';
import { chosenValues, stateFor } from '../fill/field-value.js';
import { shownTexts } from '../fill/fill.js';
import type { FillNote } from '../value.js';
import { readToUnicode } from '../read/content/to-unicode.js';
import type { TextFont } from '../read/content/text-font.js';
import { textFont } from '../read/content/text-font.js';
import { pageText } from '../read/content/page-marks.js';
import type { FieldValues } from '../value.js';

/** What does not stand in a copy as it was meant. */
export interface Difference {
  /** The field, or empty where the file itself is wrong. */
  field: string;
  /** What is wrong, to be put behind a colon. */
  what: string;
}

/** Characters that leave no mark: white space, direction marks, joiners, the soft hyphen, variation selectors. */
const unseen = Uint8Array.from({ length: 0x10000 }, (_, code) =>
  code <= 32 ||
  code === 0xa0 ||
  code === 0xad ||
  (code >= 0x2000 && code <= 0x200f) ||
  (code >= 0x2028 && code <= 0x202f) ||
  (code >= 0x2060 && code <= 0x2069) ||
  code === 0x3000 ||
  (code >= 0xfe00 && code <= 0xfe0f) ||
  code === 0xfeff
    ? 1
    : 0,
);

/** Brackets and their like, which are drawn as each other in lines from right to left (UAX #9, L4), count as the opening one. */
const canonical = Uint16Array.from({ length: 0x10000 }, (_, code) => {
  const at = ')]}>\u00bb\u203a'.indexOf(String.fromCharCode(code));
  return at < 0 ? code : '([{<\u00ab\u2039'.charCodeAt(at);
});

const counts = new Int32Array(0x10000);
/** Characters whose counts are to be cleared before the next tally. */
let touched: number[] = [];
/** Counts of characters: what is meant is added, what is found is taken away. One at a time. */
class Tally {
  private readonly meant: number[] = [];
  constructor() {
    for (const code of touched) counts[code] = 0;
    touched = [];
  }
  add(text: string): void {
    for (let at = 0; at < text.length; at++) {
      const code = canonical[text.charCodeAt(at)]!;
      if (unseen[code] === 1) continue;
      if (counts[code]!++ === 0) {
        touched.push(code);
        this.meant.push(code);
      }
    }
  }
  /** @param unit UTF-16 unit */
  takeOne(unit: number): void {
    const code = canonical[unit]!;
    if (counts[code]!-- === 0) touched.push(code);
  }
  take(text: string): void {
    for (let at = 0; at < text.length; at++) this.takeOne(text.charCodeAt(at));
  }
  /** How often a character was meant and not found. */
  lacks(unit: number): number {
    return Math.max(0, counts[canonical[unit]!] ?? 0);
  }
  get isMet(): boolean {
    for (const code of this.meant) if (counts[code]! > 0) return false;
    return true;
  }
}

/** What the codes of a font stand for. */
interface CodeReader {
  /** Bytes of a code: 1 or 2. */
  length: 1 | 2;
  texts: { get(code: number): string | undefined };
  /** The one UTF-16 unit that a code of one byte stands for; -1: none, or several. */
  units: Int32Array | null;
}

/** The texts of a font by code; those of a composite one are read when they are first met. */
function codeReader(font: TextFont, isComposite: boolean): CodeReader {
  const text = (...bytes: number[]): string => font.read(String.fromCharCode(...bytes)).text;
  if (!isComposite) {
    const texts = new Map(Array.from({ length: 256 }, (_, code) => [code, text(code)]));
    return { length: 1, texts, units: Int32Array.from(texts.values(), (one) => (one.length === 1 ? one.charCodeAt(0) : -1)) };
  }
  const kept = new Map<number, string>();
  return {
    length: 2,
    units: null,
    texts: {
      get(code) {
        let known = kept.get(code);
        if (known === undefined) kept.set(code, (known = text(code >> 8, code & 255)));
        return known;
      },
    },
  };
}

const isNameEnd = (byte: number): boolean =>
  byte <= 32 ||
  byte === 0x2f ||
  byte === 0x28 ||
  byte === 0x29 ||
  byte === 0x3c ||
  byte === 0x3e ||
  byte === 0x5b ||
  byte === 0x5d ||
  byte === 0x25;
const hexDigit = (byte: number): number => (byte <= 0x39 ? byte - 0x30 : (byte | 0x20) - 0x57);
const ESCAPES: Record<number, number> = { 0x6e: 10, 0x72: 13, 0x74: 9, 0x62: 8, 0x66: 12 };

const ascii = (bytes: Uint8Array, from: number, to: number): string => {
  let text = '';
  for (let at = from; at < to; at++) text += String.fromCharCode(bytes[at]!);
  return text;
};

/** Whether operators stand between two places of a file. */
function stands(bytes: Uint8Array, from: number, to: number, operators: string): boolean {
  const first = operators.charCodeAt(0);
  for (let at = bytes.indexOf(first, from); at >= 0 && at + operators.length <= to; at = bytes.indexOf(first, at + 1)) {
    let same = 1;
    while (same < operators.length && bytes[at + same] === operators.charCodeAt(same)) same++;
    if (same === operators.length) return true;
  }
  return false;
}

/** Takes away what operators of ours show between two places of a file, decoded by the fonts they are shown in. */
function takeShown(bytes: Uint8Array, from: number, to: number, fontOf: (name: string) => CodeReader | null, tally: Tally): void {
  let font: CodeReader | null = null;
  let [nameFrom, nameTo] = [0, 0];
  for (let at = from; at < to; at++) {
    const byte = bytes[at]!;
    if (byte === 0x2f) {
      nameFrom = at + 1;
      while (at + 1 < to && !isNameEnd(bytes[at + 1]!)) at++;
      nameTo = at + 1;
    } else if (byte === 0x54 && bytes[at + 1] === 0x66) font = fontOf(ascii(bytes, nameFrom, nameTo));
    else if (byte === 0x28) {
      let depth = 1;
      let high = -1;
      for (at++; at < to; at++) {
        let code = bytes[at]!;
        if (code === 0x5c) {
          code = bytes[++at]!;
          if (code >= 0x30 && code <= 0x37) {
            let value = code - 0x30;
            for (let digit = 0; digit < 2 && bytes[at + 1]! >= 0x30 && bytes[at + 1]! <= 0x37; digit++)
              value = value * 8 + bytes[++at]! - 0x30;
            code = value & 255;
          } else code = ESCAPES[code] ?? code;
        } else if (code === 0x28) depth++;
        else if (code === 0x29 && --depth === 0) break;
        if (!font) continue;
        const unit = font.units === null ? -1 : font.units[code]!;
        if (unit >= 0) tally.takeOne(unit);
        else if (font.length === 1) tally.take(font.texts.get(code) ?? '');
        else if (high < 0) high = code;
        else {
          tally.take(font.texts.get(high * 256 + code) ?? '');
          high = -1;
        }
      }
    } else if (byte === 0x3c && bytes[at + 1] !== 0x3c) {
      let value = 0;
      let digits = 0;
      for (at++; at < to && bytes[at] !== 0x3e; at++) {
        value = value * 16 + hexDigit(bytes[at]!);
        if (!font || ++digits < font.length * 2) continue;
        tally.take(font.texts.get(value) ?? '');
        value = digits = 0;
      }
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
    private readonly fonts: ReadonlyMap<string, CodeReader>,
  ) {}

  /** @param copy a whole copy of the template, without a password */
  static async of(compiled: CompiledTemplate, copy: Uint8Array): Promise<CopyReader> {
    const { doc } = await openPdf(copy, 'The copy');
    const fonts = new Map<string, CodeReader>();
    for (const { overlay } of compiled.pages) {
      const object = doc.context.lookup(PDFRef.of(overlay));
      const resources = object instanceof PDFStream ? dictEntry(object.dict, 'Resources') : undefined;
      const entries = resources && dictEntry(resources, 'Font');
      for (const [key] of entries?.entries() ?? []) {
        const name = key.decodeText();
        // What a copy brings along itself is read from each copy.
        if (name.startsWith('MbY') || fonts.has(name)) continue;
        const dict = dictEntry(entries!, name);
        fonts.set(name, codeReader(textFont(resources, name), dict !== undefined && nameEntry(dict, 'Subtype') === 'Type0'));
      }
    }
    return new CopyReader(compiled, fonts);
  }

  /**
   * @param file the bytes as they lie on disk @param values what was meant @param notes what was known not to fit or not to be drawable
   * @returns what differs; null: nothing does
   */
  async compare(file: Uint8Array, values: FieldValues, notes: readonly FillNote[] = []): Promise<Difference | null> {
    const { compiled } = this;
    const objects = tailOf(file, compiled.first);
    if (!objects) return { field: '', what: 'its cross-reference does not lead to its objects' };
    const known = new Map(notes.map((note) => [note.field, note]));
    const own = new Map<string, CodeReader | null>();
    const ownFont = (dict: string, name: string): CodeReader | null => {
      const map = new RegExp(`/${name} [^]*?/ToUnicode (\\d+) 0 R`).exec(dict);
      const stream = map && tailObject(file, objects, Number(map[1])).stream;
      return stream ? { length: 2, units: null, texts: readToUnicode(file.subarray(...stream)).texts } : null;
    };
    for (const page of compiled.pages) {
      const meant = shownTexts(compiled, page, values).filter(({ field }) => known.get(field)?.fit !== 'overflows');
      const { dict, stream } = tailObject(file, objects, page.overlay);
      const wrongTick = stream && this.ticks(file, stream, page, values);
      if (wrongTick) return wrongTick;
      const wrongList = stream && this.marked(file, stream, page, values);
      if (wrongList) return wrongList;
      if (meant.length === 0) continue;
      if (stream === null) return { field: '', what: `page ${page.page + 1} has no content of its own` };
      const tally = new Tally();
      for (const { field, text } of meant) tally.add(drawable(text, known.get(field)));
      const fontOf = (name: string): CodeReader | null => {
        const shared = this.fonts.get(name);
        if (shared) return shared;
        if (!own.has(name)) own.set(name, ownFont(dict, name));
        return own.get(name) ?? null;
      };
      takeShown(file, ...stream, fontOf, tally);
      if (tally.isMet) continue;
      const difference = await this.thorough(file, page.page, meant, known);
      if (difference) return difference;
    }
    return this.values(file, objects, values);
  }

  /** Boxes that are drawn into a page: the operators of each state stand at a place of their own. */
  private ticks(file: Uint8Array, stream: [from: number, to: number], page: PagePlan, values: FieldValues): Difference | null {
    for (const { field, onValue, on, off } of page.widgets) {
      const given = values[field.name];
      if (onValue === null || given === undefined || on === off) continue;
      const isOn = stateFor(field, given) === onValue;
      const [meant, other] = isOn ? [on, off] : [off, on];
      const isThere = meant === '' ? !stands(file, ...stream, other) : stands(file, ...stream, meant);
      if (!isThere) return { field: field.name, what: `the box is ${isOn ? 'not ' : ''}ticked` };
    }
    return null;
  }

  /** Lists that are drawn into a page: as many entries are marked as are chosen and in sight. */
  private marked(file: Uint8Array, stream: [from: number, to: number], page: PagePlan, values: FieldValues): Difference | null {
    const lists = page.widgets.filter(
      ({ field, untouched }) => field.kind === 'list' && !(values[field.name] === undefined && untouched !== null),
    );
    if (lists.length === 0) return null;
    const chosen = lists.map(
      (plan) => listRows(plan, values[plan.field.name] ?? plan.field.value).shown.filter(({ isChosen }) => isChosen).length,
    );
    const content = latin1(file.subarray(...stream));
    const marks = content.split(CHOSEN).length - 1;
    const meant = chosen.reduce((sum, one) => sum + one, 0);
    return marks === meant ? null : { field: lists[0]!.field.name, what: `${marks} entries of lists are marked in place of ${meant}` };
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
    for (const { field, text } of meant) tally.add(drawable(text, known.get(field)));
    for (const { text } of pageText(shown)) tally.take(text);
    if (tally.isMet) return null;
    const worst = meant.find(({ text }) => [...text].some((char) => tally.lacks(char.charCodeAt(0)) > 0)) ?? meant[0]!;
    return { field: worst.field, what: `“${worst.text.slice(0, 80)}” is not shown whole on page ${page + 1}` };
  }

  /** Copies that keep their form: what their fields hold. */
  private values(file: Uint8Array, objects: CopyTail, values: FieldValues): Difference | null {
    for (const { number, field, holdsValue } of this.compiled.holders) {
      const given = values[field.name];
      if (!holdsValue || given === undefined || given === null) continue;
      const { dict } = tailObject(file, objects, number);
      if (field.kind === 'text' && typeof given === 'string') {
        const held = hexText(/\/V<([0-9a-f]*)>/.exec(dict)?.[1] ?? '');
        if (held !== given.replaceAll('\u001b', ''))
          return { field: field.name, what: `the field holds “${held.slice(0, 80)}” in place of “${given.slice(0, 80)}”` };
      } else if (field.kind === 'combo' || field.kind === 'list') {
        const meant = chosenValues(field, given).map((one) => one.replaceAll('\u001b', ''));
        const [, held = ''] = /\/V(<[0-9a-f]*>|\[(?:<[0-9a-f]*>)*\])/.exec(dict) ?? [];
        const found = [...held.matchAll(/<([0-9a-f]*)>/g)].map(([, hex]) => hexText(hex!));
        if (found.length !== meant.length || found.some((one, index) => one !== meant[index]))
          return {
            field: field.name,
            what: `the field holds “${found.join(', ').slice(0, 80)}” in place of “${meant.join(', ').slice(0, 80)}”`,
          };
      } else if (field.kind === 'checkbox' || field.kind === 'radio') {
        const isOn = !/\/V\/Off(?=[/>])/.test(dict) && /\/V\//.test(dict);
        if (isOn !== (stateFor(field, given) !== null)) return { field: field.name, what: `the box is ${isOn ? '' : 'not '}ticked` };
      }
    }
    return null;
  }
}

/** A text without the characters that no face can draw. */
const drawable = (text: string, note: FillNote | undefined): string =>
  (note?.characters ?? []).reduce((rest, char) => rest.replaceAll(char, ''), text);
