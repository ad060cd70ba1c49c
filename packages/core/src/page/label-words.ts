import { trimEnds } from '../text/trim.js';

/** Characters of a label; longer ones are cut at a word. */
const LONGEST = 90;

/** A line's number or letter in front of its words: `7`, `12a.`, `(b)`, `iv)`. */
const NUMBERING = /^(?:\(?(?:\d{1,3}[a-z]?|[a-z]|[ivx]{1,4})[.)]\s+|\d{1,3}[a-z]?\s+(?=\p{Lu}\p{Ll}))/u;
/** The end of what was said before the blank in front: `, 2026, ending`. */
const SENTENCE_BEFORE = /^(?:[,;]\s*)?(?:(?:1[89]|20)\d\d)\s*,\s+(?=\p{L})/u;
/** Marks of footnotes at the end of words. */
const FOOTNOTE = /(?<=[\p{L})])\s?[*†‡§¹²³⁴⁵⁶⁷⁸⁹]+$/u;

/** A line's number by itself, as it stands before and behind the words of a line: `7`, `8a`. */
const NUMBER_ALONE = /^\(?\d{1,3} ?[a-z]?[.)]*$/;

const hasLetters = (text: string): boolean => /\p{L}/u.test(text);

/** Printed words as a label: without numbering, leaders, colons and footnote marks. Null: no letter stands there. */
export function labelWords(printed: string): string | null {
  const line = printed
    .replace(/(?:[_.\u2026·]\s?){3,}/g, ' ')
    .replace(/\s+/g, ' ')
    .trim();
  const bare = trimEnds(line.replace(SENTENCE_BEFORE, '').replace(NUMBERING, ''), /[\s:*;,]/).replace(/^[\s:*•\-–—□☐○]+/u, '');
  const label = trimEnds(bare.replace(FOOTNOTE, ''), /[\s:([]/);
  if (!hasLetters(label) || NUMBER_ALONE.test(label)) return null;
  if (label.length <= LONGEST) return label;
  return `${label.slice(0, label.lastIndexOf(' ', LONGEST - 1)).trimEnd()}…`;
}

/** Whether words are only a currency or a unit, as they stand before or behind a place for a number (common practice, no source). */
export const isUnit = (words: string): boolean =>
  /^(?:[€$£¥%]|EUR|USD|GBP|CHF|kr\.?|zł|kg|g|lbs?\.?|oz|km|m|cm|mm|ft\.?|in\.?|hrs?\.?|hours|days|years|years old|m²|€ ?\/ ?m²)$/i.test(
    words.trim(),
  );

/** Names and tooltips that programs give by themselves (common practice, no source). */
const GENERIC =
  /^(undefined|untitled|text ?(field|box)?|field|box|check ?box|radio ?(button)?|button|combo ?box|drop ?down|list ?box|group|choice|form|f|c|fill|input|tx|cb|rb|page|top ?most ?sub ?form|sub ?form|feld|textfeld|text ?feld|kontrollk[äa]stchen|optionsfeld|liste|champ|texte|case|campo|testo|texto|casilla|tekst|tekstveld|veld|pole)$/i;

/** Whether words were given by a program and tell a person nothing. */
export const isGeneric = (text: string): boolean =>
  GENERIC.test(
    text
      .replace(/[\d[\]_-]/g, ' ')
      .replace(/\s+/g, ' ')
      .trim(),
  ) || !/\p{L}{2}/u.test(text);

/** A part of a name without the counts in square brackets behind it (`f1_04[0]`). */
const withoutCount = (part: string): string => part.replace(/\[\d+\]/g, '');

/** Bytes of UTF-8 that a program wrote as those of a name of PDF (`#D0#98`, ISO 32000-2, 7.3.5) are letters again. */
const withLetters = (part: string): string =>
  part.replace(/(?:#[89A-F][\dA-F]){2,}/gi, (escaped) => {
    const bytes = Uint8Array.from(escaped.slice(1).split('#'), (digits) => parseInt(digits, 16));
    const text = new TextDecoder().decode(bytes);
    return text.includes('\ufffd') ? escaped : text;
  });

/** Three letters, or two that are written without gaps and say as much. */
const WORD = /\p{L}{3}|[\p{Script=Han}\p{Script=Hiragana}\p{Script=Katakana}\p{Script=Hangul}]{2}/u;
/** What a name says without the numbers in it, by which those of one column or one text are alike; null: nothing. */
export const nameStem = (name: string): string | null => nameWords(name)?.replace(/\d+/g, '').trim().toLowerCase() || null;

/** A technical name in words: its own part, cut where its writing changes. Null: it says nothing to a person. */
export function nameWords(name: string): string | null {
  const parts = name.split('.').map((part) => withLetters(withoutCount(part)).replace(/^#.*/, ''));
  for (const part of parts.reverse()) {
    const words = part
      .replace(/^(txt|tf|fld|chk|cb|rb|ddl|lst|cmb)(?=[A-Z_])_?/, '')
      .replace(/([\p{Ll}\d])(\p{Lu})/gu, '$1 $2')
      .replace(/(\p{Lu})(\p{Lu}\p{Ll})/gu, '$1 $2')
      .replace(/[_\-\s]+/g, ' ')
      .replace(/\be mail\b/gi, 'e-mail')
      .trim();
    if (words === '' || isGeneric(words.replace(/ /g, '')) || isGeneric(words) || !WORD.test(words) || /^f?\d+ \d+$/.test(words)) continue;
    return words[0]!.toUpperCase() + words.slice(1);
  }
  return null;
}

const wordsOf = (text: string): string[] =>
  text
    .toLowerCase()
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/** Whether all words of a text stand in another one. */
export function saysNoMore(text: string, than: string): boolean {
  const known = new Set(wordsOf(than));
  return wordsOf(text).every((word) => known.has(word));
}

/** Whether a tooltip only repeats the name that programs use. */
export function repeatsName(tooltip: string, name: string): boolean {
  const bare = (text: string): string => text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
  const own = withoutCount(name.split('.').at(-1)!);
  const isTechnical = /[_\d[\]]|\p{Ll}\p{Lu}/u.test(tooltip.trim()) && !/\s/.test(tooltip.trim());
  return isTechnical && (bare(tooltip) === bare(own) || bare(tooltip) === bare(name));
}

/** Words as they are compared: small letters and digits, with one space between them. */
export const bareWords = (words: string | null): string =>
  (words ?? '')
    .toLowerCase()
    .replace(/[^\p{L}\p{N}]+/gu, ' ')
    .trim();
