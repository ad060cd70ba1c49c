import { open } from 'node:fs/promises';
import { dirname } from 'node:path';

/**
 * Puts what was committed on the disk without holding the event loop: a commit alone writes into SQLite's log (the file that ends in -wal), and what stands
 * there is safe from a power cut once fdatasync(2) has come back, whoever asked for it. Changes that come while one sync is under way share the next.
 * SQLite itself would sync within the commit, where a slow disk lets everybody wait.
 */
export class LogSync {
  private readonly log: string;
  private underWay: Promise<void> | null = null;
  private next: Promise<void> | null = null;
  /** The file whose name is known to be in its folder; a log is made anew when the last connection has closed. */
  private named = 0;

  constructor(databasePath: string) {
    this.log = `${databasePath}-wal`;
  }

  /** Ends when all that was committed before is on the disk. @throws the system's error when the disk refuses */
  durable(): Promise<void> {
    if (!this.underWay) return (this.underWay = this.sync().finally(() => (this.underWay = null)));
    // The one under way may have begun before the commit.
    return (this.next ??= this.underWay
      .catch(() => undefined)
      .then(() => {
        this.next = null;
        return this.durable();
      }));
  }

  private async sync(): Promise<void> {
    const file = await open(this.log, 'r').catch((error: unknown) => {
      // No log: all of it stands in the database, which is synced before its log goes.
      if ((error as NodeJS.ErrnoException).code === 'ENOENT') return null;
      throw error;
    });
    if (!file) return;
    try {
      await file.datasync();
      const { ino } = await file.stat();
      if (ino !== this.named) await syncFolder(dirname(this.log));
      this.named = ino;
    } finally {
      await file.close();
    }
  }
}

/** So that the name of a new file is there after a power cut too. */
async function syncFolder(path: string): Promise<void> {
  const folder = await open(path, 'r');
  try {
    await folder.sync();
  } finally {
    await folder.close();
  }
}
