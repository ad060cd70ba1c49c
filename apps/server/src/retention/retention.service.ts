import { existsSync } from 'node:fs';
import { rm, rmdir } from 'node:fs/promises';
import { dirname } from 'node:path';
import type { RetentionAnswer, RetentionRequest } from '@mailbag/contract';
import type { BeforeApplicationShutdown, OnApplicationBootstrap } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { ArchiveService } from '../archive/archive.service.js';
import { printRunFile } from '../paper/print-runs.service.js';
import { History } from '../history/history.service.js';
import { Transactions } from '../persistence/transactions.js';
import { dataPath } from '../platform/config.js';
import { MAILBAG_ITSELF } from '../platform/asker.js';
import { Hold } from '../safety/hold.service.js';
import { SettingsService } from '../settings/settings.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { Pool } from '../work/pool.js';

const NAME = 'retention';
const DAY = 86_400_000;
const BLOCK = 500;
type Stored = RetentionAnswer;
const forEver: Stored = { recordDays: 0, copyDays: 0, sourceDays: 0, lastRun: null };

/** Deletes records, copies and sources whose time is over, so that nothing of them is left: rows, words of the search, files, and what the database had written over. */
@Injectable()
export class Retention implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('retention');
  private timer: NodeJS.Timeout | null = null;

  constructor(
    private readonly transactions: Transactions,
    private readonly settings: SettingsService,
    private readonly sources: SourcesService,
    private readonly archive: ArchiveService,
    private readonly hold: Hold,
    private readonly pool: Pool,
    private readonly history: History,
  ) {}

  onApplicationBootstrap(): void {
    this.timer = setInterval(() => {
      // Whoever brought a folder back may have done so for what would be deleted.
      if (!this.hold.isHeld) void this.run().catch((error: unknown) => this.logger.error(error));
    }, DAY / 4);
  }
  beforeApplicationShutdown(): void {
    if (this.timer) clearInterval(this.timer);
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
    return this.transactions.read("SELECT id FROM batch WHERE state IN ('done', 'cancelled') AND finishedAt < ?", [
      new Date(Date.now() - days * DAY).toISOString(),
    ]);
  }

  /** Sources that were read so many days ago, and that no batch has used since. */
  private sourcesOver(days: number): Promise<{ id: number }[]> {
    if (days === 0) return Promise.resolve([]);
    const since = new Date(Date.now() - days * DAY).toISOString();
    return this.transactions.read(
      `SELECT id FROM source WHERE state <> 'reading' AND COALESCE(readAt, createdAt) < ? AND NOT EXISTS
       (SELECT 1 FROM batch JOIN mailing ON mailing.id = batch.mailingId
        WHERE json_extract(mailing.plan, '$.sourceId') = source.id AND (batch.finishedAt IS NULL OR batch.finishedAt >= ?))`,
      [since, since],
    );
  }

  async run(): Promise<Stored> {
    const { recordDays, copyDays, sourceDays } = await this.answer();
    let [records, copies, sources] = [0, 0, 0];
    for (const { id } of await this.over(copyDays)) copies += await this.deleteCopies(id);
    for (const { id } of await this.over(recordDays)) records += await this.deleteRecords(id);
    for (const { id } of await this.sourcesOver(sourceDays)) {
      await this.sources.forget(id);
      sources++;
    }
    if (records + copies + sources > 0) {
      await this.history.note(
        'deleted what was over its time',
        `${records} records, ${copies} copies, ${sources} sources`,
        null,
        MAILBAG_ITSELF,
      );
      await this.pool.run('giveBack', null);
    }
    await this.settings.set(NAME, { ...(await this.answer()), lastRun: { at: new Date().toISOString(), records, copies, sources } });
    return this.answer();
  }

  /** The values of the records, and the words that the search has of them; the copies stay. */
  private async deleteRecords(batchId: number): Promise<number> {
    const count = await this.transactions.run(async (manager) => {
      const [row] = (await manager.query("SELECT COUNT(*) AS count FROM batch_record WHERE batchId = ? AND cells <> '[]'", [batchId])) as {
        count: number;
      }[];
      if (!row?.count) return 0;
      await manager.query("UPDATE batch_record SET cells = '[]' WHERE batchId = ?", [batchId]);
      await manager.query("UPDATE batch SET characters = '' WHERE id = ?", [batchId]);
      await manager.query('UPDATE copy SET metadata = NULL WHERE batchId = ?', [batchId]);
      await manager.query(
        "UPDATE copy_words SET text = (SELECT copy.code || ' ' || replace(copy.code, '-', '') || ' ' || copy.recipient || ' ' || copy.address || ' ' || copy.path || ' ' || copy.mailingName || ' ' || copy.templateName FROM copy WHERE copy.id = copy_words.rowid) WHERE rowid IN (SELECT id FROM copy WHERE batchId = ?)",
        [batchId],
      );
      return row.count;
    });
    if (count > 0) {
      const { number, mailingName } = await this.batch(batchId);
      await this.archive.writeManifestAgain(batchId, number, mailingName);
    }
    return count;
  }

  private async batch(id: number): Promise<{ number: number; mailingName: string }> {
    const [row] = await this.transactions.read<{ number: number; mailingName: string }>(
      'SELECT number, mailingName FROM batch WHERE id = ?',
      [id],
    );
    return row!;
  }

  private async deleteCopies(batchId: number): Promise<number> {
    let count = 0;
    // That somebody had a copy is known on, by a digest of their key: nobody gets another one because it was deleted.
    await this.transactions.run((manager) =>
      manager.query(
        `INSERT OR IGNORE INTO had_copy (mailingId, keyDigest) SELECT batch.mailingId, batch_record.keyDigest FROM batch_record JOIN batch ON batch.id = batch_record.batchId
         WHERE batch.id = ? AND batch_record.keyDigest IS NOT NULL AND EXISTS
           (SELECT 1 FROM copy WHERE copy.batchId = batch.id AND copy.recordOrdinal = batch_record.ordinal AND copy.state <> 'withdrawn')`,
        [batchId],
      ),
    );
    // A print run shows whole pages: its file goes with the first of its copies whose time is over.
    const runs = await this.transactions.read<{ runId: number }>(
      'SELECT DISTINCT runId FROM print_run_copy JOIN copy ON copy.id = print_run_copy.copyId WHERE copy.batchId = ?',
      [batchId],
    );
    for (const { runId } of runs) await rm(printRunFile(runId), { force: true });
    const { number, mailingName } = await this.batch(batchId);
    await this.archive.removeBatchFiles(number, mailingName);
    for (;;) {
      const rows = await this.transactions.read<{ id: number; path: string }>('SELECT id, path FROM copy WHERE batchId = ? LIMIT ?', [
        batchId,
        BLOCK,
      ]);
      if (rows.length === 0) break;
      for (const { path } of rows) {
        const file = dataPath('archive', path);
        await rm(file, { force: true });
        // Folders that are empty now go too.
        for (
          let folder = dirname(file);
          folder.startsWith(dataPath('archive', '')) && folder.length > dataPath('archive').length;
          folder = dirname(folder)
        ) {
          if (!existsSync(folder)) continue;
          try {
            await rmdir(folder);
          } catch {
            break;
          }
        }
      }
      const ids = JSON.stringify(rows.map(({ id }) => id));
      await this.transactions.run(async (manager) => {
        for (const sql of [
          'DELETE FROM copy_words WHERE rowid IN (SELECT value FROM json_each(?))',
          'DELETE FROM copy_event WHERE copyId IN (SELECT value FROM json_each(?))',
          'DELETE FROM delivery_copy WHERE copyId IN (SELECT value FROM json_each(?))',
          'DELETE FROM print_run_copy WHERE copyId IN (SELECT value FROM json_each(?))',
          'DELETE FROM copy WHERE id IN (SELECT value FROM json_each(?))',
        ])
          await manager.query(sql, [ids]);
      });
      count += rows.length;
    }
    await this.transactions.run(async (manager) => {
      await manager.query('DELETE FROM incoming_report WHERE deliveryId IN (SELECT id FROM delivery WHERE batchId = ?)', [batchId]);
      await manager.query('DELETE FROM delivery_message WHERE deliveryId IN (SELECT id FROM delivery WHERE batchId = ?)', [batchId]);
      await manager.query('DELETE FROM delivery WHERE batchId = ?', [batchId]);
      await manager.query('DELETE FROM batch_record WHERE batchId = ?', [batchId]);
      await manager.query("UPDATE batch SET characters = '' WHERE id = ?", [batchId]);
    });
    return count;
  }
}
