import { inTransaction, workerDatabase } from './worker-database.js';

/** Records that go in one transaction, so that nobody who writes waits long. */
const BLOCK = 1000;

/** Deletes the records of readings that no source has any more, and their numbers. */
export function sweepRecords(): void {
  const database = workerDatabase();
  inTransaction(() =>
    database
      .prepare(
        `DELETE FROM source_reading WHERE id NOT IN (SELECT readingId FROM source WHERE readingId IS NOT NULL)
         AND sourceId NOT IN (SELECT id FROM source WHERE state = 'reading')`,
      )
      .run([]),
  );
  const next = database.prepare('SELECT MIN(readingId) AS id FROM source_record WHERE readingId > ?');
  const isKept = database.prepare('SELECT 1 FROM source_reading WHERE id = ?');
  const last = database.prepare('SELECT ordinal FROM source_record WHERE readingId = ? ORDER BY ordinal LIMIT 1 OFFSET ?');
  const remove = database.prepare('DELETE FROM source_record WHERE readingId = ? AND ordinal <= ?');
  for (let after = 0; ;) {
    const { id } = next.get([after]) as { id: number | null };
    if (id === null) return;
    after = id;
    if (isKept.get([id])) continue;
    for (let isMore = true; isMore;)
      inTransaction(() => {
        const through = last.get([id, BLOCK]) as { ordinal: number } | undefined;
        remove.run([id, through?.ordinal ?? Number.MAX_SAFE_INTEGER]);
        isMore = through !== undefined;
      });
  }
}
