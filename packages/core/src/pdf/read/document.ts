import {
  PDFArray,
  PDFDict,
  PDFDocument,
  PDFHexString,
  PDFName,
  PDFNumber,
  PDFStream,
  PDFRawStream,
  PDFRef,
  PDFString,
  decodePDFRawStream,
  pdfDocEncodingDecode,
} from '@cantoo/pdf-lib';
import type { PDFObject, PDFPage } from '@cantoo/pdf-lib';
import { allowDecoding, isOverBudget, takeText } from './decode-budget.js';
import { hasPages, isTorn, recoverDocument } from './recover.js';
import { MailbagError, isMailbagError } from '../../errors/catalogue.js';
import type { TemplateNote } from '../field.js';

/** A PDF that has been read, with what was noticed while reading. */
export interface OpenedPdf {
  doc: PDFDocument;
  notes: TemplateNote[];
  /** P of a protected file (ISO 32000-2, table 22); null: not protected. */
  permissions: number | null;
}

const name = (text: string): PDFName => PDFName.of(text);

/** The object under `key`, followed through references; undefined when absent or null. */
export const entry = (dict: PDFDict, key: string): PDFObject | undefined => {
  try {
    return dict.lookup(name(key));
  } catch {
    return undefined;
  }
};
/** The object under `key` as it stands there, references unfollowed. */
export const rawEntry = (dict: PDFDict, key: string): PDFObject | undefined => dict.get(name(key));
export const dictEntry = (dict: PDFDict, key: string): PDFDict | undefined => {
  const found = entry(dict, key);
  return found instanceof PDFDict ? found : found instanceof PDFRawStream ? found.dict : undefined;
};
export const arrayEntry = (dict: PDFDict, key: string): PDFArray | undefined => {
  const found = entry(dict, key);
  return found instanceof PDFArray ? found : undefined;
};
export const numberEntry = (dict: PDFDict, key: string): number | undefined => {
  const found = entry(dict, key);
  return found instanceof PDFNumber && Number.isFinite(found.asNumber()) ? found.asNumber() : undefined;
};
export const nameEntry = (dict: PDFDict, key: string): string | undefined => {
  const found = entry(dict, key);
  return found instanceof PDFName ? nameText(found) : undefined;
};

/** A name as text: `#` escapes undone, bytes read as UTF-8 where they are that, else as Latin-1. */
export function nameText(value: PDFName): string {
  const bytes = Uint8Array.from(value.asBytes());
  let text = '';
  for (const byte of bytes) text += String.fromCharCode(byte);
  if (!/[\u0080-\u00ff]/.test(text)) return text;
  try {
    return decodeURIComponent(text.replace(/[^A-Za-z0-9]/g, (char) => `%${char.charCodeAt(0).toString(16).padStart(2, '0')}`));
  } catch {
    return text;
  }
}

/** What a text counts for beside its bytes, so that a million empty ones count too. */
const EACH_TEXT = 8;

/** Characters of a text string's bytes (ISO 32000-2, 7.9.2.2): UTF-16BE, UTF-8 or PDFDocEncoding. Read in pieces, since values can be long. */
function decodeTextString(bytes: Uint8Array): string {
  let text = '';
  if (bytes[0] === 0xfe && bytes[1] === 0xff) {
    for (let index = 2; index + 1 < bytes.length; index += 2) text += String.fromCharCode(bytes[index]! * 256 + bytes[index + 1]!);
    // Language escapes (7.9.2.2.1) are no part of the text.
    return text.replace(/\u001b[^\u001b]*\u001b/g, '');
  }
  // The other byte order is none of the standard's, but some producers write it.
  if (bytes[0] === 0xff && bytes[1] === 0xfe) {
    for (let index = 2; index + 1 < bytes.length; index += 2) text += String.fromCharCode(bytes[index + 1]! * 256 + bytes[index]!);
    return text;
  }
  if (bytes[0] === 0xef && bytes[1] === 0xbb && bytes[2] === 0xbf) {
    const coded = latin1(bytes.subarray(3)).replace(/[^A-Za-z0-9]/g, (char) => `%${char.charCodeAt(0).toString(16).padStart(2, '0')}`);
    try {
      return decodeURIComponent(coded);
    } catch {
      return latin1(bytes.subarray(3));
    }
  }
  for (let from = 0; from < bytes.length; from += 8192) text += pdfDocEncodingDecode(bytes.subarray(from, from + 8192));
  return text;
}

