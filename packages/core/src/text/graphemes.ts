const segmenter = new Intl.Segmenter('und', { granularity: 'grapheme' });
/** Letters that are one character each, whatever stands beside them: ASCII without line breaks, Latin, Greek and Cyrillic without marks of their own. */
const PLAIN = /^[\u0020-\u02ff\u0370-\u0482\u048a-\u058f]*$/;

/** A letter of an Indic script whose vowel is taken away, so that it is joined to the next one (UAX #29, GB9c: linkers between consonants). */
const JOINS_NEXT = /[\u094d\u09cd\u0acd\u0b4d\u0c4d\u0d4d]\u200d?$/;
const INDIC_LETTER = /^[\u0904-\u0939\u0958-\u095f\u0985-\u09b9\u09dc-\u09df\u0a85-\u0ab9\u0b05-\u0b39\u0c05-\u0c39\u0d05-\u0d3a]/;

/** Older tables of the standard break between such letters. */
function withConjuncts(clusters: string[]): string[] {
  const joined: string[] = [];
  for (const cluster of clusters) {
    const before = joined.at(-1);
    if (before !== undefined && JOINS_NEXT.test(before) && INDIC_LETTER.test(cluster)) joined[joined.length - 1] = before + cluster;
    else joined.push(cluster);
  }
  return joined;
}

/** Characters as a person counts them: extended grapheme clusters (UAX #29), so that a letter with its marks is one. */
export function graphemes(text: string): string[] {
  return PLAIN.test(text) ? text.split('') : withConjuncts(Array.from(segmenter.segment(text), ({ segment }) => segment));
}

/** How many characters a person counts in a text. */
export const graphemeCount = (text: string): number => (PLAIN.test(text) ? text.length : graphemes(text).length);
