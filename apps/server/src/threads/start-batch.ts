import { MailbagError } from '@mailbag/core';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { batchStore } from '../stores/batch.store.js';
import { mailingStore } from '../stores/mailing.store.js';
import { recordStore } from '../stores/record.store.js';
import type { Tasks } from '../work/tasks.js';
import { StartDigest, candidates, choose } from './who-runs.js';
import { inTransaction } from './worker-database.js';

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
}: Tasks['startBatch']['input']): Promise<Tasks['startBatch']['output']> {
  return inTransaction(async (sql) => {
    const begun = await batchStore.begunBy(sql, startKey);
    if (begun) return { id: begun.id, isNew: false };
    const now = await mailingStore.version(sql, mailingId);
    const check = await StartDigest.of(mailingId, version, choice);
    const why = choose(choice);
    const runs: { ordinal: number; key: string; values: string }[] = [];
    const { used } = await candidates({ mailingId, sourceId, mailing }, (candidate, held) => {
      if (held || why(candidate) !== null) return;
      check.runs(candidate);
      runs.push({ ordinal: candidate.ordinal, key: candidate.key, values: candidate.values });
    });
    if (now?.version !== version || check.done() !== digest) throw new MailbagError('start-outdated', { mailing: name });
    if (runs.length === 0) throw new MailbagError('mailing-no-record-can-run');
    const id = await batchStore.add(sql, {
      number: (await batchStore.nextNumber(sql))!.number,
      mailingId,
      mailingName: name,
      frozen: { ...withoutExamples(mailing), place: { locale, zone } } satisfies FrozenMailing,
      records: runs.length,
      mailed: mailing.plan.message.mailed,
      startedAt: new Date().toISOString(),
      startKey,
      usedColumns: used,
      today,
    });
    await batchStore.addRecords(sql, id, runs, await recordStore.readingOf(sql, sourceId));
    return { id, isNew: true };
  });
}
