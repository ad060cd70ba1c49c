const collator = new Intl.Collator('en', { sensitivity: 'base', numeric: true });

/** A text so that code units order most texts as the collation does: letters without case and marks, numbers by how many digits they have. */
const roughly = (text: string): string => {
  const small = text.toLowerCase();
  const plain = /^[\u0000-\u007f]*$/.test(small) ? small : small.normalize('NFD').replace(/\p{M}/gu, '');
  return plain.replace(/\d+/g, (digits) => {
    const number = digits.replace(/^0+(?=\d)/, '');
    return `${String(Math.min(number.length, 99)).padStart(2, '0')}${number}`;
  });
};

/**
 * Things ordered by a text as people look for it: letters without regard to case and marks, numbers within it by their value (Unicode Collation
 * Algorithm, UTS 10, with numeric ordering); what is equal stays as it came.
 *
 * Comparing by the collation is slow: things are put roughly in order first, after which there is little left to compare.
 */
export function inReadingOrder<T>(things: readonly T[], textOf: (thing: T) => string): T[] {
  const keyed = things.map((thing, at) => ({ thing, at, text: textOf(thing), rough: '' }));
  for (const one of keyed) one.rough = roughly(one.text);
  keyed.sort((one, other) => (one.rough < other.rough ? -1 : one.rough > other.rough ? 1 : one.at - other.at));
  keyed.sort((one, other) => collator.compare(one.text, other.text) || one.at - other.at);
  return keyed.map(({ thing }) => thing);
}
