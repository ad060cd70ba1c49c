/** Characters of a copy code: digits and letters without I, L, O and U, which are misread. */
const ALPHABET = '0123456789ABCDEFGHJKMNPQRSTVWXYZ';
/** ISO/IEC 7064, MOD 37,36: the alphabet of the check character. */
const CHECK_ALPHABET = '0123456789ABCDEFGHIJKLMNOPQRSTUVWXYZ';

/** Check character of ISO/IEC 7064, hybrid system MOD 37,36. */
export function checkCharacter(text: string): string {
  let product = 36;
  for (const char of text) {
    const sum = (product + CHECK_ALPHABET.indexOf(char)) % 36 || 36;
    product = (sum * 2) % 37;
  }
  return CHECK_ALPHABET[(37 - product) % 36]!;
}

/** A copy code: ten characters and a check character, in groups: `4KQ8-ZT0V-7Q-C`. @param random bytes from the host's random source, at least 10 */
export function copyCode(random: Uint8Array): string {
  const body = Array.from(random.subarray(0, 10), (byte) => ALPHABET[byte & 31]).join('');
  return `${body.slice(0, 4)}-${body.slice(4, 8)}-${body.slice(8)}${checkCharacter(body)}`;
}

/** Whether a text is a copy code with the right check character; groups and case do not matter. */
export function isCopyCode(text: string): boolean {
  const bare = text.toUpperCase().replace(/[\s-]/g, '');
  return bare.length === 11 && /^[0-9A-Z]+$/.test(bare) && checkCharacter(bare.slice(0, 10)) === bare[10];
}
