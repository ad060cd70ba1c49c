import { inTransaction, workerDatabase } from './worker-database.js';

/**
 * What was deleted must not stay in the index of the search, in free pages or in the log: the index is written anew, free pages are given back and the log is emptied.
 * What somebody else uses just then is done the next time.
 */
export function giveBack(): void {
  const database = workerDatabase();
  inTransaction(() => database.exec("INSERT INTO copy_words (copy_words) VALUES ('optimize')"));
  database.prepare('PRAGMA incremental_vacuum').all([]);
  database.prepare('PRAGMA wal_checkpoint(TRUNCATE)').all([]);
}
