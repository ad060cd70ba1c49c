const segmenter = new Intl.Segmenter('und', { granularity: 'grapheme' });
/** Letters that are one character each, whatever stands beside them: ASCII without line breaks, Latin, Greek and Cyrillic without marks of their own. */
const PLAIN = /^[\u0020-\u02ff\u0370-\u0482\u048a-\u058f]*$/;

/** Characters as a person counts them: extended grapheme clusters (UAX #29), so that a letter with its marks is one. */
export function graphemes(text: string): string[] {
  return PLAIN.test(text) ? text.split('') : Array.from(segmenter.segment(text), ({ segment }) => segment);
}

/** How many characters a person counts in a text. */
export const graphemeCount = (text: string): number => (PLAIN.test(text) ? text.length : graphemes(text).length);
