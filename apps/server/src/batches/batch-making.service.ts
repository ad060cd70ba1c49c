import type { MadeCopy } from '../work/tasks.js';
import { Injectable } from '@nestjs/common';
import { changeCopies } from '../copies/copy-changes.js';
import { DeliveryService } from '../delivery/delivery.service.js';
import { Envelopes } from '../delivery/envelopes.service.js';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import { MAILBAG } from '../platform/principal.js';
import { batchStore } from '../stores/batch.store.js';
import { copyStore } from '../stores/copy.store.js';
import { Pool } from '../work/pool.js';
import { BatchSummaries } from './batch-summaries.service.js';
import { byRecord } from './by-record.js';

/** Records whose copies are made and committed together. */
const MAKE_BLOCK = 200;
/** Blocks a thread before the state of the batch is read anew as a whole. */
const BLOCKS_A_STEP = 10;

/** Makes the copies of a batch, block by block; what a block made is committed and queued at once. */
@Injectable()
export class BatchMaking {
  constructor(
    private readonly transactions: Transactions,
    private readonly summaries: BatchSummaries,
    private readonly delivery: DeliveryService,
    private readonly envelopes: Envelopes,
    private readonly frozen: FrozenBatches,
    private readonly pool: Pool,
    private readonly live: LiveService,
  ) {}

  /** Threads that make take a second to begin; they begin while a batch is planned. */
  warmUp(records: number): void {
    for (let more = Math.min(config.threads, Math.ceil(records / MAKE_BLOCK)) - 1; more > 0; more--)
      void this.pool.run('openMaking', null).catch(() => undefined);
  }

  /** Makes the next blocks. @returns whether there were any @throws MailbagError of what could not be made */
  async makeNext(id: number, signal: AbortSignal): Promise<boolean> {
    const next = await copyStore.firstPlanned(this.transactions, id);
    if (next === undefined || next.ordinal === null) return false;
    let ordinal = next.ordinal;
    const end = ordinal + config.threads * MAKE_BLOCK * BLOCKS_A_STEP;
    // One lane more than threads: while one block is committed, every thread has another.
    const lane = async (): Promise<void> => {
      while (!signal.aborted && ordinal < end && (await this.isMaking(id))) {
        const block = { from: ordinal, to: (ordinal += MAKE_BLOCK) };
        await this.commit(id, block, await this.pool.run('make', { batchId: id, ...block }));
      }
    };
    const results = await Promise.allSettled(Array.from({ length: config.threads + 1 }, lane));
    const failed = results.find((result) => result.status === 'rejected');
    if (failed) throw failed.reason;
    return true;
  }

  private async isMaking(id: number): Promise<boolean> {
    const batch = await batchStore.state(this.transactions, id);
    return batch?.state === 'making';
  }

  /** Records what was made, and queues what is to be mailed, in one transaction. */
  private async commit(batchId: number, { from, to }: { from: number; to: number }, { made }: { made: MadeCopy[] }): Promise<void> {
    if (made.length === 0) return;
    await this.transactions.run(async (sql) => {
      const batch = await batchStore.mailedAndState(sql, batchId);
      await copyStore.setMade(sql, made);
      await changeCopies(
        sql,
        made.map((copy) => copy.id),
        'make',
        { who: MAILBAG },
      );
      if (!batch?.mailed || batch.state === 'cancelled') return;
      // Who asks for paper is not mailed.
      const copies = await copyStore.toMail(sql, batchId, from, to);
      const { mailing } = await this.frozen.mailing(batchId);
      const { senderId = null, several = false, startAt = null } = mailing.plan.message;
      for (const together of byRecord(copies)) {
        const { recordOrdinal, address } = together[0]!;
        await this.envelopes.queue(sql, {
          batchId,
          recordOrdinal,
          address,
          copies: together.map(({ id }) => id),
          who: MAILBAG,
          held: batch.state === 'paused',
          senderId,
          several,
          startAt,
        });
      }
    });
    this.summaries.keepPace(batchId, made.length);
    this.live.notify('copies', batchId);
    this.delivery.wake();
  }
}
