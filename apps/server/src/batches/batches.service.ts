import { setTimeout as pause } from 'node:timers/promises';
import type { BatchStartRequest, BatchState, BatchSummary } from '@mailbag/contract';
import type { ErrorCode } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, isMailbagError, remark } from '@mailbag/core';
import type { BeforeApplicationShutdown, OnApplicationBootstrap } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import type { Sql } from '../persistence/sql.js';
import { ArchiveService } from '../archive/archive.service.js';
import { changeCopies } from '../copies/copy-changes.js';
import { DeliveryService } from '../delivery/delivery.service.js';
import { Jobs } from '../jobs/jobs.service.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { Pool } from '../work/pool.js';
import { BatchMaking } from './batch-making.service.js';
import { BatchMails } from './batch-mails.service.js';
import { BatchSummaries } from './batch-summaries.service.js';
import { BatchStarts } from './batch-starts.service.js';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { batchStore } from '../stores/batch.store.js';
import { copyStore } from '../stores/copy.store.js';
import type { Principal } from '../platform/principal.js';

/** What keeps a batch from going on for a while only. */
const passing: ErrorCode[] = ['batch-disk-full', 'disk-full', 'database-busy', 'server-stops'];
/** Milliseconds until what passes by itself is tried again. */
const [SHORTEST_WAIT, LONGEST_WAIT] = [1000, 30_000];
/** Milliseconds after which a batch that is being sent is looked at in any case. */
const LOOK_AGAIN = 15_000;
const RUNNING: BatchState[] = ['planning', 'making', 'sending'];

/** What an error says of itself; one that comes from a thread may be no Error any more. */
function whyOf(error: unknown): string {
  const { message, code } = (error ?? {}) as { message?: string; code?: string };
  return message ?? code ?? String(error);
}

