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

const withoutSpecials = (text: string): string => text.replace(/[łøđðþßæœħıŋŧ]/g, (letter) => plain[letter]!);
const isAscii = (text: string): boolean => /^[\u0000-\u007f]*$/.test(text);

/** Whether texts hold another one, whatever the case. Marks count only where who looks has typed some: `zoe` finds `Zoë`, `zoë` does not find `Zoe`. */
export function textFinder(wanted: string): (text: string) => boolean {
  const looked = wanted.normalize('NFC').toLowerCase();
  if (isAscii(looked)) return (text) => (isAscii(text) ? text.toLowerCase() : withoutSpecials(foldedText(text))).includes(looked);
  return (text) => !isAscii(text) && text.normalize('NFC').toLowerCase().includes(looked);
}

/** What a copy is found by: its text, and beside it those words that people type without special letters (`Łucja` as `lucja`). */
export function searchText(text: string): string {
  if (isAscii(text)) return text;
  const special = searchWords(text).filter((word) => /[łøđðþßæœħıŋŧ]/.test(word));
  return special.length === 0 ? text : `${text} ${special.map(withoutSpecials).join(' ')}`;
}
