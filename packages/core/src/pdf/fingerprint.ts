/** A digest of 128 bits in hexadecimal for file identifiers; not for secrets. FNV-1a in four lanes over words of four bytes. */
export function fingerprint(content: Uint8Array | string): string {
  const lanes = [0x811c9dc5, 0x1234567, 0x9e3779b1, 0x85ebca6b] as [number, number, number, number];
  const prime = 0x01000193;
  const length = content.length;
  if (typeof content === 'string') {
    for (let index = 0; index < length; index++) lanes[index & 3] = Math.imul(lanes[index & 3]! ^ content.charCodeAt(index), prime);
  } else {
    let [a, b, c, d] = lanes;
    // Words are read in the machine's order, which is little-endian wherever Mailbag runs; unaligned bytes are copied first.
    const aligned = content.byteOffset % 4 === 0 ? content : content.slice();
    const words = new Int32Array(aligned.buffer, aligned.byteOffset, length >> 2);
    let index = 0;
    // The upper bits of a word would stay among themselves: multiplying only carries upwards.
    for (; index + 4 <= words.length; index += 4) {
      a = Math.imul(a ^ words[index]!, prime);
      a ^= a >>> 15;
      b = Math.imul(b ^ words[index + 1]!, prime);
      b ^= b >>> 15;
      c = Math.imul(c ^ words[index + 2]!, prime);
      c ^= c >>> 15;
      d = Math.imul(d ^ words[index + 3]!, prime);
      d ^= d >>> 15;
    }
    for (index *= 4; index < length; index++) {
      a = Math.imul(a ^ content[index]!, prime);
      a ^= a >>> 15;
    }
    lanes.splice(0, 4, a, b, c, d);
  }
  return lanes.map((lane, index) => (Math.imul(lane ^ length, prime + index) >>> 0).toString(16).padStart(8, '0')).join('');
}
