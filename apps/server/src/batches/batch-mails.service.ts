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
import { Ledger } from '../copies/ledger.service.js';

/** Milliseconds from which a batch is long: nobody has waited before it. */
const LONG = 60_000;
/** Milliseconds after which nobody needs to be told any more. */
const LATEST = 86_400_000;
/** Milliseconds after each try in vain. */
const AGAIN = [5000, 30_000, 300_000];

/** How long something took, in words. @param ms milliseconds */
export function durationWords(ms: number): string {
  const minutes = Math.round(ms / 60_000);
  if (minutes < 2) return 'a minute';
  if (minutes < 120) return `${minutes} minutes`;
  return `${Math.round(minutes / 60)} hours`;
}

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
    const took = (batch.finishedAt === null ? Date.now() : Date.parse(batch.finishedAt)) - Date.parse(batch.startedAt);
    return took < LONG ? null : batch;
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
    const counts = Object.entries(await this.ledger.countsOfBatch(id)).filter(([, count]) => count > 0);
    const about = counts.map(([state, count]) => `${count.toLocaleString('en')} ${state}`).join(', ');
    const error = batch.error === null ? null : MailbagError.from(JSON.parse(batch.error) as Parameters<typeof MailbagError.from>[0]);
    const took = durationWords((batch.finishedAt === null ? Date.now() : Date.parse(batch.finishedAt)) - Date.parse(batch.startedAt));
    const name = `Batch ${batch.number} of ${batch.mailingName}`;
    return batch.state === 'paused'
      ? {
          subject: `${name} is paused`,
          text: [`${name} is paused: ${error?.message ?? 'somebody paused it.'}`, about && `So far: ${about}.`, WHY]
            .filter(Boolean)
            .join('\n\n'),
        }
      : { subject: `${name} is done`, text: [`${name} is done. It took ${took}.`, about && `${about}.`, WHY].filter(Boolean).join('\n\n') };
  }
}

const WHY = 'You get this because you started the batch. You can change that in Mailbag under Settings, Your account.';
