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
/** Runs of letters beyond ASCII as they are looked for: in most languages they are short and come again and again. */
const plainRuns = new Map<string, string>();
const REMEMBERED = 20_000;
function plainRun(run: string): string {
  const known = plainRuns.get(run);
  if (known !== undefined) return known;
  const found = withoutSpecials(foldedText(run));
  if (run.length <= 24 && plainRuns.size < REMEMBERED) plainRuns.set(run, found);
  return found;
}

/** A text as people type it who look for it: small letters, without marks and special letters. Quick for megabytes of text. */
export const plainText = (text: string): string => text.toLowerCase().replace(/[^\u0000-\u007f]+/g, plainRun);

const isAscii = (text: string): boolean => /^[\u0000-\u007f]*$/.test(text);

/** Whether texts hold another one, whatever the case. Marks count only where who looks has typed some: `zoe` finds `Zoë`, `zoë` does not find `Zoe`. */
export function textFinder(wanted: string): (text: string) => boolean {
  const looked = wanted.normalize('NFC').toLowerCase();
  if (isAscii(looked)) return (text) => plainText(text).includes(looked);
  return (text) => !isAscii(text) && text.normalize('NFC').toLowerCase().includes(looked);
}

/** What a copy is found by: its text, and beside it those words that people type without special letters (`Łucja` as `lucja`). */
export function searchText(text: string): string {
  if (isAscii(text)) return text;
  const special = searchWords(text).filter((word) => /[łøđðþßæœħıŋŧ]/.test(word));
  return special.length === 0 ? text : `${text} ${special.map(withoutSpecials).join(' ')}`;
}
