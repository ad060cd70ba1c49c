import type { CodedFace } from './coded-face.js';
import { standardFace } from './coded-face.js';

/** What a font descriptor tells of a font's kind (ISO 32000-2, 9.8). */
export interface FontTraits {
  /** Flags, table 121; null: none. */
  flags: number | null;
  /** FontWeight, 100 to 900. */
  weight: number | null;
  /** ItalicAngle, degrees. */
  slant: number | null;
  /** The ten bytes of PANOSE classification; empty: none. */
  panose: readonly number[];
  /** FontStretch, such as `Condensed`; null: none. */
  stretch: string | null;
  /** Widths of Latin letters as the form tells them, of 1000 to the em, by character. */
  widths: ReadonlyMap<string, number>;
}

export const noTraits: FontTraits = { flags: null, weight: null, slant: null, panose: [], stretch: null, widths: new Map() };

/** Bits of Flags: fixed pitch (1), serif (2), italic (7), force bold (19). */
const [FIXED, SERIF, ITALIC, FORCE_BOLD] = [1, 2, 64, 262_144];
/** PANOSE of Latin text faces: family kind 2; serif styles from 11 on are without serifs; weights from 8 on are bold; proportion 9 is monospaced. */
const LATIN_TEXT = 2;

/** Words of family names. Those without serifs come first, since “Roman” and “Book” are weights there. */
const FIXED_FAMILY = /cour|mono|consol|typewriter|cmtt|fixed|ocr|lettergothic|menlo|terminal/i;
const SANS_FAMILY =
  /sans|helv|arial|gothic|frutiger|univers|futura|avenir|myriad|verdana|tahoma|calibri|segoe|roboto|lato|gill|optima|meta|akzidenz|grotes?[kq]|din(?![a-z])|inter(?![a-z])|trebuchet|candara|corbel|lucidagrande|swiss|nimbussan|ubuntu|officina|interstate|thesis|barlow|carlito|montserrat/i;
const SERIF_FAMILY =
  /times|serif|tinos|georgia|garamond|cambria|palatino|palladio|bookman|book ?antiqua|schoolbook|schlbk|century|minion|caslon|basker|bodoni|didot|cmr|cmb|cmti|roman|nimbusrom|charter|sabon|goudy|utopia|constantia|rockwell|clarendon|caladea|antiqua|sylfaen/i;

/** The part of a name that says weight and slope: after the first hyphen or comma, or the whole name when there is none. */
function styleOf(name: string): string {
  const at = name.search(/[-,]/);
  return at >= 0 ? name.slice(at + 1) : name;
}

const BOLD =
  /bold|black|heavy|demi|semib|extrab|ultrab|fett|gras|(^|[^a-z])b($|i$)|(Bd|Hv|Blk|Blck|Sb|XBd|Dm)(?![a-z])|(HeBo|TiBo|CoBo|TiBI|HeBI|CoBI|HeBO|CoBO)$/;
const BOLD_ANY = /bold|black|heavy|demi|semib|extrab|ultrab|fett|gras/i;
const SLANTED_ANY = /ital|obliq|obl(?![a-z])|slant|inclin|kursiv|cursiv/i;
const SLANTED = /(It|Ita|Obl|Ob|Ks|Kurs)(?![a-z])|(^|[^a-z])(b?i)$|(HeOb|TiIt|CoOb|TiBI|HeBI|CoBI|HeBO|CoBO)$/;