/** Batches run by themselves from their state in the database; whoever is stopped goes on where the last committed block ended. */
@Injectable()
export class BatchesService implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('batches');
  private readonly looked = new Set<number>();
  private readonly stop = new AbortController();

  constructor(
    private readonly transactions: Transactions,
    private readonly summaries: BatchSummaries,
    private readonly delivery: DeliveryService,
    private readonly archive: ArchiveService,
    private readonly making: BatchMaking,
    private readonly frozen: FrozenBatches,
    private readonly pool: Pool,
    private readonly live: LiveService,
    private readonly starts: BatchStarts,
    private readonly jobs: Jobs,
    private readonly mails: BatchMails,
  ) {
    jobs.register('batch', {
      title: 'Making and sending',
      ends: true,
      atOnce: 4,
      retry: [1000, 10_000, 60_000],
      run: ({ key }) => this.run(Number(key)),
    });
  }

  async onApplicationBootstrap(): Promise<void> {
    this.live.events.subscribe(({ topic, id }) => {
      if (topic !== 'copies' || this.looked.has(id)) return;
      // Many copies change at the same time; whether that was all is looked for once.
      this.looked.add(id);
      setTimeout(() => {
        this.looked.delete(id);
        if (this.stopping) return;
        void this.finishSending(id).catch((error: unknown) => this.logger.error(error));
      }, 150);
    });
    for (const { id } of await batchStore.running(this.transactions)) await this.goOn(id);
  }

  /** Has a batch go on by itself. */
  private async goOn(id: number): Promise<void> {
    const { number, mailingName } = (await batchStore.byId(this.transactions, id))!;
    await this.jobs.add({ kind: 'batch', key: id, subject: t`Batch ${number} of ${mailingName}` });
  }

  /** Blocks that are being made are finished; the next start goes on with the others. */
  beforeApplicationShutdown(): void {
    this.stop.abort();
  }

  private get stopping(): boolean {
    return this.stop.signal.aborted;
  }

  /** Begins a batch over those who were shown. @throws MailbagError mailing-*, pattern-*, start-* */
  async start(mailingId: number, request: BatchStartRequest, who: Principal): Promise<BatchSummary> {
    const { id, isNew } = await this.starts.begin(mailingId, request);
    if (isNew) {
      this.logger.log(`batch ${id} started by ${who.name}`);
      const starter = who.kind === 'person' ? who.id : null;
      if (starter !== null) await this.transactions.run((sql) => batchStore.setStarter(sql, id, starter));
      this.live.notify('batch', id);
      await this.goOn(id);
    }
    return this.summaries.of(id);
  }

  /** @returns milliseconds until it is to be looked at again; nothing: it is over, or waits for a person */
  private async run(id: number): Promise<number | void> {
    try {
      await this.steps(id);
      await this.finishSending(id);
      // What is sent is told as it happens; this is for a hint that was lost.
      if ((await batchStore.state(this.transactions, id))?.state === 'sending') return LOOK_AGAIN;
    } finally {
      this.live.notify('batch', id);
      this.live.notify('copies', id);
    }
  }

  /** Goes from step to step. What passes by itself, such as a full disk, is waited for; anything else holds the batch until a person has looked. */
  private async steps(id: number): Promise<void> {
    let wait = SHORTEST_WAIT;
    while (!this.stopping) {
      try {
        const isMore = await this.step(id);
        if (wait > SHORTEST_WAIT) await this.say(id, null);
        wait = SHORTEST_WAIT;
        if (!isMore) return;
      } catch (error) {
        // A server that stops is no reason to wait for a person.
        if (this.stopping) return;
        const told = isMailbagError(error) ? error : new MailbagError('batch-not-made', { path: `Batch ${id}`, why: whyOf(error) });
        if (told !== error) this.logger.error(error);
        if (!passing.includes(told.code)) return await this.hold(id, told);
        // The disk that is full may be that of the database, too.
        await this.say(id, told).catch(() => undefined);
        await pause(wait, undefined, { signal: this.stop.signal }).catch(() => undefined);
        wait = Math.min(wait * 2, LONGEST_WAIT);
      }
      this.live.notify('batch', id);
    }
  }

  /** Tells why a batch does not get on just now; null: it does. */
  private async say(id: number, error: MailbagError | null): Promise<void> {
    const text = error && JSON.stringify(error.toJSON());
    await this.transactions.run((sql) => batchStore.say(sql, text, id));
  }

  private async hold(id: number, error: MailbagError): Promise<void> {
    await this.transactions.run(async (sql) => {
      await batchStore.pauseFor(sql, error.toJSON(), id);
      await this.delivery.hold(sql, id, true);
    });
    await this.mails.ended(id);
  }

  /** One committed step. @returns whether there is another */
  private async step(id: number): Promise<boolean> {
    const batch = await batchStore.progress(this.transactions, id);
    if (batch?.state === 'planning') {
      const plan = this.pool.run('plan', { batchId: id });
      // Planning takes one thread of them.
      if (batch.plannedThrough === 0) this.making.warmUp(batch.records);
      const { isDone } = await plan;
      if (isDone) await this.move(id, 'planning', 'making');
      return true;
    }
    if (batch?.state !== 'making') return false;
    if (await this.making.makeNext(id, this.stop.signal)) return true;
    await this.endMaking(id);
    return false;
  }

  private async move(id: number, from: BatchState, to: BatchState): Promise<boolean> {
    const finishedAt = to === 'done' ? new Date().toISOString() : null;
    const isMine = await this.transactions.run(async (sql) => (await batchStore.move(sql, to, finishedAt, id, from)) === 1);
    if (isMine && to === 'done') await this.mails.ended(id);
    return isMine;
  }

  /** Everything is made: what stands beside the copies is written, and the batch goes on. */
  private async endMaking(id: number): Promise<void> {
    const batch = (await batchStore.byId(this.transactions, id))!;
    await this.archive.writeManifest(id, batch.number, batch.mailingName);
    const { combined = 'none', duplex = false } = (await this.frozen.mailing(id)).mailing.plan.output;
    if (combined !== 'none') await this.archive.writeCombined(id, batch.number, batch.mailingName, combined, duplex);
    await this.move(id, 'making', batch.mailed ? 'sending' : 'done');
    await this.finishSending(id);
  }

  /** A batch is done when no delivery of it moves by itself any more. */
  private async finishSending(id: number): Promise<void> {
    const batch = await batchStore.state(this.transactions, id);
    if (batch?.state !== 'sending' || (await this.delivery.isOpen(id))) return;
    if (await this.move(id, 'sending', 'done')) this.live.notify('batch', id);
  }

  /** @throws MailbagError batch-not-running, not-found */
  async pause(id: number): Promise<BatchSummary> {
    await this.change(id, RUNNING, 'paused', async (sql) => {
      await batchStore.pause(sql, id);
      await this.delivery.hold(sql, id, true);
    });
    return this.summaries.of(id);
  }

  /** @throws MailbagError batch-not-running, not-found */
  async resume(id: number): Promise<BatchSummary> {
    await this.change(id, ['paused'], 'resumed', async (sql) => {
      await batchStore.resume(sql, id);
      await this.delivery.hold(sql, id, false);
    });
    await this.goOn(id);
    this.delivery.wake();
    return this.summaries.of(id);
  }

  /** What is made stays; what was not made or not sent is withdrawn. @throws MailbagError batch-not-running, not-found */
  async cancel(id: number, who: Principal): Promise<BatchSummary> {
    await this.change(id, [...RUNNING, 'paused'], 'cancelled', async (sql) => {
      await batchStore.cancel(sql, new Date().toISOString(), id);
      await this.delivery.cancel(sql, id);
      const open = await copyStore.openOfBatch(sql, id);
      await changeCopies(
        sql,
        open.map((one) => one.id),
        'withdraw',
        { who, detail: remark('batch-cancelled') },
      );
    });
    return this.summaries.of(id);
  }

  private async change(id: number, from: BatchState[], wanted: string, work: (sql: Sql) => Promise<void>): Promise<void> {
    await this.transactions.run(async (sql) => {
      const batch = await batchStore.byId(sql, id);
      if (!batch) throw new MailbagError('not-found', { what: t`batch` });
      if (!from.includes(batch.state)) throw new MailbagError('batch-not-running', { batch: batch.number, state: batch.state, wanted });
      await work(sql);
    });
    this.live.notify('batch', id);
    this.live.notify('copies', id);
  }
}
