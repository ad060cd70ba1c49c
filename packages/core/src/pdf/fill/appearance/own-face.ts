import type { PDFDict, PDFRef } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict as Dict, PDFNumber, PDFStream } from '@cantoo/pdf-lib';
import { arrayEntry, dictEntry, entry, nameEntry, numberEntry, numbersOf } from '../../read/document.js';
import { simpleEncoding } from '../../read/content/encoding.js';
import { readToUnicode } from '../../read/content/to-unicode.js';
import { streamBytes } from '../../plan/overlay.js';
import type { CodedFace, LineMetrics } from './coded-face.js';
import { compositeFace, simpleFace, winAnsiCodes } from './coded-face.js';
import type { CodeExtents } from './ink.js';
import { roughInk } from './ink.js';

/** Letters that are joined or reordered when they are drawn; such text needs shaping, which a form's own font does not tell about. */
const needsShaping = (text: string): boolean =>
  /[\u0300-\u036f\u0590-\u10ff\u1780-\u18af\u200c-\u200f\ufb1d-\ufdff\ufe70-\ufeff]/.test(text);

/** Text programs are embedded under one of these (ISO 32000-2, table 124). */
const embedded = (descriptor: PDFDict | undefined): boolean =>
  descriptor !== undefined && ['FontFile', 'FontFile2', 'FontFile3'].some((key) => entry(descriptor, key) instanceof PDFStream);

const isSubset = (name: string): boolean => /^[A-Z]{6}\+/.test(name);

/** Line of Helvetica, for fonts that say nothing usable; highest line that is believed, that of Arial (both from descriptors that producers write). */
const USUAL_LINE = { height: 1156, foot: 207 };
const HIGHEST_LINE = 1331;

/**
 * The line of a font as its descriptor tells it (ISO 32000-2, 9.8): as high as its bounding box, since that is what most producers go by; where that
 * makes no sense, from ascent to descent.
 */
export function lineOf(descriptor: PDFDict | undefined): LineMetrics {
  if (!descriptor) return USUAL_LINE;
  const [, low = 0, , high = 0] = numbersOf(arrayEntry(descriptor, 'FontBBox'));
  const up = numberEntry(descriptor, 'Ascent') ?? 0;
  const down = Math.abs(numberEntry(descriptor, 'Descent') ?? 0);
  const height = high - low >= 900 ? high - low : up > 300 && up + down >= 900 ? up + down : USUAL_LINE.height;
  return { height: Math.min(HIGHEST_LINE, height), foot: down >= 50 && down <= 450 ? down : USUAL_LINE.foot };
}

/** Extents of the characters that codes stand for. */
function roughExtents(codes: Uint8Array): CodeExtents {
  const extents = { tops: new Int16Array(256), bottoms: new Int16Array(256) };
  codes.forEach((code, unit) => {
    if (code === 0) return;
    const ink = roughInk(unit, winAnsiCodes);
    extents.tops[code] = Math.max(extents.tops[code]!, ink.top);
    extents.bottoms[code] = Math.max(extents.bottoms[code]!, ink.bottom);
  });
  return extents;
}

function ownSimple(font: PDFDict, resource: string): CodedFace | null {
  const descriptor = dictEntry(font, 'FontDescriptor');
  if (!descriptor || !embedded(descriptor)) return null;
  const baseFont = nameEntry(font, 'BaseFont') ?? 'Own';
  const table = simpleEncoding(font);
  const toUnicode = entry(font, 'ToUnicode');
  const told = toUnicode instanceof PDFStream ? readToUnicode(streamBytes(toUnicode) ?? new Uint8Array()).texts : null;
  if (!table && !told) return null;
  const given = numbersOf(arrayEntry(font, 'Widths'));
  const first = numberEntry(font, 'FirstChar') ?? 0;
  const missing = numberEntry(descriptor, 'MissingWidth') ?? 0;
  const codes = new Uint8Array(65_536);
  const widths = new Float64Array(256);
  let count = 0;
  for (let code = 1; code < 256; code++) {
    const width = given[code - first];
    widths[code] = width ?? missing;
    const text = told?.get(code) ?? table?.[code] ?? '';
    // A subset holds only some glyphs: those which it can tell the text of, or at least the width.
    const isThere = isSubset(baseFont) ? (told ? told.has(code) : (width ?? 0) > 0) : width !== undefined;
    if (text.length !== 1 || !isThere || needsShaping(text) || text.charCodeAt(0) < 32) continue;
    if (codes[text.charCodeAt(0)] === 0) {
      codes[text.charCodeAt(0)] = code;
      count++;
    }
  }
  return count > 0 ? simpleFace({ resource, baseFont }, lineOf(descriptor), codes, widths, roughExtents(codes)) : null;
}

