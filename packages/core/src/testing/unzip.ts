import { inflateRawSync } from 'node:zlib';
import type { ZipParts } from '../platform/ports.js';

/** Parts of a zip file by its central directory (APPNOTE 4.3.12). */
export function unzip(bytes: Uint8Array): ZipParts {
  const view = Buffer.from(bytes);
  const end = view.lastIndexOf(Buffer.from('PK\x05\x06'));
  const parts: { name: string; size: number; compressedSize: number; at: number; method: number }[] = [];
  for (let at = view.readUInt32LE(end + 16), left = view.readUInt16LE(end + 10); left > 0; left--) {
    const [name, extra, comment] = [view.readUInt16LE(at + 28), view.readUInt16LE(at + 30), view.readUInt16LE(at + 32)];
    parts.push({
      name: view.toString('utf8', at + 46, at + 46 + name),
      size: view.readUInt32LE(at + 24),
      compressedSize: view.readUInt32LE(at + 20),
      at: view.readUInt32LE(at + 42),
      method: view.readUInt16LE(at + 10),
    });
    at += 46 + name + extra + comment;
  }
  return {
    parts,
    async *read(name) {
      const part = parts.find((one) => one.name === name)!;
      const start = part.at + 30 + view.readUInt16LE(part.at + 26) + view.readUInt16LE(part.at + 28);
      const packed = view.subarray(start, start + part.compressedSize);
      yield part.method === 8 ? inflateRawSync(packed) : packed;
    },
  };
}
