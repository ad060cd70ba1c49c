import { closeSync, existsSync, fstatSync, openSync, readFileSync, renameSync, writeSync } from 'node:fs';
import { randomBytes } from 'node:crypto';
import { join } from 'node:path';
import { STAMP } from './layout.js';

/** Where a folder comes from that was brought back. */
export interface Restored {
  /** ISO 8601, when it was brought back. */
  at: string;
  /** ISO 8601, when its backup was taken. */
  takenAt: string;
  /** Name of the backup. */
  from: string;
}

/** What a folder knows of itself outside of its database, so that a database or a folder that was put back can be told. */
interface Stamp {
  folder: string;
  /** The stamp file itself, as the file system knows it: a copied file is another one. */
  inode: string;
  born: number;
  /** Groups of messages that were claimed. Written after the database has it and before a message leaves, so the database is never behind. */
  claims: number;
  restored: Restored | null;
}

/** What the database knows of its folder; null: nothing yet. */
export interface FolderMemory {
  folder: string;
  claims: number;
}

/** Why a folder may not be the one that mailed last. */
export type Displaced =
  | { why: 'restored'; takenAt: string; from: string }
  /** The whole folder was copied or put back. */
  | { why: 'copied' }
  /** The database is older than the folder, or belongs to another one. */
  | { why: 'older database' };

/** Bytes of the file, so that it is always written in one piece and in place. */
const LENGTH = 512;

function read(path: string): Stamp | null {
  if (!existsSync(path)) return null;
  try {
    return JSON.parse(readFileSync(path, 'utf8')) as Stamp;
  } catch {
    // Half a stamp is as good as a copied one.
    return { folder: '', inode: '', born: 0, claims: 0, restored: null };
  }
}

/** Leaves word in a folder that it was brought back from a backup. */
export function stampRestored(folder: string, restored: Restored): void {
  const path = join(folder, STAMP);
  const file = openSync(path, 'w', 0o600);
  writeSync(file, JSON.stringify({ folder: '', inode: '', born: 0, claims: 0, restored } satisfies Stamp));
  closeSync(file);
}

/** The stamp of a folder that is in use. */
export class FolderStamp {
  private constructor(
    readonly folder: string,
    private readonly file: number,
    private claims: number,
  ) {}

  /**
   * Looks whether a folder is the one that its database knows, and stamps it anew when it is not.
   * @param memory what its database knows
   * @returns `displaced`: why it may not be the one that mailed last; null: it is
   */
  static open(folder: string, memory: FolderMemory | null): { stamp: FolderStamp; displaced: Displaced | null } {
    const path = join(folder, STAMP);
    const found = read(path);
    const displaced = displacedBy(path, found, memory);
    if (found && !displaced) {
      const stamp = new FolderStamp(found.folder, openSync(path, 'r+'), Math.max(found.claims, memory?.claims ?? 0));
      stamp.write();
      return { stamp, displaced: null };
    }
    // A folder that was put back is another one from now on, and its stamp another file.
    const aside = `${path}.part`;
    const stamp = new FolderStamp(randomBytes(12).toString('hex'), openSync(aside, 'w+', 0o600), memory?.claims ?? 0);
    stamp.write();
    renameSync(aside, path);
    return { stamp, displaced };
  }

  /** Notes that so many groups were claimed, before the last of them leaves. */
  claimed(claims: number): void {
    this.claims = claims;
    this.write();
  }

  private write(): void {
    const { ino, birthtimeMs } = fstatSync(this.file);
    const stamp: Stamp = { folder: this.folder, inode: String(ino), born: birthtimeMs, claims: this.claims, restored: null };
    writeSync(this.file, JSON.stringify(stamp).padEnd(LENGTH - 1) + '\n', 0);
  }

  close(): void {
    closeSync(this.file);
  }
}

function displacedBy(path: string, found: Stamp | null, memory: FolderMemory | null): Displaced | null {
  if (!found) return memory ? { why: 'copied' } : null;
  if (found.restored) return { why: 'restored', takenAt: found.restored.takenAt, from: found.restored.from };
  const file = openSync(path, 'r');
  const { ino, birthtimeMs } = fstatSync(file);
  closeSync(file);
  if (String(ino) !== found.inode || Math.abs(birthtimeMs - found.born) > 1) return { why: 'copied' };
  if (!memory || memory.folder !== found.folder || memory.claims < found.claims) return { why: 'older database' };
  return null;
}