/** Widths of a CIDFont (ISO 32000-2, 9.7.4.3). */
export function cidWidths(descendant: PDFDict): (code: number) => number {
  const array = arrayEntry(descendant, 'W');
  const usual = numberEntry(descendant, 'DW') ?? 1000;
  const widths = new Map<number, number>();
  for (let index = 0; array && index < array.size();) {
    const first = array.lookup(index);
    const next = array.lookup(index + 1);
    if (!(first instanceof PDFNumber)) break;
    if (next instanceof PDFArray) {
      numbersOf(next).forEach((width, offset) => widths.set(first.asNumber() + offset, width));
      index += 2;
    } else {
      const width = array.lookup(index + 2);
      const last = next instanceof PDFNumber ? next.asNumber() : -1;
      if (width instanceof PDFNumber && last - first.asNumber() < 0x10000)
        for (let cid = first.asNumber(); cid <= last; cid++) widths.set(cid, width.asNumber());
      index += 3;
    }
  }
  return (code) => widths.get(code) ?? usual;
}

function ownComposite(font: PDFDict, resource: string): CodedFace | null {
  if (nameEntry(font, 'Encoding') !== 'Identity-H') return null;
  const descendants = arrayEntry(font, 'DescendantFonts');
  const descendant = descendants?.lookup(0);
  const toUnicode = entry(font, 'ToUnicode');
  if (!(descendant instanceof Dict) || !(toUnicode instanceof PDFStream)) return null;
  const descriptor = dictEntry(descendant, 'FontDescriptor');
  if (!descriptor || !embedded(descriptor)) return null;
  const { length, texts } = readToUnicode(streamBytes(toUnicode) ?? new Uint8Array());
  if (length !== 2) return null;
  const codes = new Map<number, number>();
  for (const [code, text] of texts) {
    const point = text.codePointAt(0);
    if (code === 0 || point === undefined || text.length !== String.fromCodePoint(point).length || point < 32 || needsShaping(text))
      continue;
    if (!codes.has(point)) codes.set(point, code);
  }
  return codes.size > 0
    ? compositeFace({ resource, baseFont: nameEntry(font, 'BaseFont') ?? 'Own' }, lineOf(descriptor), codes, cidWidths(descendant))
    : null;
}

/** The faces of one document that its form carries itself and that Mailbag can write with: embedded ones whose codes are known. */
export class OwnFaces {
  private readonly faces = new Map<PDFDict, CodedFace | null>();
  private readonly refs = new Map<CodedFace, PDFRef>();

  faceOf(font: PDFDict, ref: PDFRef | null): CodedFace | null {
    if (!ref) return null;
    const known = this.faces.get(font);
    if (known !== undefined) return known;
    const resource = `MbF${this.faces.size}`;
    const face = nameEntry(font, 'Subtype') === 'Type0' ? ownComposite(font, resource) : ownSimple(font, resource);
    this.faces.set(font, face);
    if (face) this.refs.set(face, ref);
    return face;
  }
  /** Where the face's font dictionary stands; undefined for standard faces. */
  refOf(face: CodedFace): PDFRef | undefined {
    return this.refs.get(face);
  }
}