/** Text of a string, a name or a text stream; undefined for anything else. */
export function textOf(value: PDFObject | undefined): string | undefined {
  if (value instanceof PDFString || value instanceof PDFHexString) {
    const bytes = value.asBytes();
    takeText(bytes.length + EACH_TEXT);
    return decodeTextString(bytes);
  }
  if (value instanceof PDFName) return nameText(value);
  if (value instanceof PDFNumber) return value.toString();
  if (value instanceof PDFRawStream) {
    const bytes = decodePDFRawStream(value).decode();
    takeText(bytes.length + EACH_TEXT);
    return decodeTextString(bytes);
  }
  return undefined;
}

/** Levels of a page tree; deeper ones lead in a circle. */
const DEEPEST_TREE = 64;

/** An attribute of a page, from itself or its tree (ISO 32000-2, 7.7.3.4), followed through references; damaged trees end where they break. */
export function pageEntry(page: PDFPage, key: string): PDFObject | undefined {
  let node: PDFDict | undefined = page.node;
  for (let level = 0; node && level < DEEPEST_TREE; level++) {
    const found = entry(node, key);
    if (found !== undefined) return found;
    node = dictEntry(node, 'Parent');
  }
  return undefined;
}

/** Numbers of an array; wrong entries count as 0. */
export const numbersOf = (array: PDFArray | undefined): number[] =>
  array
    ? Array.from({ length: array.size() }, (_, index) => {
        const found = array.lookup(index);
        return found instanceof PDFNumber && Number.isFinite(found.asNumber()) ? found.asNumber() : 0;
      })
    : [];

/** References or dictionaries of an array, in order, with the dictionaries they lead to. */
export function dictsOf(array: PDFArray | undefined): { ref: PDFRef | null; dict: PDFDict }[] {
  const found: { ref: PDFRef | null; dict: PDFDict }[] = [];
  for (let index = 0; array && index < array.size(); index++) {
    const raw = array.get(index);
    const dict = array.lookup(index);
    if (dict instanceof PDFDict) found.push({ ref: raw instanceof PDFRef ? raw : null, dict });
  }
  return found;
}

/** Bytes as a string of one character a byte. */
export function latin1(bytes: Uint8Array): string {
  let text = '';
  for (let from = 0; from < bytes.length; from += 8192) text += String.fromCharCode(...bytes.subarray(from, from + 8192));
  return text;
}

/** Where a text stands in bytes, searched in pieces that overlap; -1: nowhere. */
function placeOf(bytes: Uint8Array, text: string): number {
  for (let from = 0; from < bytes.length; from += 65_536) {
    const at = latin1(bytes.subarray(from, from + 65_536 + text.length)).indexOf(text);
    if (at >= 0) return from + at;
  }
  return -1;
}

/** P of the standard security handler, from the bytes: the library forgets it once it has decrypted. */
function permissionsOf(bytes: Uint8Array): number | null {
  const at = placeOf(bytes, '/Standard');
  const near = at < 0 ? '' : latin1(bytes.subarray(Math.max(0, at - 2000), at + 2000));
  const found = /\/P\s*(-?\d+)/.exec(near);
  return found ? Number(found[1]) | 0 : null;
}

const isWrongPassword = (error: unknown): boolean =>
  error instanceof Error && (/encrypt|password/i.test(error.name) || /encrypted|password/i.test(error.message));

/** Bytes from which a torn file is put together by Mailbag itself at once. */
const LARGE_WHEN_TORN = 60_000;

