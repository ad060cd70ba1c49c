/**
 * A text without certain characters at its ends. Goes in from each end once; a pattern that ends in `+$` would begin anew at each of them.
 * @param isTrimmed matches one character
 */
export function trimEnds(text: string, isTrimmed: RegExp, ends: 'both' | 'end' = 'both'): string {
  let [begin, end] = [0, text.length];
  while (end > begin && isTrimmed.test(text[end - 1]!)) end--;
  while (ends === 'both' && begin < end && isTrimmed.test(text[begin]!)) begin++;
  return text.slice(begin, end);
}
