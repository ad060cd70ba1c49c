import type { BatchContext, Cell, SourceRecord } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { SettingsService } from '../settings/settings.service.js';
import type { FrozenBatch } from './frozen-mailing.js';
import { frozenBatch } from './frozen-mailing.js';
import { batchStore } from '../stores/batch.store.js';

/** What batches ran over; only the text of reminders ever changes, so the last few are kept in memory. */
@Injectable()
export class FrozenBatches {
  private readonly cache = new Map<number, FrozenBatch>();

  constructor(
    private readonly transactions: Transactions,
    private readonly settings: SettingsService,
  ) {}

  /** What the next batch would be told, if it began now: for previews, samples and checks. */
  async next(): Promise<BatchContext> {
    const row = await batchStore.nextNumber(this.transactions);
    return { batch: row?.number ?? 1, today: this.settings.today(), ...this.settings.place };
  }

  /** @throws MailbagError not-found */
  async mailing(batchId: number): Promise<FrozenBatch> {
    const known = this.cache.get(batchId);
    if (known) return known;
    const row = await batchStore.frozen(this.transactions, batchId);
    if (!row) throw new MailbagError('not-found', { what: t`batch` });
    const found = frozenBatch(row);
    this.cache.set(batchId, found);
    if (this.cache.size > 5) this.cache.delete(this.cache.keys().next().value!);
    return found;
  }

  /** What was kept of a batch is read again. */
  forget(batchId: number): void {
    this.cache.delete(batchId);
  }

  /** @throws MailbagError not-found */
  async record(batchId: number, ordinal: number): Promise<SourceRecord> {
    const row = await batchStore.record(this.transactions, batchId, ordinal);
    if (!row) throw new MailbagError('not-found', { what: t`record` });
    return { row: row.row, cells: JSON.parse(row.cells) as Cell[] };
  }
}
