import { Readable } from 'node:stream';
import yazl from 'yazl';
import type { FileKey } from './file-key.js';
import { pathOf } from './file-key.js';
import { has } from './files.js';

/** What goes into a zip: a kept file, or a text that is made meanwhile. */
export type ZipPart = { name: string; at?: Date } & ({ key: FileKey } | { text: AsyncIterable<string> });

/** A zip of files, read from the disk as it is sent. Files that are gone are left out. PDF streams are deflated already; packing them again only costs time. */
export function zipOfFiles(parts: AsyncIterable<ZipPart>): Readable {
  const zip = new yazl.ZipFile();
  // The library speaks of the older kind of stream.
  const out = zip.outputStream as unknown as Readable;
  void (async () => {
    for await (const part of parts) {
      const mtime = part.at ?? new Date();
      if ('text' in part) zip.addReadStream(Readable.from(part.text), part.name, { mtime });
      else if (await has(part.key)) zip.addFile(pathOf(part.key), part.name, { compress: false, mtime });
    }
    zip.end();
  })().catch((error: Error) => out.destroy(error));
  return out;
}
