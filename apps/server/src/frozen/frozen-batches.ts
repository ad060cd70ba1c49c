import type { BatchContext, Cell, SourceRecord } from '@mailbag/core';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { SettingsService } from '../settings/settings.service.js';
import type { FrozenBatch } from './frozen-mailing.js';
import { frozenBatch } from './frozen-mailing.js';

/** What batches ran over; only the text of reminders ever changes, so the last few are kept in memory. */
@Injectable()
export class FrozenBatches {
  private readonly kept = new Map<number, FrozenBatch>();

  constructor(
    private readonly transactions: Transactions,
    private readonly settings: SettingsService,
  ) {}

  /** What the next batch would be told, if it began now: for previews, samples and checks. */
  async next(): Promise<BatchContext> {
    const [row] = await this.transactions.read<{ number: number }>('SELECT COALESCE(MAX(number), 0) + 1 AS number FROM batch', []);
    return { batch: row?.number ?? 1, today: this.settings.today(), ...this.settings.place };
  }

  /** @throws MailbagError not-found */
  async mailing(batchId: number): Promise<FrozenBatch> {
    const known = this.kept.get(batchId);
    if (known) return known;
    const [row] = await this.transactions.read<{ number: number; today: string; frozen: string }>(
      'SELECT number, today, frozen FROM batch WHERE id = ?',
      [batchId],
    );
    if (!row) throw new MailbagError('not-found', { what: 'batch' });
    const found = frozenBatch(row);
    this.kept.set(batchId, found);
    if (this.kept.size > 5) this.kept.delete(this.kept.keys().next().value!);
    return found;
  }

  /** What was kept of a batch is read again. */
  forget(batchId: number): void {
    this.kept.delete(batchId);
  }

  /** @throws MailbagError not-found */
  async record(batchId: number, ordinal: number): Promise<SourceRecord> {
    const [row] = await this.transactions.read<{ row: number; cells: string }>(
      'SELECT row, cells FROM batch_record WHERE batchId = ? AND ordinal = ?',
      [batchId, ordinal],
    );
    if (!row) throw new MailbagError('not-found', { what: 'record' });
    return { row: row.row, cells: JSON.parse(row.cells) as Cell[] };
  }
}
