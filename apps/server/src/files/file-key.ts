import { existsSync, mkdirSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { config } from '../platform/config.js';

/** A folder for each kind of file that Mailbag keeps. */
export type Shelf = 'templates' | 'sources' | 'archive' | 'spool' | 'faces' | 'attachments' | 'print-runs' | 'registers';

/** What a file is called wherever it is spoken of, threads included: its shelf and its path on it, with slashes on every system. */
export type FileKey = `${Shelf}/${string}`;

/** @throws Error when a part leads somewhere else */
export function fileKey(shelf: Shelf, ...parts: string[]): FileKey {
  const path = parts.join('/');
  if (path.split('/').some((part) => part === '' || part === '.' || part === '..') || path.includes('\0'))
    throw new Error(`“${path}” does not name a file on the shelf ${shelf}`);
  return `${shelf}/${path}`;
}

/** The last part of a key. */
export const fileName = (key: FileKey): string => key.slice(key.lastIndexOf('/') + 1);

/** Where a shelf lies. */
export const folderOf = (shelf: Shelf): string => join(config.dataFolder, shelf);

/** Where a file lies or would lie: for what reads a file by its path alone, such as a database engine. Everybody else asks by its key. */
export const pathOf = (key: FileKey): string => join(config.dataFolder, key);

/** The same for what is about to be written: its folder is there. */
export function placeFor(key: FileKey): string {
  const path = pathOf(key);
  const folder = dirname(path);
  if (!existsSync(folder)) mkdirSync(folder, { recursive: true });
  return path;
}
