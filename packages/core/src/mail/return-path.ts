/**
 * The address to which a delivery's bounces come back: the bounce mailbox with the delivery's token behind a plus (variable envelope return path;
 * the plus is common practice, RFC 5233 describes it). Only letters and digits stand in a token, so it survives servers that change case.
 */
export function returnPath(mailbox: string, token: string): string {
  const at = mailbox.lastIndexOf('@');
  return `${mailbox.slice(0, at)}+${token}${mailbox.slice(at)}`;
}

/** Twenty digits and letters behind a plus, before the @. */
const TOKEN = /\+([0-9a-v]{20})@/i;

/** The token in an address or in any text that holds one; null: none. */
export function returnToken(text: string): string | null {
  return TOKEN.exec(text)?.[1]?.toLowerCase() ?? null;
}

const DIGITS = '0123456789abcdefghijklmnopqrstuv';
/** A token from the host's random source. @param random at least 20 bytes */
export const newReturnToken = (random: Uint8Array): string => Array.from(random.subarray(0, 20), (byte) => DIGITS[byte & 31]).join('');
