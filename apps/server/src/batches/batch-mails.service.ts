import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { Jobs } from '../jobs/jobs.service.js';
import { config } from '../platform/config.js';
import { Transactions } from '../persistence/transactions.js';
import { Hold } from '../safety/hold.service.js';
import { SendersService } from '../senders/senders.service.js';
import { batchStore } from '../stores/batch.store.js';
import type { EndedBatch } from '../stores/batch.store.js';
import { batchMail } from './batch-mail-words.js';
import { Ledger } from '../copies/ledger.service.js';

/** Milliseconds from which a batch is long: nobody has waited before it. */
const LONG = 60_000;
/** Milliseconds after which nobody needs to be told any more. */
const LATEST = 86_400_000;
/** Milliseconds after each try in vain. */
const AGAIN = [5000, 30_000, 300_000];

/** Milliseconds that a batch has taken. */
const tookOf = ({ startedAt, finishedAt }: EndedBatch): number =>
  (finishedAt === null ? Date.now() : Date.parse(finishedAt)) - Date.parse(startedAt);

/**
 * Tells whoever started a long batch, and wants that, by mail that it is done or was stopped by something. It is written down before the mail leaves, so that
 * nobody is told twice; after a fall in between nobody is told, and the batch says it itself.
 */
@Injectable()
export class BatchMails implements OnApplicationBootstrap {
  constructor(
    private readonly transactions: Transactions,
    private readonly senders: SendersService,
    private readonly ledger: Ledger,
    private readonly hold: Hold,
    private readonly jobs: Jobs,
  ) {
    jobs.register('batch-mail', {
      title: 'Mailing that a batch ended',
      atOnce: 1,
      retry: AGAIN.map((wait) => wait * config.retryPace),
      run: ({ key }) => this.notify(Number(key)),
    });
  }

  /** Batches that ended while a server fell. */
  async onApplicationBootstrap(): Promise<void> {
    for (const { id } of await batchStore.endedSince(this.transactions, new Date(Date.now() - LATEST).toISOString())) await this.ended(id);
  }

  /** A batch is done, or paused by something: its starter is told if that is wished. */
  async ended(id: number): Promise<void> {
    const batch = await this.toTell(id);
    if (batch) await this.jobs.add({ kind: 'batch-mail', key: id, subject: t`Batch ${batch.number} of ${batch.mailingName}` });
    // Whoever wishes to be told from tomorrow on is not told of yesterday when the server starts again.
    else await this.transactions.run((sql) => batchStore.setNotTold(sql, id));
  }

  /** @returns null: nobody wants to be told, has been told, or waited before it */
  private async toTell(id: number): Promise<EndedBatch | null> {
    const batch = await batchStore.ended(this.transactions, id);
    if (!batch || batch.toldState === batch.state) return null;
    return tookOf(batch) < LONG ? null : batch;
  }

  /** @throws MailbagError batch-mail-failed: no server took it, and it is tried again */
  private async notify(id: number): Promise<void> {
    const batch = await this.toTell(id);
    if (!batch) return;
    const message = await this.message(id, batch);
    if (!(await this.transactions.run((sql) => batchStore.setTold(sql, id, batch.toldState, batch.state)))) return;
    // The folder that this one comes from may have told it.
    if (this.hold.isHeld) return;
    const { kind, failure } = await this.senders.mailSingle(batch.email, message);
    if (kind !== 'not-sent') return;
    await this.transactions.run((sql) => batchStore.setTold(sql, id, batch.state, batch.toldState));
    throw new MailbagError('batch-mail-failed', { batch: batch.number, why: failure });
  }

  private async message(id: number, batch: EndedBatch): Promise<{ subject: string; text: string }> {
    const { number, mailingName, language } = batch;
    const error = batch.error === null ? null : MailbagError.from(JSON.parse(batch.error) as Parameters<typeof MailbagError.from>[0]);
    return batchMail(language, {
      number,
      mailingName,
      isPaused: batch.state === 'paused',
      took: tookOf(batch),
      counts: await this.ledger.countsOfBatch(id),
      reason: error?.message ?? null,
    });
  }
}
