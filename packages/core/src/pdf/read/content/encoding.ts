import { Encodings } from '@pdf-lib/standard-fonts';
import type { PDFDict } from '@cantoo/pdf-lib';
import { PDFArray, PDFDict as Dict, PDFName, PDFNumber } from '@cantoo/pdf-lib';
import { entry, nameText } from '../document.js';

const winAnsi: string[] = new Array<string>(256).fill('');
const namesToText = new Map<string, string>();
for (const codePoint of Encodings.WinAnsi.supportedCodePoints) {
  const { code, name } = Encodings.WinAnsi.encodeUnicodeCodePoint(codePoint);
  winAnsi[code] = String.fromCodePoint(codePoint);
  if (!namesToText.has(name)) namesToText.set(name, String.fromCodePoint(codePoint));
}
/** Names of glyphs beyond WinAnsi that PDFDocEncoding and Latin forms use (ISO 32000-2, annex D). */
const more: Record<string, string> = {
  breve: '˘', caron: 'ˇ', dotaccent: '˙', dotlessi: 'ı', fi: 'ﬁ', fl: 'ﬂ', fraction: '⁄', hungarumlaut: '˝', Lslash: 'Ł', lslash: 'ł', minus: '−',
  ogonek: '˛', ring: '˚', Zcaron: 'Ž', zcaron: 'ž', Scaron: 'Š', scaron: 'š', Euro: '€', nbspace: '\u00a0', sfthyphen: '\u00ad', circumflex: 'ˆ', tilde: '˜',
  Abreve: 'Ă', abreve: 'ă', Aogonek: 'Ą', aogonek: 'ą', Cacute: 'Ć', cacute: 'ć', Ccaron: 'Č', ccaron: 'č', Dcaron: 'Ď', dcaron: 'ď', Dcroat: 'Đ',
  dcroat: 'đ', Ecaron: 'Ě', ecaron: 'ě', Eogonek: 'Ę', eogonek: 'ę', Gbreve: 'Ğ', gbreve: 'ğ', Idotaccent: 'İ', Lacute: 'Ĺ', lacute: 'ĺ', Lcaron: 'Ľ',
  lcaron: 'ľ', Nacute: 'Ń', nacute: 'ń', Ncaron: 'Ň', ncaron: 'ň', Ohungarumlaut: 'Ő', ohungarumlaut: 'ő', Racute: 'Ŕ', racute: 'ŕ', Rcaron: 'Ř',
  rcaron: 'ř', Sacute: 'Ś', sacute: 'ś', Scedilla: 'Ş', scedilla: 'ş', Tcaron: 'Ť', tcaron: 'ť', Uhungarumlaut: 'Ű', uhungarumlaut: 'ű', Uring: 'Ů',
  uring: 'ů', Zacute: 'Ź', zacute: 'ź', Zdotaccent: 'Ż', zdotaccent: 'ż',
}; // prettier-ignore
for (const [name, text] of Object.entries(more)) if (!namesToText.has(name)) namesToText.set(name, text);

/** The text of a glyph's name; undefined when it tells none. */
export function glyphText(name: string): string | undefined {
  const known = namesToText.get(name) ?? namesToText.get(name.split('.')[0]!);
  if (known !== undefined) return known;
  const code = /^(?:uni|u)([0-9A-F]{4,6})$/.exec(name);
  return code ? String.fromCodePoint(Math.min(0x10ffff, Number.parseInt(code[1]!, 16))) : undefined;
}

/** Upper half of MacRomanEncoding (ISO 32000-2, annex D.2), from code 0x80. */
const MAC_ROMAN =
  'ÄÅÇÉÑÖÜáàâäãåçéèêëíìîïñóòôöõúùûü†°¢£§•¶ß®©™´¨≠ÆØ∞±≤≥¥µ∂∑∏π∫ªºΩæø¿¡¬√ƒ≈∆«»…\u00a0ÀÃÕŒœ–—“”‘’÷◊ÿŸ⁄€‹›ﬁﬂ‡·‚„‰ÂÊÁËÈÍÎÏÌÓÔ\uf8ffÒÚÛÙıˆ˜¯˘˙˚¸˝˛ˇ';
/** StandardEncoding where it differs from ASCII and from WinAnsi (ISO 32000-2, annex D.2). */
const STANDARD: Record<number, string> = {
  0x27: '’', 0x60: '‘', 0xa1: '¡', 0xa2: '¢', 0xa3: '£', 0xa4: '⁄', 0xa5: '¥', 0xa6: 'ƒ', 0xa7: '§', 0xa8: '¤', 0xa9: "'", 0xaa: '“', 0xab: '«',
  0xac: '‹', 0xad: '›', 0xae: 'ﬁ', 0xaf: 'ﬂ', 0xb1: '–', 0xb2: '†', 0xb3: '‡', 0xb4: '·', 0xb6: '¶', 0xb7: '•', 0xb8: '‚', 0xb9: '„', 0xba: '”',
  0xbb: '»', 0xbc: '…', 0xbd: '‰', 0xbf: '¿', 0xd0: '—', 0xe1: 'Æ', 0xe3: 'ª', 0xe8: 'Ł', 0xe9: 'Ø', 0xea: 'Œ', 0xeb: 'º', 0xf1: 'æ', 0xf5: 'ı',
  0xf8: 'ł', 0xf9: 'ø', 0xfa: 'œ', 0xfb: 'ß',
}; // prettier-ignore

function baseEncoding(name: string | undefined): string[] {
  if (name === 'MacRomanEncoding') return winAnsi.map((text, code) => (code < 0x80 ? text : (MAC_ROMAN[code - 0x80] ?? '')));
  if (name === 'WinAnsiEncoding') return [...winAnsi];
  return winAnsi.map((text, code) => STANDARD[code] ?? (code < 0x80 ? text : ''));
}

/** The text of each code of a simple font (ISO 32000-2, 9.6.5); '' where none is known. Null: the font has only an encoding of its own. */
export function simpleEncoding(font: PDFDict): string[] | null {
  const encoding = entry(font, 'Encoding');
  if (encoding instanceof PDFName) return baseEncoding(nameText(encoding));
  if (!(encoding instanceof Dict)) return null;
  const base = entry(encoding, 'BaseEncoding');
  const table = baseEncoding(base instanceof PDFName ? nameText(base) : undefined);
  const differences = entry(encoding, 'Differences');
  if (differences instanceof PDFArray) {
    let code = 0;
    for (let index = 0; index < differences.size(); index++) {
      const one = differences.lookup(index);
      if (one instanceof PDFNumber) code = one.asNumber();
      else if (one instanceof PDFName && code >= 0 && code < 256) table[code++] = glyphText(nameText(one)) ?? '';
    }
  }
  return table;
}
