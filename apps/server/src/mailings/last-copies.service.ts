import type { LastCopyAnswer } from '@mailbag/contract';
import type { Cell } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, recordKeys } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { changedValues } from '../frozen/changed-values.js';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { Transactions } from '../persistence/transactions.js';
import { SourcesService } from '../sources/sources.service.js';
import { batchStore } from '../stores/batch.store.js';
import { copyStore } from '../stores/copy.store.js';
import { MailingsService } from './mailings.service.js';

const NONE: LastCopyAnswer = { copy: null, batch: 0, at: '', hasValues: false, changed: [] };

/** What records were when they got their last copy. */
@Injectable()
export class LastCopies {
  constructor(
    private readonly mailings: MailingsService,
    private readonly sources: SourcesService,
    private readonly transactions: Transactions,
  ) {}

  /** @param index place of the record in the source of the mailing, from 0 @throws MailbagError not-found */
  async of(id: number, index: number): Promise<LastCopyAnswer> {
    const { plan } = await this.mailings.entity(id);
    if (!plan.sourceId) return NONE;
    const { columns } = await this.sources.detail(plan.sourceId);
    const [record] = (await this.sources.records(plan.sourceId, index, 1)).records;
    if (!record) throw new MailbagError('not-found', { what: t`record` });
    const key = recordKeys(columns, plan.keyColumn ?? null)(record);
    const copy = key === '' ? undefined : await copyStore.lastOfRecord(this.transactions, id, key);
    if (!copy) return NONE;
    const told = { copy: copy.id, batch: copy.batchNumber, at: copy.since };
    const [batch, before] = [
      await batchStore.frozen(this.transactions, copy.batchId),
      await batchStore.record(this.transactions, copy.batchId, copy.recordOrdinal),
    ];
    if (!batch || !before || before.cells === '[]') return { ...told, hasValues: false, changed: [] };
    const earlier = (JSON.parse(batch.frozen) as FrozenMailing).columns;
    const changed = changedValues({ columns: earlier, cells: JSON.parse(before.cells) as Cell[] }, { columns, cells: record.cells });
    return { ...told, hasValues: true, changed };
  }
}
