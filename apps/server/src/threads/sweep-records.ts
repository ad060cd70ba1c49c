import { sourceStore } from '../stores/source.store.js';
import { inTransaction, threadSql } from './worker-database.js';

/** Records that go in one transaction, so that nobody who writes waits long. */
const BLOCK = 1000;

/** Deletes the records of readings that no source has any more, and their numbers. */
export async function sweepRecords(): Promise<void> {
  const sql = threadSql();
  await inTransaction((own) => sourceStore.dropLooseReadings(own));
  for (let after = 0; ;) {
    const id = await sourceStore.nextWithRecords(sql, after);
    if (id === null) return;
    after = id;
    if (await sourceStore.hasReading(sql, id)) continue;
    while (await inTransaction((own) => sourceStore.dropRecords(own, id, BLOCK)));
  }
}
