import { recordStore } from '../stores/record.store.js';
import { inTransaction, threadSql } from './worker-database.js';

/** Records that go in one transaction, so that nobody who writes waits long. */
const BLOCK = 1000;

/** Deletes the records of readings that no source has any more, and their numbers. */
export async function sweepRecords(): Promise<void> {
  const sql = threadSql();
  await inTransaction((own) => recordStore.dropLooseReadings(own));
  for (let after = 0; ;) {
    const id = await recordStore.nextWithRecords(sql, after);
    if (id === null) return;
    after = id;
    if (await recordStore.hasReading(sql, id)) continue;
    while (await inTransaction((own) => recordStore.dropRecords(own, id, BLOCK)));
  }
}