/** The document as the library reads it; null when it has no pages then. @throws MailbagError pdf-password */
async function loadPdf(bytes: Uint8Array, file: string, password: string): Promise<PDFDocument | null> {
  // In damaged stretches the library makes an error a byte, and their stack traces would take seconds.
  const traces = Error as { stackTraceLimit?: number };
  const usual = traces.stackTraceLimit;
  traces.stackTraceLimit = 0;
  try {
    const doc = await PDFDocument.load(bytes, { password, updateMetadata: false, parseSpeed: Infinity });
    return hasPages(doc) ? doc : null;
  } catch (error) {
    if (isWrongPassword(error)) throw new MailbagError('pdf-password', { file }, { cause: error });
    return null;
  } finally {
    traces.stackTraceLimit = usual;
  }
}

/** Entries that say that a dictionary is one of a form: a field, a widget, or the form itself. */
const isOfForm = (dict: PDFDict): boolean =>
  dict.has(PDFName.of('FT')) ||
  String(dict.get(PDFName.of('Subtype'))) === '/Widget' ||
  (dict.has(PDFName.of('Fields')) && (dict.has(PDFName.of('DR')) || dict.has(PDFName.of('DA')))) ||
  (dict.has(PDFName.of('T')) && dict.has(PDFName.of('Kids')));

/** Some producers that compress write the dictionaries of their fields as streams; as other readers do, only the dictionaries are taken. */
function unwrapDictionaries({ context }: PDFDocument): void {
  for (const [ref, object] of context.enumerateIndirectObjects()) {
    if (!(object instanceof PDFStream) || !isOfForm(object.dict)) continue;
    const dict = object.dict.clone(context);
    for (const key of ['Length', 'Filter', 'DecodeParms', 'DL']) dict.delete(PDFName.of(key));
    context.assign(ref, dict);
  }
}

/**
 * Reads a PDF, mending what can be mended. A file that is encrypted but opens without a password is decrypted.
 * @param file its name, for the sentences of errors
 * @throws MailbagError pdf-not-a-pdf, pdf-damaged, pdf-password, pdf-holds-too-much
 */
export async function openPdf(bytes: Uint8Array, file: string, password = ''): Promise<OpenedPdf> {
  allowDecoding(bytes.length);
  const head = latin1(bytes.subarray(0, 4096));
  const start = head.indexOf('%PDF-');
  if (start < 0) throw new MailbagError('pdf-not-a-pdf', { file });
  const notes: TemplateNote[] = [];
  const tail = latin1(bytes.subarray(Math.max(0, bytes.length - 2048)));
  if (start > 0 || !tail.includes('startxref') || !tail.includes('%%EOF')) notes.push({ code: 'mended', fields: [] });
  const whole = start > 0 ? bytes.subarray(start) : bytes;
  const text = latin1(whole);
  const early = whole.length > LARGE_WHEN_TORN && isTorn(text) ? await recoverDocument(whole, text) : null;
  const read = early ? null : await loadPdf(whole, file, password);
  const doc = early ?? read ?? (await recoverDocument(whole, text));
  if (isOverBudget()) throw new MailbagError('pdf-holds-too-much', { file });
  if (doc) unwrapDictionaries(doc);
  if (!doc) throw new MailbagError('pdf-damaged', { file });
  if (!read && notes.length === 0) notes.push({ code: 'mended', fields: [] });
  // The library forgets the entry once it has decrypted; trailers are never encrypted themselves (ISO 32000-2, 7.6.1).
  const isEncrypted = doc.isEncrypted || placeOf(bytes, '/Encrypt') >= 0;
  if (isEncrypted) notes.push({ code: 'encrypted', fields: [] });
  return { doc, notes, permissions: isEncrypted ? permissionsOf(bytes) : null };
}

/** Does a piece of work on a file. Where damage that nobody foresaw breaks it off, the file is called damaged; the cause is kept. @throws MailbagError */
export async function whole<T>(file: string, work: () => Promise<T>): Promise<T> {
  try {
    return await work();
  } catch (error) {
    if (isMailbagError(error)) throw error;
    throw new MailbagError(isOverBudget() ? 'pdf-holds-too-much' : 'pdf-damaged', { file }, { cause: error });
  }
}
