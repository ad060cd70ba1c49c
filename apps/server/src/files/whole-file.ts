import { closeSync, fsyncSync, openSync, renameSync, rmSync, writeSync } from 'node:fs';
import type { FileKey } from './file-key.js';
import { fileKey, placeFor } from './file-key.js';

/** A file that is written piece by piece and is in its place whole or not at all. @throws the system's error */
export class WholeFile {
  private readonly aside: string;
  private readonly file: number;
  /** Bytes written. */
  size = 0;

  constructor(private readonly key: FileKey) {
    this.aside = placeFor(fileKey('spool', `${key.replaceAll('/', '-')}.part`));
    this.file = openSync(this.aside, 'w');
  }

  write(bytes: Uint8Array): void {
    for (let written = 0; written < bytes.length;) written += writeSync(this.file, bytes, written);
    this.size += bytes.length;
  }

  /** Puts it in its place; what was there is replaced. */
  keep(): void {
    // What lies in the spool is thrown away in a moment.
    if (!this.key.startsWith('spool/')) fsyncSync(this.file);
    closeSync(this.file);
    renameSync(this.aside, placeFor(this.key));
  }

  drop(): void {
    closeSync(this.file);
    rmSync(this.aside, { force: true });
  }
}
