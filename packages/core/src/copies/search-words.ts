/** Letters that are no letter with a mark, and what people type in their place; common practice, no source. */
const plain: Record<string, string> = {
  ł: 'l',
  ø: 'o',
  đ: 'd',
  ð: 'd',
  þ: 'th',
  ß: 'ss',
  æ: 'ae',
  œ: 'oe',
  ħ: 'h',
  ı: 'i',
  ŋ: 'n',
  ŧ: 't',
};

/** Small letters without marks. */
export const foldedText = (text: string): string => text.normalize('NFD').replace(/\p{M}/gu, '').toLowerCase();

/** The words of a text as they are looked for. */
export const searchWords = (text: string): string[] =>
  foldedText(text)
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean);

/** What a copy is found by: its text, and beside it those words that people type without special letters (`Łucja` as `lucja`). */
export function searchText(text: string): string {
  const special = searchWords(text).filter((word) => /[łøđðþßæœħıŋŧ]/.test(word));
  return special.length === 0
    ? text
    : `${text} ${special.map((word) => word.replace(/[łøđðþßæœħıŋŧ]/g, (letter) => plain[letter]!)).join(' ')}`;
}
