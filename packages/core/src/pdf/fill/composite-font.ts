/** A character code of a bundled face: the glyph it draws, the text it stands for, its width of 1000 to the em. */
export interface UsedCode {
  glyph: number;
  text: string;
  width: number;
}

/**
 * Character codes counted from 1. One glyph can stand for several texts (a dotless Arabic base, for example), and one
 * that tells the text of several is as wide as all of them, so each glyph has a code for each text and width.
 */
export class CodeTable {
  readonly codes: UsedCode[] = [];
  private readonly byKey = new Map<string, number>();

  /** The code of a glyph, its text and its width; undefined when it has none. */
  find(glyph: number, text: string, width: number): number | undefined {
    return this.byKey.get(`${glyph} ${Math.round(width)} ${text}`);
  }
  add(glyph: number, text: string, width: number): number {
    const key = `${glyph} ${Math.round(width)} ${text}`;
    let code = this.byKey.get(key);
    if (code === undefined) this.byKey.set(key, (code = this.codes.push({ glyph, text, width: Math.round(width) })));
    return code;
  }
}

export const hex4 = (value: number): string => value.toString(16).padStart(4, '0');
/** UTF-16BE in hexadecimal. */
export const utf16 = (text: string): string => {
  let out = '';
  for (let index = 0; index < text.length; index++) out += hex4(text.charCodeAt(index));
  return out;
};

/** ToUnicode (ISO 32000-2, 9.10.3): what each character code stands for, at most 100 lines a section. */
export function toUnicode(codes: readonly UsedCode[]): string {
  const lines = codes.flatMap(({ text }, index) => (text ? [`<${hex4(index + 1)}><${utf16(text)}>`] : []));
  let body = '';
  for (let from = 0; from < lines.length; from += 100) {
    const part = lines.slice(from, from + 100);
    body += `${part.length} beginbfchar\n${part.join('\n')}\nendbfchar\n`;
  }
  return (
    '/CIDInit/ProcSet findresource begin\n12 dict begin\nbegincmap\n/CIDSystemInfo<</Registry(Adobe)/Ordering(UCS)/Supplement 0>>def\n' +
    `/CMapName/Adobe-Identity-UCS def\n/CMapType 2 def\n1 begincodespacerange\n<0000><ffff>\nendcodespacerange\n${body}endcmap\nCMapName currentdict /CMap defineresource pop\nend\nend`
  );
}

/** CIDToGIDMap (ISO 32000-2, table 115) in hexadecimal: the glyph of each code, two bytes each, that of code 0 first. */
export const glyphMap = (codes: readonly UsedCode[]): string => `0000${codes.map(({ glyph }) => hex4(glyph)).join('')}`;

/** The CIDFont of the codes. <41646f6265> is Adobe, <4964656e74697479> Identity: strings stand in hexadecimal wherever Mailbag writes. */
export const descendantFont = (face: { name: string; descriptor: number }, codes: readonly UsedCode[], glyphs: number): string =>
  `<</Type/Font/Subtype/CIDFontType2/BaseFont/${face.name}/CIDSystemInfo<</Registry<41646f6265>/Ordering<4964656e74697479>/Supplement 0>>` +
  `/FontDescriptor ${face.descriptor} 0 R/DW 1000/W[1[${codes.map(({ width }) => width).join(' ')}]]/CIDToGIDMap ${glyphs} 0 R>>`;

export const compositeFont = (face: { name: string }, descendant: number, map: number): string =>
  `<</Type/Font/Subtype/Type0/BaseFont/${face.name}/Encoding/Identity-H/DescendantFonts[${descendant} 0 R]/ToUnicode ${map} 0 R>>`;
