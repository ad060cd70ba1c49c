import { MailbagError } from '../../../errors/catalogue.js';
import type { Ciphers } from '../../../platform/ports.js';
import { joined } from '../../byte-writer.js';

/** Longest password in bytes (ISO 32000-2, 7.6.4.3.2). */
const LONGEST = 127;
/** Characters that SASLprep maps to a space or to nothing (RFC 4013, 2.1, by the tables of RFC 3454). */
const SPACES = /[\u00a0\u1680\u2000-\u200b\u202f\u205f\u3000]/g;
const NOTHING = /[\u00ad\u034f\u1806\u180b-\u180d\u200c\u200d\u2060\ufe00-\ufe0f\ufeff]/g;

/** A password as the bytes that are hashed. @throws MailbagError password-long */
export function passwordBytes(password: string): Uint8Array {
  const bytes = new TextEncoder().encode(password.replace(SPACES, ' ').replace(NOTHING, '').normalize('NFKC'));
  if (bytes.length > LONGEST) throw new MailbagError('password-long', { length: bytes.length, limit: LONGEST });
  return bytes;
}

/** Algorithm 2.B of ISO 32000-2: the hash of revision 6. @param user the 48 bytes of U when an owner's password is hashed */
export function passwordHash(ciphers: Ciphers, password: Uint8Array, salt: Uint8Array, user: Uint8Array = new Uint8Array()): Uint8Array {
  let key = ciphers.digest(256, password, salt, user);
  for (let round = 0; ; round++) {
    const once = joined(password, key, user);
    const block = new Uint8Array(once.length * 64);
    for (let copy = 0; copy < 64; copy++) block.set(once, copy * once.length);
    const encrypted = ciphers.encryptCbc(key.subarray(0, 16), key.subarray(16, 32), block);
    // 256 is 1 modulo 3, so the first 16 bytes as one number have the remainder of their sum.
    let sum = 0;
    for (let index = 0; index < 16; index++) sum += encrypted[index]!;
    key = ciphers.digest(([256, 384, 512] as const)[sum % 3]!, encrypted);
    if (round >= 63 && encrypted[encrypted.length - 1]! <= round - 31) return key.subarray(0, 32);
  }
}
