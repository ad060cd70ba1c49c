import { readFileSync } from 'node:fs';
import type { TableFile, ZipParts } from '@mailbag/core';
import { MailbagError } from '@mailbag/core';
import type { Entry } from 'yauzl';
import { openPromise } from 'yauzl';
import { foreignBook } from './foreign-book.js';

/** Bytes that are unpacked of one file altogether: a sheet of which each question reads the whole part, over and over. */
const READ_LIMIT = 6 * 1024 * 1024 * 1024;

/** The parts of a zip file, read one at a time; null when the file is no zip or its directory is broken. */
async function openZip(path: string, name: string): Promise<ZipParts | null> {
  try {
    const zip = await openPromise(path, { autoClose: false, lazyEntries: true });
    const entries: Entry[] = [];
    let read = 0;
    for await (const entry of zip.eachEntry()) {
      entries.push(entry);
      if (entries.length > 10_000) return null;
    }
    return {
      parts: entries.map((entry) => ({ name: entry.fileName, size: entry.uncompressedSize, compressedSize: entry.compressedSize })),
      async *read(part) {
        const entry = entries.find((one) => one.fileName === part);
        if (!entry) return;
        for await (const chunk of (await zip.openReadStreamPromise(entry)) as AsyncIterable<Uint8Array>) {
          read += chunk.length;
          if (read > READ_LIMIT) throw new MailbagError('sheet-took-too-much', { file: name });
          yield chunk;
        }
      },
    };
  } catch {
    return null;
  }
}

/** A file on disk as core reads tables. @param fieldNames of the templates that are there */
export async function tableFile(path: string, name: string, fieldNames: readonly string[] = []): Promise<TableFile> {
  const bytes = new Uint8Array(readFileSync(path));
  return {
    name,
    bytes,
    fieldNames,
    zip: bytes[0] === 0x50 && bytes[1] === 0x4b ? await openZip(path, name) : null,
    foreign: () => foreignBook(path, name),
  };
}