/** The standard font nearest to a font: family, weight and slope by its name; where that says nothing, by its descriptor. Bold stays bold. */
export function nearestStandardFace(fontName: string, traits: FontTraits = noTraits): CodedFace {
  const bare = fontName.replace(/^[A-Z]{6}\+/, '').replace(/(MT|PS|PSMT|LT|Std|Pro|LTStd|LTPro)(?=[-,]|$)/g, '');
  const style = styleOf(bare);
  const { flags, panose } = traits;
  const isLatin = panose[0] === LATIN_TEXT;
  const has = (bit: number): boolean => flags !== null && (flags & bit) !== 0;
  const bold =
    BOLD_ANY.test(bare) || BOLD.test(style) || has(FORCE_BOLD) || (traits.weight ?? 0) >= 600 || (isLatin && (panose[2] ?? 0) >= 8);
  const slanted = SLANTED_ANY.test(bare) || SLANTED.test(style) || has(ITALIC) || Math.abs(traits.slant ?? 0) > 2;
  if (
    /^Co(ur|Bo|Ob|BO|BI)$/.test(bare) ||
    FIXED_FAMILY.test(bare) ||
    (!SANS_FAMILY.test(bare) && !SERIF_FAMILY.test(bare) && isFixed(traits))
  )
    return standardFace(bold ? (slanted ? 'Courier-BoldOblique' : 'Courier-Bold') : slanted ? 'Courier-Oblique' : 'Courier');
  if (/^Ti(Ro|Bo|It|BI)$/.test(bare) || (!SANS_FAMILY.test(bare) && (SERIF_FAMILY.test(bare) || hasSerifs(traits, bare))))
    return standardFace(bold ? (slanted ? 'Times-BoldItalic' : 'Times-Bold') : slanted ? 'Times-Italic' : 'Times-Roman');
  return standardFace(bold ? (slanted ? 'Helvetica-BoldOblique' : 'Helvetica-Bold') : slanted ? 'Helvetica-Oblique' : 'Helvetica');
}

const isFixed = ({ flags, panose }: FontTraits): boolean =>
  (flags !== null && (flags & FIXED) !== 0) || (panose[0] === LATIN_TEXT && panose[3] === 9);

/** PANOSE is believed before the flags, which many producers leave at what they write for every font. */
function hasSerifs({ flags, panose }: FontTraits, name: string): boolean {
  const style = panose[0] === LATIN_TEXT ? (panose[1] ?? 0) : 0;
  if (style >= 2) return style <= 10;
  return flags !== null && (flags & SERIF) !== 0 && !/^He(lv|Bo|Ob|BO|BI)$/.test(name);
}

const VERY_NARROW = /ultra-?cond|extra-?cond|compress|(XCn|UltCn|ExtCn|UltraCn)(?![a-z])/i;
const NARROW = /(Cn|Cond|Nar)(?![a-z])/;
const NARROW_ANY = /condens|narrow|schmal/i;
/** How wide faces of these kinds are beside their regular ones: Arial Narrow is drawn at 82 % of Arial; common practice, no source for the narrowest. */
const [WIDTH_OF_NARROW, WIDTH_OF_VERY_NARROW] = [0.82, 0.66];
/** Differences below this are those between any two families. */
const SAME = 0.03;

/**
 * How much narrower than a standard face a font is that is drawn with it: by the widths that the form tells; where it tells none, by its kind.
 * @returns 1 for what is as wide, or wider: that only leaves room
 */
export function narrowness(fontName: string, traits: FontTraits, face: Pick<CodedFace, 'measure'>): number {
  let [own, standard] = [0, 0];
  for (const [letter, width] of traits.widths) {
    const usual = face.measure(letter);
    if (usual <= 0 || width <= 0) continue;
    own += width;
    standard += usual;
  }
  if (standard > 0) return own / standard > 1 - SAME ? 1 : Math.max(0.4, own / standard);
  const [proportion = 0] = traits.panose[0] === LATIN_TEXT ? traits.panose.slice(3, 4) : [];
  const stretch = traits.stretch ?? '';
  if (/^(Ultra|Extra)Condensed$/.test(stretch) || proportion === 8 || VERY_NARROW.test(fontName)) return WIDTH_OF_VERY_NARROW;
  if (stretch === 'Condensed' || proportion === 6 || NARROW_ANY.test(fontName) || NARROW.test(fontName)) return WIDTH_OF_NARROW;
  return 1;
}
