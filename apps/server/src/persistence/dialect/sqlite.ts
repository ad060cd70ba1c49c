import type { Sql } from '../sql.js';

/** Gives free pages of the file back and empties the log (SQLite, PRAGMA incremental_vacuum and wal_checkpoint). */
export async function giveRoomBack(sql: Sql): Promise<void> {
  await sql.query('PRAGMA incremental_vacuum');
  await sql.query('PRAGMA wal_checkpoint(TRUNCATE)');
}
