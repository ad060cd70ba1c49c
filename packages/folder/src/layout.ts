import { readdir } from 'node:fs/promises';
import { join } from 'node:path';

/** Names in the data folder that more than one program has to know. */
export const DATABASE = 'mailbag.sqlite';
export const KEY = 'secret.key';
/** Held for as long as a program has the folder. */
export const LOCK = 'mailbag.lock';
/** Who holds it, for sentences. */
export const HOLDER = 'mailbag.pid';
/** What the folder knows of itself outside of its database. */
export const STAMP = 'mailbag.stamp';
/** Where backups are kept unless another place is named; they are no part of backups. */
export const BACKUPS = 'backups';

/** What is kept beside the database: files that it speaks of. The spool holds what is not finished and is no part of it. */
export const KEPT_FOLDERS = ['templates', 'sources', 'archive', 'attachments', 'print-runs', 'registers', 'faces'] as const;

/** Files below a folder, by their paths with slashes; half-written ones are left out. */
export async function* filesBelow(folder: string, prefix: string): AsyncGenerator<string> {
  const entries = await readdir(folder, { withFileTypes: true }).catch((error: NodeJS.ErrnoException) => {
    if (error.code === 'ENOENT') return [];
    throw error;
  });
  for (const entry of entries.sort((a, b) => (a.name < b.name ? -1 : 1))) {
    if (entry.isDirectory()) yield* filesBelow(join(folder, entry.name), `${prefix}/${entry.name}`);
    else if (entry.isFile() && !entry.name.endsWith('.part')) yield `${prefix}/${entry.name}`;
  }
}
