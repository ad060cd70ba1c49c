import type { Account, CopyDetail } from '@mailbag/contract';
import type { Cell } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { changedValues } from '../frozen/changed-values.js';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { Transactions } from '../persistence/transactions.js';
import type { FileKey } from '../files/file-key.js';
import { fileKey, fileName } from '../files/file-key.js';
import { has } from '../files/files.js';
import { copyEventStore } from '../stores/copy-event.store.js';
import { copyStore } from '../stores/copy.store.js';
import { deliveryStore } from '../stores/delivery.store.js';
import { printRunStore } from '../stores/print-run.store.js';
import { Pool } from '../work/pool.js';

/** What is known of one copy, and its file. */
@Injectable()
export class CopiesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly batches: FrozenBatches,
    private readonly pool: Pool,
  ) {}

  /** @param account who looks: values are told only to those who may see them @throws MailbagError not-found */
  async detail(id: number, account: Account): Promise<CopyDetail> {
    const row = await copyStore.detail(this.transactions, id);
    if (!row) throw new MailbagError('not-found', { what: t`copy` });
    const { recordOrdinal, deliveryId, metadata, isProtected, ...copy } = row;
    const events = await copyEventStore.events(this.transactions, id);
    const { mailing } = await this.batches.mailing(row.batchId);
    const record = account.seesValues ? await this.batches.record(row.batchId, recordOrdinal).catch(() => null) : null;
    const delivery = await deliveryStore.ofCopy(this.transactions, deliveryId ?? -1);
    const parts = copy.file.split('/');
    return {
      ...copy,
      wantsPaper: Boolean(copy.wantsPaper),
      isProtected: isProtected === 1,
      metadata: metadata && account.seesValues ? (JSON.parse(metadata) as Record<string, string>) : null,
      folder: parts.slice(0, -1).join('/'),
      finish: mailing.plan.output.finish ?? 'flattened',
      record:
        record &&
        mailing.columns.map((column, index) => ({
          column: column.name,
          text: (record.cells[index] as Cell | undefined)?.text ?? '',
        })),
      events,
      delivery: delivery ?? null,
      printRuns: await printRunStore.runsOfCopy(this.transactions, id),
      ...(await this.besides(id, record && { columns: mailing.columns, cells: record.cells })),
    };
  }

  /** The copy that it replaces, with what has changed, and the one that replaces it. @param values null: they are not told */
  private async besides(
    id: number,
    values: Parameters<typeof changedValues>[1] | null,
  ): Promise<Pick<CopyDetail, 'replaces' | 'replacedBy'>> {
    const { earlier, later } = await copyStore.besides(this.transactions, id);
    const before = earlier && values && (await this.batches.record(earlier.batchId, earlier.recordOrdinal).catch(() => null));
    const columns = before && (await this.batches.mailing(earlier.batchId)).mailing.columns;
    return {
      replaces: earlier && {
        id: earlier.id,
        code: earlier.code,
        at: earlier.at,
        // A record whose time was over has no values any more.
        changed: before && before.cells.length > 0 ? changedValues({ columns: columns!, cells: before.cells }, values!) : null,
      },
      replacedBy: later && { id: later.id, code: later.code, at: later.at, changed: null },
    };
  }

  /** The password that opens a copy, composed again from its record; it is stored nowhere. @throws MailbagError not-found */
  async openPassword(id: number): Promise<string> {
    const row = await copyStore.place(this.transactions, id);
    if (!row) throw new MailbagError('not-found', { what: t`copy` });
    const { batchId, recordOrdinal: ordinal, code, templateName: template } = row;
    return this.pool.run('openPassword', { batchId, ordinal, code, template });
  }

  /** A copy's file. @throws MailbagError not-found, batch-file-gone */
  async file(id: number): Promise<{ key: FileKey; name: string }> {
    const row = await copyStore.path(this.transactions, id);
    if (!row) throw new MailbagError('not-found', { what: t`copy` });
    const key = fileKey('archive', row.path);
    if (!(await has(key))) throw new MailbagError('batch-file-gone', { path: row.path });
    return { key, name: fileName(key) };
  }
}
