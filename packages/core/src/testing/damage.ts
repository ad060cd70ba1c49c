import { joined } from '../pdf/byte-writer.js';

/** Numbers between 0 and 1 from a seed (mulberry32), the same on every machine. */
export function randomOf(seed: number): () => number {
  let state = seed | 0;
  return () => {
    state = (state + 0x6d2b79f5) | 0;
    let mixed = Math.imul(state ^ (state >>> 15), 1 | state);
    mixed = (mixed + Math.imul(mixed ^ (mixed >>> 7), 61 | mixed)) ^ mixed;
    return ((mixed ^ (mixed >>> 14)) >>> 0) / 4294967296;
  };
}

/** A file damaged as files are: bytes changed, digits changed, pieces lost, doubled or moved, the end cut off. */
export function damaged(original: Uint8Array, seed: number): Uint8Array {
  const random = randomOf(seed);
  const below = (limit: number): number => Math.floor(random() * limit);
  let bytes: Uint8Array = original.slice();
  for (let left = 1 + below(8); left > 0; left--) {
    const at = below(bytes.length);
    const kind = random();
    if (kind < 0.4) bytes[at] = below(256);
    else if (kind < 0.55) {
      const digit = bytes.subarray(at, at + 200).findIndex((byte) => byte >= 0x30 && byte <= 0x39);
      if (digit >= 0) bytes[at + digit] = 0x30 + below(10);
    } else if (kind < 0.7) bytes = joined(bytes.subarray(0, at), bytes.subarray(at + below(60)));
    else if (kind < 0.8) bytes = bytes.slice(0, Math.max(100, at));
    else if (kind < 0.9) {
      const from = below(bytes.length);
      bytes = joined(bytes.subarray(0, at), bytes.subarray(from, from + below(200)), bytes.subarray(at));
    } else {
      const from = below(bytes.length);
      bytes.copyWithin(at, from, from + below(100));
    }
  }
  return bytes;
}
