import { MailbagError } from '@mailbag/core';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { readingOf } from './source-records.js';
import type { Tasks } from './tasks.js';
import { StartDigest, candidates, choose } from './who-runs.js';
import { inTransaction, workerDatabase } from './worker-database.js';

/** Examples of values are for those who map; in a batch they would outlive the records. */
const withoutExamples = (mailing: FrozenMailing): FrozenMailing => ({
  ...mailing,
  columns: mailing.columns.map((column) => ({ ...column, longest: '', examples: [] })),
});

/**
 * Begins a batch: who runs is found out once more and compared with what the person was shown, and their records are frozen, all in one transaction.
 * The same request again begins nothing, and tells the batch that it began.
 * @throws MailbagError start-outdated, mailing-no-record-can-run
 */
export function startBatch({
  mailingId,
  sourceId,
  mailing,
  name,
  version,
  choice,
  digest,
  startKey,
  context: { today, locale, zone },
}: Tasks['startBatch']['input']): Tasks['startBatch']['output'] {
  const database = workerDatabase();
  return inTransaction(() => {
    const [begun] = database.prepare('SELECT id, mailingId FROM batch WHERE startKey = ?').all([startKey]) as {
      id: number;
      mailingId: number;
    }[];
    if (begun) return { id: begun.id, isNew: false };
    const [now] = database.prepare('SELECT version FROM mailing WHERE id = ?').all([mailingId]) as { version: number }[];
    const check = new StartDigest(mailingId, version, choice);
    const why = choose(choice);
    const runs: { ordinal: number; key: string; values: string }[] = [];
    const { used } = candidates({ mailingId, sourceId, mailing }, (candidate, held) => {
      if (held || why(candidate) !== null) return;
      check.runs(candidate);
      runs.push({ ordinal: candidate.ordinal, key: candidate.key, values: candidate.values });
    });
    if (now?.version !== version || check.done() !== digest) throw new MailbagError('start-outdated', { mailing: name });
    if (runs.length === 0) throw new MailbagError('mailing-no-record-can-run');
    const [{ number }] = database.prepare('SELECT COALESCE(MAX(number), 0) + 1 AS number FROM batch').all([]) as [{ number: number }];
    const [{ id }] = database
      .prepare(
        `INSERT INTO batch (number, mailingId, mailingName, state, resumeTo, frozen, characters, records, plannedThrough, copies, mailed, error, startedAt, finishedAt, startKey, usedColumns, today)
         VALUES (?, ?, ?, 'planning', NULL, ?, '', ?, 0, 0, ?, NULL, ?, NULL, ?, ?, ?) RETURNING id`,
      )
      .all([
        number,
        mailingId,
        name,
        JSON.stringify({ ...withoutExamples(mailing), place: { locale, zone } } satisfies FrozenMailing),
        runs.length,
        mailing.plan.message.mailed ? 1 : 0,
        new Date().toISOString(),
        startKey,
        JSON.stringify(used),
        today,
      ]) as [{ id: number }];
    database
      .prepare(
        `INSERT INTO batch_record (batchId, ordinal, row, cells, keyDigest, valuesDigest)
         SELECT ?, one.key, record.row, record.cells, json_extract(one.value, '$[1]'), json_extract(one.value, '$[2]') FROM json_each(?) AS one
         CROSS JOIN source_record AS record ON record.readingId = ? AND record.ordinal = json_extract(one.value, '$[0]')`,
      )
      .run([id, JSON.stringify(runs.map(({ ordinal, key, values }) => [ordinal, key, values])), readingOf(sourceId)]);
    return { id, isNew: true };
  });
}
