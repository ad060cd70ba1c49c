import { readFileSync } from 'node:fs';
import type { TableFile, ZipParts } from '@mailbag/core';
import type { Entry } from 'yauzl';
import { openPromise } from 'yauzl';
import { foreignBook } from './foreign-book.js';

/** The parts of a zip file, read one at a time; null when the file is no zip or its directory is broken. */
async function openZip(path: string): Promise<ZipParts | null> {
  try {
    const zip = await openPromise(path, { autoClose: false, lazyEntries: true });
    const entries: Entry[] = [];
    for await (const entry of zip.eachEntry()) {
      entries.push(entry);
      if (entries.length > 10_000) return null;
    }
    return {
      parts: entries.map((entry) => ({ name: entry.fileName, size: entry.uncompressedSize, compressedSize: entry.compressedSize })),
      async *read(name) {
        const entry = entries.find((one) => one.fileName === name);
        if (!entry) return;
        yield* await zip.openReadStreamPromise(entry);
      },
    };
  } catch {
    return null;
  }
}

/** A file on disk as core reads tables. */
export async function tableFile(path: string, name: string): Promise<TableFile> {
  const bytes = new Uint8Array(readFileSync(path));
  return { name, bytes, zip: bytes[0] === 0x50 && bytes[1] === 0x4b ? await openZip(path) : null, foreign: () => foreignBook(path, name) };
}
