/** Parts of names that stay small between others; common practice, no source. */
const SMALL = new Set(
  ['van', 'von', 'vom', 'zu', 'zur', 'zum', 'der', 'den', 'dem', 'des', 'de', 'del', 'della', 'di', 'da', 'dos', 'das', 'do', 'du', 'la', 'le', 'les', 'ten', 'ter', 'te', "'t", 'af', 'av', 'bin', 'ibn', 'al', 'el', 'y', 'e', 'und', 'and'],
); // prettier-ignore
const HEADS = /^(mc|o['’]|d['’]|l['’])(\p{L})/u;
/** “Mac” before a name; these begin so and are none (common practice, no source). */
const NOT_MAC = /^mac(e|es|edo|ey|h|hado|hin|horr?o|k|kay|key|kie|klin|ou|quarie|ready|y|au|aluso)$/;
const ROMAN = /^(?:i{1,3}|iv|vi{0,3}|ix)$/;

const capital = (word: string): string => {
  const [first = '', ...rest] = [...word];
  return first.toLocaleUpperCase('und') + rest.join('');
};

function caseOf(word: string, isFirst: boolean, isLast: boolean): string {
  const small = word.toLocaleLowerCase('und');
  if (!isFirst && !isLast && SMALL.has(small)) return small;
  if (!isFirst && ROMAN.test(small)) return small.toUpperCase();
  const head = HEADS.exec(small);
  if (head) return capital(head[1]!) + capital(small.slice(head[1]!.length));
  if (small.startsWith('mac') && small.length > 5 && !NOT_MAC.test(small)) return `Mac${capital(small.slice(3))}`;
  return capital(small);
}

/**
 * A name in capitals and small letters: “ANNA VAN DER BERG” is “Anna van der Berg”, “o'neill-mcdonald” is “O'Neill-McDonald”. A name that has both
 * kinds of letters in it already is left to who wrote it, word by word.
 */
export function nameCase(text: string): string {
  const words = text.split(/(\s+|-)/u);
  const names = words.flatMap((word, index) => (/\p{L}/u.test(word) ? [index] : []));
  return words
    .map((word, index) => {
      if (!/\p{L}/u.test(word) || (word !== word.toLocaleUpperCase('und') && word !== word.toLocaleLowerCase('und'))) return word;
      return caseOf(word, index === names[0], index === names.at(-1));
    })
    .join('');
}
