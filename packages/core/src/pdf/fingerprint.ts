import { hexOf } from './hex.js';

const PRIME = 0x01000193;
const digest = new Uint8Array(16);
const words = new DataView(digest.buffer);

/** The lanes with the length mixed in, in hexadecimal. */
function told(a: number, b: number, c: number, d: number, length: number): string {
  words.setInt32(0, Math.imul(a ^ length, PRIME));
  words.setInt32(4, Math.imul(b ^ length, PRIME + 1));
  words.setInt32(8, Math.imul(c ^ length, PRIME + 2));
  words.setInt32(12, Math.imul(d ^ length, PRIME + 3));
  return hexOf(digest);
}

/** A digest of 128 bits in hexadecimal for file identifiers; not for secrets. FNV-1a in four lanes over words of four bytes. */
export function fingerprint(content: Uint8Array | string): string {
  let [a, b, c, d] = [0x811c9dc5, 0x1234567, 0x9e3779b1, 0x85ebca6b];
  const { length } = content;
  if (typeof content === 'string') {
    const lanes = [a, b, c, d] as [number, number, number, number];
    for (let index = 0; index < length; index++) lanes[index & 3] = Math.imul(lanes[index & 3]! ^ content.charCodeAt(index), PRIME);
    return told(...lanes, length);
  }
  // Words are read in the machine's order, which is little-endian wherever Mailbag runs; unaligned bytes are copied first.
  const aligned = content.byteOffset % 4 === 0 ? content : content.slice();
  const whole = new Int32Array(aligned.buffer, aligned.byteOffset, length >> 2);
  let index = 0;
  // The upper bits of a word would stay among themselves: multiplying only carries upwards.
  for (; index + 4 <= whole.length; index += 4) {
    a = Math.imul(a ^ whole[index]!, PRIME);
    a ^= a >>> 15;
    b = Math.imul(b ^ whole[index + 1]!, PRIME);
    b ^= b >>> 15;
    c = Math.imul(c ^ whole[index + 2]!, PRIME);
    c ^= c >>> 15;
    d = Math.imul(d ^ whole[index + 3]!, PRIME);
    d ^= d >>> 15;
  }
  for (index *= 4; index < length; index++) {
    a = Math.imul(a ^ content[index]!, PRIME);
    a ^= a >>> 15;
  }
  return told(a, b, c, d, length);
}
