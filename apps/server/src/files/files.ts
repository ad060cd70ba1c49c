import { createHash, randomUUID, webcrypto } from 'node:crypto';
import type { FileHandle } from 'node:fs/promises';
import { open as openPath, readFile, readdir, rename as renamePath, rm, rmdir, stat as statPath } from 'node:fs/promises';
import { dirname, join, relative } from 'node:path';
import type { FileKey, Shelf } from './file-key.js';
import { fileKey, folderOf, pathOf, placeFor } from './file-key.js';

/** What is known of a file without reading it. Bytes. */
export interface FileStat {
  size: number;
  changedAt: Date;
}

const isMissing = (error: unknown): boolean => ['ENOENT', 'EISDIR', 'ENOTDIR'].includes((error as NodeJS.ErrnoException).code ?? '');

/** @returns what `ask` finds; null when there is no such file */
export async function ifThere<T>(ask: Promise<T>): Promise<T | null> {
  try {
    return await ask;
  } catch (error) {
    if (isMissing(error)) return null;
    throw error;
  }
}

/** SHA-256 in hexadecimal, computed beside the event loop. */
export const sha256 = async (bytes: Uint8Array): Promise<string> =>
  Buffer.from(await webcrypto.subtle.digest('SHA-256', bytes)).toString('hex');

/** What was put: bytes, and SHA-256 in hexadecimal. */
export interface PutFile {
  size: number;
  digest: string;
}

/** Keeps a file: written aside, on the disk, then in its place; a reader never sees half of one. What was there is replaced. @throws the system's error */
export async function put(
  key: FileKey,
  data: Uint8Array | string | Iterable<Uint8Array | string> | AsyncIterable<Uint8Array | string>,
): Promise<PutFile> {
  const aside = placeFor(fileKey('spool', `put-${randomUUID()}`));
  const hash = createHash('sha256');
  let size = 0;
  try {
    const file = await openPath(aside, 'w');
    try {
      for await (const chunk of typeof data === 'string' || data instanceof Uint8Array ? [data] : data) {
        const bytes = typeof chunk === 'string' ? Buffer.from(chunk) : chunk;
        await file.writeFile(bytes);
        hash.update(bytes);
        size += bytes.length;
      }
      await file.sync();
    } finally {
      await file.close();
    }
    await renamePath(aside, placeFor(key));
  } catch (error) {
    await rm(aside, { force: true });
    throw error;
  }
  return { size, digest: hash.digest('hex') };
}

/** An open file, to be closed by whoever asked. @returns null: there is none */
export const open = (key: FileKey): Promise<FileHandle | null> => ifThere(openPath(pathOf(key), 'r'));

/** What a file holds. @returns null: there is none */
export const read = (key: FileKey): Promise<Buffer | null> => ifThere(readFile(pathOf(key)));

/** @returns null: there is no such file */
export async function stat(key: FileKey): Promise<FileStat | null> {
  const found = await ifThere(statPath(pathOf(key)));
  return found?.isFile() ? { size: found.size, changedAt: found.mtime } : null;
}

export const has = async (key: FileKey): Promise<boolean> => (await stat(key)) !== null;

/** SHA-256 in hexadecimal of what a file holds, read piece by piece. @returns null: there is none */
export async function digestOf(key: FileKey): Promise<string | null> {
  const file = await open(key);
  if (!file) return null;
  const hash = createHash('sha256');
  for await (const chunk of file.createReadStream()) hash.update(chunk as Buffer);
  return hash.digest('hex');
}

/** What was there is replaced. @throws the system's error when there is nothing to be renamed */
export const rename = (from: FileKey, to: FileKey): Promise<void> => renamePath(pathOf(from), placeFor(to));

/** Deletes a file, and the folders that are empty then. One that is gone already is no error. */
export async function remove(key: FileKey): Promise<void> {
  const path = pathOf(key);
  await rm(path, { force: true });
  const shelf = folderOf(key.slice(0, key.indexOf('/')) as Shelf);
  for (let folder = dirname(path); folder !== shelf; folder = dirname(folder)) {
    try {
      await rmdir(folder);
    } catch (error) {
      if ((error as NodeJS.ErrnoException).code !== 'ENOENT') return;
    }
  }
}

/** Files of a shelf, or of a folder on it, not below further folders. In the order of their names. */
export async function list(shelf: Shelf, folder = ''): Promise<FileKey[]> {
  const entries = (await ifThere(readdir(join(folderOf(shelf), folder), { withFileTypes: true }))) ?? [];
  return entries
    .filter((entry) => entry.isFile())
    .map((entry) => fileKey(shelf, ...relative('', join(folder, entry.name)).split(/[\\/]/)))
    .sort();
}
