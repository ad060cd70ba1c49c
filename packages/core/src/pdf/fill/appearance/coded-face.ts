import { Encodings, Font } from '@pdf-lib/standard-fonts';
import type { IFontNames } from '@pdf-lib/standard-fonts';
import type { ByteWriter } from '../../byte-writer.js';
import type { CodeExtents, Ink } from './ink.js';
import { extentsOf, roughInk } from './ink.js';

/** The line of a face, of 1000 to the em: its height, which is also the way from baseline to baseline, and how far its baseline stands above its foot. */
export interface LineMetrics {
  height: number;
  foot: number;
}

/** A face with one code a character, which needs no shaping: a standard font, or one that the form itself carries. */
export interface CodedFace {
  /** Name in /Font resources. */
  resource: string;
  /** PostScript name. */
  baseFont: string;
  /** How its lines are put under each other. */
  readonly line: LineMetrics;
  /** No character of it is drawn higher or lower than this. */
  readonly reach: Ink;
  /** How high and low a text of which no character is missing is drawn. */
  ink(text: string): Ink;
  has(codePoint: number): boolean;
  /** Width of 1000 to the em; -1: a character is missing. */
  measure(text: string): number;
  /** Writes the string operand that shows a text of which no character is missing. */
  write(ink: ByteWriter, text: string): void;
  /** Takes a text in to be measured, broken and written piece by piece without reading it again. @returns its width, as `measure` */
  load(text: string): number;
  /** Writes the string operand for a stretch of the text that was loaded last, by UTF-16 units. */
  put(ink: ByteWriter, from: number, to: number): void;
  /** Writes the string operand of a text when no character is missing and it is not wider than `room`, of 1000 to the em. @returns whether it did */
  writeWithin(ink: ByteWriter, text: string, room: number): boolean;
}

/** 1 for codes that are escaped in a literal string: brackets and the backslash. */
const specials = Uint8Array.from({ length: 256 }, (_, code) => (code === 0x28 || code === 0x29 || code === 0x5c ? 1 : 0));

/** Longest text that is loaded; longer ones are laid out the thorough way. */
const LONGEST = 16_384;
/** Of the text that was loaded last: width of each UTF-16 unit, and its code in a simple face. Halves of characters have their width with the first half. */
export const advances = new Float64Array(LONGEST);
const loadedCodes = new Uint8Array(LONGEST);
let loadedText = '';
let hasSpecial = false;
export const loadedString = (): string => loadedText;

/** Units whose widths are kept by themselves: Basic Latin and Latin-1. */
const NEAR = 256;

/** Of all that is drawn with codes from 32 on; what none of them draws does not count. */
function reachOf({ tops, bottoms }: CodeExtents, isUsed: (code: number) => boolean): Ink {
  let [top, bottom] = [0, 0];
  for (let code = 32; code < 256; code++) {
    if (!isUsed(code)) continue;
    top = Math.max(top, tops[code]!);
    bottom = Math.max(bottom, bottoms[code]!);
  }
  return { top, bottom };
}

/**
 * A simple font (ISO 32000-2, 9.6).
 * @param codes code of each UTF-16 unit, 0: none
 * @param widths by code, of 1000 to the em
 * @param extents by code
 */
export function simpleFace(
  names: { resource: string; baseFont: string },
  line: LineMetrics,
  codes: Uint8Array,
  widths: Float64Array,
  extents: CodeExtents,
): CodedFace {
  const { tops, bottoms } = extents;
  const used = new Set(codes);
  const widthOf = (unit: number): number => {
    const code = codes[unit]!;
    return code === 0 ? -1 : widths[code]!;
  };
  // Nearly all text is of these units, and one look is quicker than two.
  const near = Float64Array.from({ length: NEAR }, (_, unit) => widthOf(unit));
  return {
    ...names,
    line,
    reach: reachOf(extents, (code) => used.has(code)),
    ink(text) {
      let [top, bottom] = [0, 0];
      for (let index = 0; index < text.length; index++) {
        const code = codes[text.charCodeAt(index)]!;
        if (tops[code]! > top) top = tops[code]!;
        if (bottoms[code]! > bottom) bottom = bottoms[code]!;
      }
      return { top, bottom };
    },
    has: (codePoint) => codePoint < 0x10000 && codes[codePoint] !== 0,
    measure(text) {
      let width = 0;
      const { length } = text;
      for (let index = 0; index < length; index++) {
        const unit = text.charCodeAt(index);
        const one = unit < NEAR ? near[unit]! : widthOf(unit);
        if (one < 0) return -1;
        width += one;
      }
      return width;
    },
    write(ink, text) {
      ink.literal(text, codes);
    },
    load(text) {
      const { length } = text;
      if (length > LONGEST) return -1;
      let width = 0;
      let special = 0;
      for (let index = 0; index < length; index++) {
        const code = codes[text.charCodeAt(index)]!;
        if (code === 0) return -1;
        const one = widths[code]!;
        loadedCodes[index] = code;
        advances[index] = one;
        width += one;
        special |= specials[code]!;
      }
      loadedText = text;
      hasSpecial = special !== 0;
      return width;
    },
    put(ink, from, to) {
      if (hasSpecial) ink.literal(loadedText.slice(from, to), codes);
      else ink.byte(0x28).stretch(loadedCodes, from, to).byte(0x29);
    },
    writeWithin(ink, text, room) {
      const { length } = text;
      const buffer = ink.open(length * 2 + 2);
      let at = ink.length;
      let width = 0;
      buffer[at++] = 0x28;
      for (let index = 0; index < length; index++) {
        const code = codes[text.charCodeAt(index)]!;
        if (code === 0) return false;
        width += widths[code]!;
        if (specials[code] === 1) buffer[at++] = 0x5c;
        buffer[at++] = code;
      }
      if (width > room) return false;
      buffer[at++] = 0x29;
      ink.length = at;
      return true;
    },
  };
}

