import { createHash } from 'node:crypto';
import { createWriteStream, existsSync, rmSync } from 'node:fs';
import { open, rename } from 'node:fs/promises';
import { basename, dirname, join } from 'node:path';
import type { Readable } from 'node:stream';
import { Transform } from 'node:stream';
import { finished, pipeline } from 'node:stream/promises';
import { MailbagError } from '@mailbag/core';
import Database from 'libsql';
import yazl from 'yazl';
import { DATABASE, KEPT_FOLDERS, KEY, filesBelow } from './layout.js';

export const MANIFEST = 'manifest.json';
const FORMAT = 'mailbag backup';

export interface BackupFile {
  name: string;
  /** In bytes. */
  size: number;
  /** In hexadecimal. */
  sha256: string;
}

/** The last file of a backup: what is in it. */
export interface BackupManifest {
  format: typeof FORMAT;
  version: 1;
  /** ISO 8601. */
  takenAt: string;
  files: BackupFile[];
  /** Files that went away while the backup was taken. */
  gone: string[];
}

export const isManifest = (value: unknown): value is BackupManifest =>
  (value as BackupManifest | null)?.format === FORMAT &&
  (value as BackupManifest).version === 1 &&
  Array.isArray((value as BackupManifest).files);

/** What is packed already is not packed again. */
const isPacked = (name: string): boolean => /\.(pdf|zip|xlsx|ods|png|jpe?g)$/i.test(name);

/** Lets bytes through and remembers their digest. */
function hashing(): { through: Transform; facts: () => Pick<BackupFile, 'size' | 'sha256'> } {
  const hash = createHash('sha256');
  let size = 0;
  const through = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk);
      size += chunk.length;
      done(null, chunk);
    },
  });
  return { through, facts: () => ({ size, sha256: hash.digest('hex') }) };
}

/** The database as it is at one moment, while others go on writing (SQLite, VACUUM INTO). @throws MailbagError backup-failed */
function snapshot(folder: string, path: string): void {
  rmSync(path, { force: true });
  const database = new Database(join(folder, DATABASE));
  try {
    database.pragma('busy_timeout = 60000');
    database.prepare('VACUUM INTO ?').run([path]);
  } finally {
    database.close();
  }
}

/**
 * Writes a data folder into one zip file, also while a server works in it: the database as it is at one moment first, then the files that it speaks of,
 * then a manifest with the digest of each. The zip is written aside and renamed, so that half a backup is never taken for a whole one.
 * @param onProgress files so far
 * @throws MailbagError backup-failed
 */
export async function backup(folder: string, path: string, onProgress?: (files: number) => void): Promise<BackupManifest> {
  if (!existsSync(join(folder, DATABASE)))
    throw new MailbagError('backup-failed', { path, why: `${folder} is not a data folder of Mailbag` });
  const aside = `${path}.part`;
  const database = `${path}.sqlite.part`;
  try {
    const manifest: BackupManifest = { format: FORMAT, version: 1, takenAt: new Date().toISOString(), files: [], gone: [] };
    snapshot(folder, database);
    const zip = new yazl.ZipFile();
    const out = createWriteStream(aside, { mode: 0o600, flush: true });
    const written = pipeline(zip.outputStream as Readable, out);
    // Whoever waits for a file to be taken waits no longer when the disk is full.
    const failed = written.then(() => new Promise<never>(() => undefined));
    const add = async (name: string, from: string): Promise<void> => {
      const handle = await open(from, 'r').catch((error: NodeJS.ErrnoException) => {
        if (error.code !== 'ENOENT') throw error;
        manifest.gone.push(name);
        return null;
      });
      if (!handle) return;
      const { through, facts } = hashing();
      const { mtime } = await handle.stat();
      zip.addReadStream(handle.createReadStream().pipe(through), name, { compress: !isPacked(name), mode: 0o100600, mtime });
      await Promise.race([finished(through, { readable: true }), failed]);
      manifest.files.push({ name, ...facts() });
      onProgress?.(manifest.files.length);
    };
    await add(DATABASE, database);
    await add(KEY, join(folder, KEY));
    for (const one of KEPT_FOLDERS) for await (const name of filesBelow(join(folder, one), one)) await add(name, join(folder, name));
    zip.addBuffer(Buffer.from(JSON.stringify(manifest, null, 1)), MANIFEST, { mode: 0o100600 });
    zip.end();
    await written;
    await rename(aside, path);
    await syncFolder(dirname(path));
    return manifest;
  } catch (cause) {
    if (cause instanceof MailbagError) throw cause;
    const { code, message } = cause as NodeJS.ErrnoException;
    const why = code === 'ENOSPC' || /full/.test(message) ? 'the disk is full' : (code ?? message);
    throw new MailbagError('backup-failed', { path, why }, { cause });
  } finally {
    for (const half of [aside, database, `${database}-journal`, `${database}-wal`, `${database}-shm`]) rmSync(half, { force: true });
  }
}

/** That a file has its name is on disk only when its folder is. */
async function syncFolder(folder: string): Promise<void> {
  const handle = await open(folder, 'r');
  try {
    await handle.sync();
  } finally {
    await handle.close();
  }
}

/** The name of a backup, by its time; the names of several sort by it. */
export const backupName = (at: Date): string => `mailbag ${at.toISOString().slice(0, 19).replace(/:/g, '-')}.zip`;
export const isBackupName = (name: string): boolean => /^mailbag \d{4}-\d\d-\d\dT\d\d-\d\d-\d\d\.zip$/.test(basename(name));
