import { existsSync, mkdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { MailbagError } from '@mailbag/core/errors';
import Database from 'libsql';
import { HOLDER, LOCK } from './layout.js';

export interface FolderLock {
  release(): void;
}

/**
 * Takes a data folder for this process, so that no other program works in it. The lock is one of the operating system's, held through SQLite
 * (“File Locking And Concurrency”, EXCLUSIVE): it is gone with the process, however that ends.
 * @throws MailbagError folder-in-use
 */
export function lockFolder(folder: string): FolderLock {
  if (!existsSync(folder)) mkdirSync(folder, { recursive: true, mode: 0o700 });
  const holder = join(folder, HOLDER);
  const database = new Database(join(folder, LOCK));
  try {
    database.pragma('busy_timeout = 0');
    database.exec('BEGIN EXCLUSIVE');
  } catch (cause) {
    database.close();
    if (!/BUSY|locked/i.test(`${(cause as { code?: string }).code} ${(cause as Error).message}`)) throw cause;
    const pid = existsSync(holder) ? readFileSync(holder, 'utf8').trim() : '';
    throw new MailbagError('folder-in-use', { folder, pid: pid || 'unknown' }, { cause });
  }
  writeFileSync(holder, `${process.pid}\n`);
  return {
    release() {
      rmSync(holder, { force: true });
      database.close();
    },
  };
}