/** A composite font of two-byte codes (ISO 32000-2, 9.7). @param codes code of each code point @param widths by code, of 1000 to the em */
export function compositeFace(
  names: { resource: string; baseFont: string },
  line: LineMetrics,
  codes: ReadonlyMap<number, number>,
  widthOf: (code: number) => number,
): CodedFace {
  const inkOf = (points: Iterable<number>): Ink => {
    let [top, bottom] = [0, 0];
    for (const point of points) {
      const ink = roughInk(point, winAnsiCodes);
      top = Math.max(top, ink.top);
      bottom = Math.max(bottom, ink.bottom);
    }
    return { top, bottom };
  };
  return {
    ...names,
    line,
    reach: inkOf(codes.keys()),
    ink: (text) => inkOf(Array.from(text, (char) => char.codePointAt(0)!)),
    has: (codePoint) => codes.has(codePoint),
    measure(text) {
      let width = 0;
      for (const char of text) {
        const code = codes.get(char.codePointAt(0)!);
        if (code === undefined) return -1;
        width += widthOf(code);
      }
      return width;
    },
    write(ink, text) {
      ink.byte(0x3c);
      for (const char of text) ink.ascii((codes.get(char.codePointAt(0)!) ?? 0).toString(16).padStart(4, '0'));
      ink.byte(0x3e);
    },
    load(text) {
      if (text.length > LONGEST) return -1;
      let width = 0;
      for (let index = 0; index < text.length;) {
        const point = text.codePointAt(index)!;
        const code = codes.get(point);
        if (code === undefined) return -1;
        width += advances[index] = widthOf(code);
        if (point > 0xffff) advances[index + 1] = 0;
        index += point > 0xffff ? 2 : 1;
      }
      loadedText = text;
      return width;
    },
    put(ink, from, to) {
      this.write(ink, loadedText.slice(from, to));
    },
    writeWithin(ink, text, room) {
      const width = this.measure(text);
      if (width < 0 || width > room) return false;
      this.write(ink, text);
      return true;
    },
  };
}

/** WinAnsi code of each UTF-16 unit; 0: none. */
export const winAnsiCodes: Uint8Array = (() => {
  const codes = new Uint8Array(65_536);
  for (const codePoint of Encodings.WinAnsi.supportedCodePoints) {
    const { code } = Encodings.WinAnsi.encodeUnicodeCodePoint(codePoint);
    if (code >= 32) codes[codePoint] = code;
  }
  codes[0xa0] = 0xa0;
  codes[0xad] = 0xad;
  return codes;
})();
export const inWinAnsi = (codePoint: number): boolean => codePoint < 0x10000 && winAnsiCodes[codePoint] !== 0;

const standards = new Map<string, CodedFace>();

/** One of the standard 14 text fonts with WinAnsiEncoding (ISO 32000-2, 9.6.2.2), measured by its AFM file. */
export function standardFace(baseFont: string): CodedFace {
  const known = standards.get(baseFont);
  if (known) return known;
  const font = Font.load(baseFont as IFontNames);
  const widths = new Float64Array(256).fill(font.getWidthOfGlyph('space') ?? 250);
  for (const codePoint of Encodings.WinAnsi.supportedCodePoints) {
    const { code, name } = Encodings.WinAnsi.encodeUnicodeCodePoint(codePoint);
    widths[code] = font.getWidthOfGlyph(name) ?? 250;
  }
  widths[0xad] = widths[0x2d]!;
  const [, low, , high] = font.FontBBox;
  const face = simpleFace(
    { resource: `Mb${baseFont}`, baseFont },
    { height: high - low, foot: -(font.Descender ?? -250) },
    winAnsiCodes,
    widths,
    extentsOf(baseFont),
  );
  standards.set(baseFont, face);
  return face;
}

/** Whether a viewer has a font by itself: the standard 14 and the names under which the same faces go about (ISO 32000-2, 9.6.2.2). */
export const isStandard = (name: string): boolean =>
  /^(Helvetica|Times|Courier|Symbol|ZapfDingbats|Arial|ArialMT|TimesNewRoman|TimesNewRomanPS|TimesNewRomanPSMT|CourierNew|CourierNewPSMT)([-,].*)?$/.test(
    name,
  );
