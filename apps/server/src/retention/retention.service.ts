import { plural, t } from '@mailbag/core/words';
import type { RetentionAnswer, RetentionRequest } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { ArchiveService } from '../archive/archive.service.js';
import { printRunFile } from '../paper/print-runs.service.js';
import { History } from '../history/history.service.js';
import { Transactions } from '../persistence/transactions.js';
import { fileKey } from '../files/file-key.js';
import { remove } from '../files/files.js';
import { MAILBAG } from '../platform/principal.js';
import { Hold } from '../safety/hold.service.js';
import { SettingsService } from '../settings/settings.service.js';
import { Submissions } from '../intakes/submissions.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { Pool } from '../work/pool.js';
import { batchStore } from '../stores/batch.store.js';
import { copyStore } from '../stores/copy.store.js';
import { deliveryStore } from '../stores/delivery.store.js';
import { ledgerStore } from '../stores/ledger.store.js';
import { printRunStore } from '../stores/print-run.store.js';
import { reportStore } from '../stores/report.store.js';
import { sourceStore } from '../stores/source.store.js';
import { Jobs } from '../jobs/jobs.service.js';

const NAME = 'retention';
const DAY = 86_400_000;
const BLOCK = 500;
type Stored = RetentionAnswer;
const forEver: Stored = { recordDays: 0, copyDays: 0, sourceDays: 0, lastRun: null };

/** Deletes records, copies and sources whose time is over, so that nothing of them is left: rows, words of the search, files, and what the database had written over. */
@Injectable()
export class Retention {
  constructor(
    private readonly transactions: Transactions,
    private readonly settings: SettingsService,
    private readonly sources: SourcesService,
    private readonly submissions: Submissions,
    private readonly archive: ArchiveService,
    private readonly hold: Hold,
    private readonly pool: Pool,
    private readonly history: History,
    jobs: Jobs,
  ) {
    jobs.register('retention', {
      title: 'Deleting data past its retention',
      atOnce: 1,
      retry: [60_000],
      // Whoever brought a folder back may have done so for what would be deleted.
      run: async () => void (this.hold.isHeld || (await this.run())),
    });
    jobs.every({ kind: 'retention', after: DAY / 4 }, DAY / 4);
  }

  async answer(): Promise<Stored> {
    return { ...forEver, ...(await this.settings.get<Stored>(NAME)) };
  }

  async save({ recordDays, copyDays, sourceDays }: RetentionRequest): Promise<Stored> {
    await this.settings.set(NAME, { ...(await this.answer()), recordDays, copyDays, sourceDays });
    return this.answer();
  }

  /** Batches that ended so many days ago and in which nothing moves any more. */
  private over(days: number): Promise<{ id: number }[]> {
    if (days === 0) return Promise.resolve([]);
    return batchStore.finishedBefore(this.transactions, new Date(Date.now() - days * DAY).toISOString());
  }

  /** Sources that were read so many days ago, and that no batch has used since. */
  private sourcesOver(days: number): Promise<{ id: number }[]> {
    if (days === 0) return Promise.resolve([]);
    const since = new Date(Date.now() - days * DAY).toISOString();
    return sourceStore.unusedSince(this.transactions, since, since);
  }

  async run(): Promise<Stored> {
    const { recordDays, copyDays, sourceDays } = await this.answer();
    let [records, copies, sources] = [0, 0, 0];
    for (const { id } of await this.over(copyDays)) copies += await this.deleteCopies(id);
    for (const { id } of await this.over(recordDays)) records += await this.deleteRecords(id);
    // The source of an intake stays with its page; what people answered goes.
    if (sourceDays > 0) records += await this.submissions.forget(new Date(Date.now() - sourceDays * DAY).toISOString());
    for (const { id } of await this.sourcesOver(sourceDays)) {
      await this.sources.erase(id);
      sources++;
    }
    if (records + copies + sources > 0) {
      await this.history.note(
        t`deleted what was past its retention`,
        t`${plural(records, 'record')}, ${plural(copies, 'copy', 'copies')}, ${plural(sources, 'source')}`,
        null,
        MAILBAG,
      );
      await this.pool.run('releaseSpace', null);
    }
    await this.settings.set(NAME, { ...(await this.answer()), lastRun: { at: new Date().toISOString(), records, copies, sources } });
    return this.answer();
  }

  /** The values of the records, and the words that the search has of them; the copies stay. */
  private async deleteRecords(batchId: number): Promise<number> {
    const count = await this.transactions.run(async (sql) => {
      const row = await batchStore.recordsWithCells(sql, batchId);
      if (!row?.count) return 0;
      await batchStore.clearCells(sql, batchId);
      await batchStore.clearCharacters(sql, batchId);
      await copyStore.clearValues(sql, batchId);
      await ledgerStore.wordsWithoutRecords(sql, batchId);
      return row.count;
    });
    if (count > 0) {
      const { number, mailingName } = await this.batch(batchId);
      await this.archive.writeManifestAgain(batchId, number, mailingName);
    }
    return count;
  }

  private async batch(id: number): Promise<{ number: number; mailingName: string }> {
    const row = await batchStore.name(this.transactions, id);
    return row!;
  }

  private async deleteCopies(batchId: number): Promise<number> {
    let count = 0;
    // That somebody had a copy is known on, by a digest of their key: nobody gets another one because it was deleted.
    await this.transactions.run((sql) => batchStore.rememberWhoHad(sql, batchId));
    // A print run shows whole pages: its file goes with the first of its copies whose time is over.
    const runs = await printRunStore.ofBatch(this.transactions, batchId);
    for (const { runId } of runs) await remove(printRunFile(runId));
    const { number, mailingName } = await this.batch(batchId);
    await this.archive.removeBatchFiles(number, mailingName);
    for (;;) {
      const rows = await copyStore.pathsOfBatch(this.transactions, batchId, BLOCK);
      if (rows.length === 0) break;
      for (const { path } of rows) await remove(fileKey('archive', path));
      const ids = rows.map(({ id }) => id);
      await this.transactions.run((sql) => copyStore.drop(sql, ids));
      count += rows.length;
    }
    await this.transactions.run(async (sql) => {
      await reportStore.dropOfBatch(sql, batchId);
      await deliveryStore.dropMessageIdsOfBatch(sql, batchId);
      await deliveryStore.dropOfBatch(sql, batchId);
      await batchStore.dropRecords(sql, batchId);
      await batchStore.clearCharacters(sql, batchId);
    });
    return count;
  }
}
