import { closeSync, existsSync, openSync, readSync, renameSync, rmSync } from 'node:fs';
import { open } from 'node:fs/promises';
import { dirname } from 'node:path';
import type { FilledCopy } from '@mailbag/core';
import { writeCopy } from '@mailbag/host';
import { notWritten } from './failures.js';
import type { FileKey } from './file-key.js';
import { pathOf, placeFor } from './file-key.js';

/** Folders that are known to be there: asking for each copy costs more than the copy. */
const knownFolders = new Set<string>();

function knownPlace(key: FileKey): string {
  const path = pathOf(key);
  const folder = dirname(path);
  if (knownFolders.has(folder)) return path;
  placeFor(key);
  knownFolders.add(folder);
  return path;
}

/**
 * Writes a copy aside and renames it, so that it is there whole or not at all. `syncCopies` brings it to the disk.
 * @param aside name in the spool that nobody else uses
 * @throws MailbagError batch-disk-full, batch-not-made
 */
export function writeCopyFile(key: FileKey, copy: FilledCopy, aside: FileKey): void {
  try {
    writeCopy(knownPlace(aside), copy);
    renameSync(pathOf(aside), knownPlace(key));
  } catch (error) {
    knownFolders.clear();
    rmSync(pathOf(aside), { force: true });
    throw notWritten(error, key);
  }
}

/** Whether a file or a folder has this place already. Asked by a thread that plans: to wait for each answer would cost more than the rest of a plan. */
export const isPlaceTaken = (key: FileKey): boolean => existsSync(pathOf(key));

let room = new Uint8Array(0);

/**
 * What a copy's file holds, and a byte more where it is longer than it should be. Holds until the next call: new room for each copy costs more than reading.
 * @param length bytes that it should have @throws the system's error
 */
export function readCopyFile(key: FileKey, length: number): Uint8Array {
  if (room.length <= length) room = new Uint8Array(length + 1);
  const file = openSync(pathOf(key), 'r');
  try {
    let read = 0;
    for (let more = -1; more !== 0 && read <= length; read += more) more = readSync(file, room, read, length + 1 - read, null);
    return room.subarray(0, read);
  } finally {
    closeSync(file);
  }
}

/** Files that are written to the disk at the same time: as many as the system has threads for it. */
const AT_A_TIME = 4;
/** Some file systems do not sync folders, and have no need to. */
const NEEDLESS = ['EINVAL', 'EISDIR', 'EPERM'];

/** Waits until copies and their names are on the disk. @throws MailbagError batch-disk-full, batch-not-made */
export async function syncCopies(keys: readonly FileKey[]): Promise<void> {
  const paths = keys.map(pathOf);
  const waiting = [...paths, ...new Set(paths.map(dirname))];
  const sync = async (): Promise<void> => {
    for (let path = waiting.pop(); path !== undefined; path = waiting.pop()) {
      const file = await open(path, 'r');
      try {
        await file.sync();
      } catch (error) {
        if (!NEEDLESS.includes((error as NodeJS.ErrnoException).code ?? '')) throw notWritten(error, path);
      } finally {
        await file.close();
      }
    }
  };
  await Promise.all(Array.from({ length: AT_A_TIME }, sync));
}
