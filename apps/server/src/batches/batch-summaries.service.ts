import type { Readable } from 'node:stream';
import type { BatchSummary } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { ArchiveService, combinedFile } from '../archive/archive.service.js';
import type { FileKey } from '../files/file-key.js';
import { Ledger } from '../copies/ledger.service.js';
import { DeliveryService } from '../delivery/delivery.service.js';
import { Transactions } from '../persistence/transactions.js';
import { batchStore } from '../stores/batch.store.js';

/** Where batches are, and what they have made. */
@Injectable()
export class BatchSummaries {
  private readonly paces = new Map<number, { at: number; made: number; pace: number }>();

  constructor(
    private readonly transactions: Transactions,
    private readonly ledger: Ledger,
    private readonly archive: ArchiveService,
    private readonly delivery: DeliveryService,
  ) {}

  /** Copies that were made just now: how many a second is told while a batch runs. */
  keepPace(batchId: number, made: number): void {
    const now = Date.now();
    const last = this.paces.get(batchId);
    if (!last) this.paces.set(batchId, { at: now, made, pace: 0 });
    else if (now - last.at < 1000) last.made += made;
    else this.paces.set(batchId, { at: now, made: 0, pace: ((last.made + made) * 1000) / (now - last.at) });
  }

  /** @throws MailbagError not-found */
  async of(id: number): Promise<BatchSummary> {
    const batch = await batchStore.summary(this.transactions, id);
    if (!batch) throw new MailbagError('not-found', { what: t`batch` });
    const { plannedThrough, ...rest } = batch;
    return {
      ...rest,
      planned: plannedThrough,
      mailed: batch.mailed === 1,
      error: batch.error ? (JSON.parse(batch.error) as BatchSummary['error']) : null,
      counts: await this.ledger.countsOfBatch(id),
      combined: await this.archive.combined(batch.number, batch.mailingName),
      waiting: batch.state === 'sending' ? await this.delivery.waiting(id) : null,
      pace: batch.state === 'making' ? Math.round(this.paces.get(id)?.pace ?? 0) : 0,
    };
  }

  async list(filter: 'all' | 'running' = 'all'): Promise<BatchSummary[]> {
    const rows = await batchStore.latest(this.transactions, filter);
    return Promise.all(rows.map(({ id }) => this.of(id)));
  }

  /** A combined file. @throws MailbagError not-found */
  async combinedFile(id: number, name: string): Promise<FileKey> {
    const { number, mailingName } = await this.of(id);
    if (!(await this.archive.combined(number, mailingName)).includes(name)) throw new MailbagError('not-found', { what: t`combined file` });
    return combinedFile(name);
  }

  /** @throws MailbagError not-found */
  async zip(id: number): Promise<{ name: string; stream: Readable }> {
    const batch = await this.of(id);
    return { name: `Batch ${batch.number} ${batch.mailingName}.zip`, stream: this.archive.zip(id) };
  }
}
