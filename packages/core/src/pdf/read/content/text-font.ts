import type { PDFDict } from '@cantoo/pdf-lib';
import { PDFDict as Dict, PDFStream } from '@cantoo/pdf-lib';
import { nearestStandardFace } from '../../fill/appearance/nearest-face.js';
import { cidWidths } from '../../fill/appearance/own-face.js';
import { arrayEntry, dictEntry, entry, nameEntry, numberEntry, numbersOf } from '../document.js';
import { streamBytes } from '../../plan/overlay.js';
import { simpleEncoding } from './encoding.js';
import { readToUnicode } from './to-unicode.js';

/** A font as far as it is needed to read what is printed: the text and the width of a shown string. */
export interface TextFont {
  /**
   * @param ends is given, for each character of the text, where it ends
   * @returns text, and width of 1000 to the em
   */
  read(bytes: string, ends?: number[]): { text: string; width: number };
  /** Whether its name says that it is bold. */
  isBold: boolean;
}

const isBold = (font: PDFDict): boolean => /bold|black|heavy|semibold|demi/i.test(nameEntry(font, 'BaseFont') ?? '');

function compositeFont(font: PDFDict): TextFont {
  const toUnicode = entry(font, 'ToUnicode');
  const { texts } =
    toUnicode instanceof PDFStream ? readToUnicode(streamBytes(toUnicode) ?? new Uint8Array()) : { texts: new Map<number, string>() };
  const descendant = arrayEntry(font, 'DescendantFonts')?.lookup(0);
  const widthOf = descendant instanceof Dict ? cidWidths(descendant) : () => 1000;
  return {
    isBold: isBold(font),
    read(bytes, ends) {
      let text = '';
      let width = 0;
      for (let index = 0; index + 1 < bytes.length; index += 2) {
        const code = bytes.charCodeAt(index) * 256 + bytes.charCodeAt(index + 1);
        text += texts.get(code) ?? '';
        width += widthOf(code);
        if (ends) while (ends.length < text.length) ends.push(width);
      }
      return { text, width };
    },
  };
}

/** Boxes and circles of the two usual fonts of signs, by code; their encodings are their own (common practice, no source). */
const SIGNS: readonly [RegExp, Record<number, string>][] = [
  [/ZapfDingbats|ZaDb/, { 0x6c: '●', 0x6d: '❍', 0x6e: '■', 0x6f: '❏', 0x70: '❐', 0x71: '❑', 0x72: '❒', 0x34: '✔' }],
  [/Wingdings/, { 0x6e: '■', 0x6f: '□', 0x70: '❐', 0x71: '❑', 0x72: '❒', 0xa1: '○', 0xa8: '◻', 0xfc: '✔', 0xfe: '☑' }],
];
const signsOf = (name: string): Record<number, string> | undefined => SIGNS.find(([family]) => family.test(name))?.[1];

/** Text of a font that is not there, read as Helvetica. */
function bareText(bytes: string, ends?: number[]): { text: string; width: number } {
  const face = nearestStandardFace('');
  let width = 0;
  for (const char of ends ? bytes : '') ends!.push((width += Math.max(0, face.measure(char))));
  return { text: bytes, width: Math.max(0, face.measure(bytes)) };
}

function simpleFont(font: PDFDict): TextFont {
  const toUnicode = entry(font, 'ToUnicode');
  const told = toUnicode instanceof PDFStream ? readToUnicode(streamBytes(toUnicode) ?? new Uint8Array()).texts : null;
  const table = simpleEncoding(font);
  const widths = numbersOf(arrayEntry(font, 'Widths'));
  const first = numberEntry(font, 'FirstChar') ?? 0;
  const standard = nearestStandardFace(nameEntry(font, 'BaseFont') ?? '');
  const signs = signsOf(nameEntry(font, 'BaseFont') ?? '');
  return {
    isBold: isBold(font),
    read(bytes, ends) {
      let text = '';
      let width = 0;
      for (let index = 0; index < bytes.length; index++) {
        const code = bytes.charCodeAt(index);
        const char = told?.get(code) ?? signs?.[code] ?? table?.[code] ?? (code >= 32 && code < 127 ? String.fromCharCode(code) : '');
        text += char;
        width += widths[code - first] ?? Math.max(0, standard.measure(char || ' '));
        if (ends) while (ends.length < text.length) ends.push(width);
      }
      return { text, width };
    },
  };
}

/** The font of a resource dictionary by its name; one that is not there is read as Helvetica. */
export function textFont(resources: PDFDict | undefined, name: string): TextFont {
  const fonts = resources && dictEntry(resources, 'Font');
  const font = fonts && dictEntry(fonts, name);
  if (!font) return { isBold: false, read: bareText };
  return nameEntry(font, 'Subtype') === 'Type0' ? compositeFont(font) : simpleFont(font);
}
