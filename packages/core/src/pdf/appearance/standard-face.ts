import { Encodings, Font } from '@pdf-lib/standard-fonts';
import type { IFontNames } from '@pdf-lib/standard-fonts';

/** One of the standard 14 fonts with WinAnsiEncoding (ISO 32000-2, 9.6.2.2), measured by its AFM file. */
export interface StandardFace {
  baseFont: string;
  /** Of 1000 to the em. */
  ascender: number;
  descender: number;
  /** Widths by WinAnsi code, of 1000 to the em. */
  widths: Float64Array;
}

const loaded = new Map<string, StandardFace>();

/** WinAnsi code of a code point; undefined when WinAnsi has none. */
const winAnsi = new Map<number, number>(
  Encodings.WinAnsi.supportedCodePoints.map((codePoint) => [codePoint, Encodings.WinAnsi.encodeUnicodeCodePoint(codePoint).code]),
);
export const winAnsiCode = (codePoint: number): number | undefined => winAnsi.get(codePoint);

export function standardFace(baseFont: string): StandardFace {
  const known = loaded.get(baseFont);
  if (known) return known;
  const font = Font.load(baseFont as IFontNames);
  const widths = new Float64Array(256);
  for (const codePoint of Encodings.WinAnsi.supportedCodePoints) {
    const { code, name } = Encodings.WinAnsi.encodeUnicodeCodePoint(codePoint);
    widths[code] = font.getWidthOfGlyph(name) ?? 250;
  }
  const face = { baseFont, ascender: font.Ascender ?? 750, descender: font.Descender ?? -250, widths };
  loaded.set(baseFont, face);
  return face;
}

/** The standard font nearest to a font by its name: family, bold, slanted. */
export function nearestStandardFace(fontName: string): StandardFace {
  const bare = fontName.replace(/^[A-Z]{6}\+/, '');
  const bold = /bold|black|heavy|semi|,b|HeBo|TiBo|CoBo|TiBI|HeBI|CoBI/i.test(bare);
  const slanted = /ital|obli|HeOb|TiIt|CoOb|TiBI|HeBI|CoBI/i.test(bare);
  if (/cour|mono|consol|typewriter|cmtt|^Co(Bo|Ob|BO|BI)?$/i.test(bare)) {
    return standardFace(bold ? (slanted ? 'Courier-BoldOblique' : 'Courier-Bold') : slanted ? 'Courier-Oblique' : 'Courier');
  }
  if (/times|serif(?!.*sans)|roman|georgia|garamond|cambria|palatino|book|cmr|^Ti(Ro|Bo|It|BI)$/i.test(bare) && !/sans/i.test(bare)) {
    return standardFace(bold ? (slanted ? 'Times-BoldItalic' : 'Times-Bold') : slanted ? 'Times-Italic' : 'Times-Roman');
  }
  return standardFace(bold ? (slanted ? 'Helvetica-BoldOblique' : 'Helvetica-Bold') : slanted ? 'Helvetica-Oblique' : 'Helvetica');
}
