import { closeSync, openSync, writeSync, writevSync } from 'node:fs';
import type { FilledCopy } from '@mailbag/core';

/** Writes a copy to a path in as few calls as the system allows. What was there is overwritten. @throws the system's error */
export function writeCopy(path: string, copy: Pick<FilledCopy, 'parts'>): void {
  const file = openSync(path, 'w');
  try {
    const total = copy.parts.reduce((sum, part) => sum + part.length, 0);
    let written = writevSync(file, copy.parts);
    // A full disk or a signal may cut a write short.
    if (written < total) {
      const all = Buffer.concat(copy.parts);
      while (written < total) written += writeSync(file, all, written);
    }
  } finally {
    closeSync(file);
  }
}
