import Database from 'libsql';
import { databasePath } from '../platform/config.js';

let connection: InstanceType<typeof Database> | null = null;

/** A connection of this thread to the database; it writes only rows that belong to its task. */
export function workerDatabase(): InstanceType<typeof Database> {
  if (!connection) {
    connection = new Database(databasePath());
    connection.pragma('busy_timeout = 15000');
    // As the main connection does: what a row was before must not stay in free room of its page.
    connection.pragma('secure_delete = ON');
    connection.pragma('synchronous = NORMAL');
    // Records that are being read stand under a number that no source has yet.
    connection.pragma('foreign_keys = OFF');
  }
  return connection;
}
