/** Random letters and digits that nobody else has. Works where the page is not secure, too. */
export const randomKey = (): string =>
  Array.from(crypto.getRandomValues(new Uint8Array(16)), (byte) => byte.toString(16).padStart(2, '0')).join('');
