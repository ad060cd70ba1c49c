import Database from 'libsql';
import { letOthersFirst } from '../persistence/writers-turn.js';
import { databasePath } from '../platform/config.js';

/** Milliseconds for which a thread waits until nobody else writes; it holds up nothing but its task. */
const PATIENCE = 60_000;

let connection: InstanceType<typeof Database> | null = null;

/** A connection of this thread to the database; it writes only rows that belong to its task. */
export function workerDatabase(): InstanceType<typeof Database> {
  if (!connection) {
    connection = new Database(databasePath());
    connection.pragma(`busy_timeout = ${PATIENCE}`);
    // As the main connection does: what a row was before must not stay in free room of its page.
    connection.pragma('secure_delete = ON');
    connection.pragma('synchronous = NORMAL');
    // Records that are being read stand under a number that no source has yet.
    connection.pragma('foreign_keys = OFF');
  }
  return connection;
}

/**
 * Writes in one transaction that takes the write lock at once. One that reads first and writes later is refused when somebody has written in between,
 * and its connection stays at what it read.
 */
export function inTransaction<T>(work: () => T): T {
  const write = workerDatabase().transaction(work);
  letOthersFirst();
  return write.immediate();
}
