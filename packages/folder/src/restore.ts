import { createHash } from 'node:crypto';
import { createWriteStream, existsSync, mkdirSync, readdirSync, renameSync, rmSync, rmdirSync } from 'node:fs';
import { basename, dirname, join, resolve, sep } from 'node:path';
import { Transform } from 'node:stream';
import { buffer } from 'node:stream/consumers';
import { pipeline } from 'node:stream/promises';
import { MailbagError } from '@mailbag/core';
import Database from 'libsql';
import type { Entry, ZipFile } from 'yauzl';
import { openPromise } from 'yauzl';
import type { BackupFile, BackupManifest } from './backup.js';
import { MANIFEST, isManifest } from './backup.js';
import { DATABASE, KEPT_FOLDERS, KEY } from './layout.js';
import { stampRestored } from './stamp.js';

/** Bytes of a manifest; a million files have 150 MB. */
const LARGEST_MANIFEST = 512 * 1024 * 1024;

/** Whether a name is one that a backup has: a known file, or something below a known folder, and no way out of it. */
function isSafe(name: string): boolean {
  if (name === DATABASE || name === KEY) return true;
  const parts = name.split('/');
  return (
    parts.length > 1 &&
    (KEPT_FOLDERS as readonly string[]).includes(parts[0]!) &&
    parts.every((part) => part !== '' && part !== '.' && part !== '..' && !part.includes('\\') && !part.includes('\0'))
  );
}

async function entriesOf(zip: ZipFile): Promise<Map<string, Entry>> {
  const entries = new Map<string, Entry>();
  for await (const entry of zip.eachEntry()) entries.set(entry.fileName, entry);
  return entries;
}

/** Writes one file of a backup and compares it with the manifest. @throws Error with why it differs */
async function extract(zip: ZipFile, entry: Entry, { name, size, sha256 }: BackupFile, path: string): Promise<void> {
  if (entry.uncompressedSize !== size) throw new Error(`${name} has ${entry.uncompressedSize} bytes in place of ${size}`);
  mkdirSync(dirname(path), { recursive: true, mode: 0o700 });
  const hash = createHash('sha256');
  const compare = new Transform({
    transform(chunk: Buffer, _encoding, done) {
      hash.update(chunk);
      done(null, chunk);
    },
  });
  await pipeline(await zip.openReadStreamPromise(entry), compare, createWriteStream(path, { mode: 0o600, flags: 'wx', flush: true }));
  if (hash.digest('hex') !== sha256) throw new Error(`${name} is not what was backed up`);
}

/** Reads the manifest of a backup. @throws MailbagError restore-failed */
async function manifestOf(zip: ZipFile, entries: ReadonlyMap<string, Entry>): Promise<BackupManifest> {
  const entry = entries.get(MANIFEST);
  if (!entry || entry.uncompressedSize > LARGEST_MANIFEST) throw new Error('it holds no manifest of a backup');
  const manifest: unknown = JSON.parse((await buffer(await zip.openReadStreamPromise(entry))).toString('utf8'));
  if (!isManifest(manifest)) throw new Error('its manifest is of another kind or version');
  return manifest;
}

/**
 * Brings a backup back into a folder that is not there yet or empty. Everything is written aside and compared with the manifest first: the folder is
 * there whole or not at all. It knows that it was brought back, and sends nothing by itself until a person has looked.
 * @throws MailbagError restore-failed, restore-not-empty
 */
export async function restore(path: string, folder: string, onProgress?: (files: number, of: number) => void): Promise<BackupManifest> {
  const target = resolve(folder);
  if (existsSync(target) && readdirSync(target).length > 0) throw new MailbagError('restore-not-empty', { folder: target });
  const aside = `${target}.restoring`;
  rmSync(aside, { recursive: true, force: true });
  let zip: ZipFile | null = null;
  try {
    zip = await openPromise(path, { autoClose: false, lazyEntries: true });
    const entries = await entriesOf(zip);
    const manifest = await manifestOf(zip, entries);
    const listed = new Set(manifest.files.map(({ name }) => name));
    const strange = [...entries.keys()].find((name) => name !== MANIFEST && !listed.has(name));
    if (strange !== undefined) throw new Error(`${strange} is in it, but not in its manifest`);
    if (!listed.has(DATABASE)) throw new Error('it holds no database');
    mkdirSync(aside, { recursive: true, mode: 0o700 });
    let count = 0;
    for (const file of manifest.files) {
      const place = join(aside, file.name);
      if (!isSafe(file.name) || !place.startsWith(aside + sep)) throw new Error(`${file.name} leads out of the folder`);
      const entry = entries.get(file.name);
      if (!entry) throw new Error(`${file.name} is missing`);
      await extract(zip, entry, file, place);
      onProgress?.(++count, manifest.files.length);
    }
    assertWhole(join(aside, DATABASE));
    stampRestored(aside, { at: new Date().toISOString(), takenAt: manifest.takenAt, from: basename(path) });
    if (existsSync(target)) rmdirSync(target);
    renameSync(aside, target);
    return manifest;
  } catch (cause) {
    rmSync(aside, { recursive: true, force: true });
    const { code, message } = cause as NodeJS.ErrnoException;
    const why = code === 'ENOENT' ? 'there is no such file' : code === 'ENOSPC' ? 'the disk is full' : message;
    throw new MailbagError('restore-failed', { path, why }, { cause });
  } finally {
    zip?.close();
  }
}

function assertWhole(path: string): void {
  const database = new Database(path, { readonly: true });
  try {
    const lines = database.prepare('PRAGMA integrity_check').all([]) as { integrity_check: string }[];
    if (lines[0]?.integrity_check !== 'ok') throw new Error(`its database is damaged: ${lines[0]?.integrity_check}`);
  } finally {
    database.close();
    // Looking at it leaves files that a fresh folder does not have.
    for (const end of ['-wal', '-shm']) rmSync(path + end, { force: true });
  }
}
