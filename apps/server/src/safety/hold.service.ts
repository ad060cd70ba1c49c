import { remark } from '@mailbag/core';
import type { HoldAnswer } from '@mailbag/contract';
import type { Displaced } from '@mailbag/folder';
import { FolderStamp } from '@mailbag/folder';
import type { BeforeApplicationShutdown, OnModuleInit } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { Subject } from 'rxjs';
import { changeCopies } from '../copies/copy-changes.js';
import { LiveService } from '../live/live.service.js';
import type { Sql } from '../persistence/sql.js';
import { Transactions } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import { seal } from '../platform/secret-box.js';
import { KEY_CHECK } from './folder-key.js';
import { copyStore } from '../stores/copy.store.js';
import { deliveryStore } from '../stores/delivery.store.js';
import { folderStore } from '../stores/folder.store.js';
import { printRunStore } from '../stores/print-run.store.js';
import type { Principal } from '../platform/principal.js';

type Held = Displaced & { at: string };

const BLOCK = 500;

/**
 * Knows whether this folder may not be the one that mailed last: it was restored or copied, or its database is an older one. As long as nobody has
 * looked, nothing goes out by itself: what waits here may have been sent by the folder that this one comes from.
 */
@Injectable()
export class Hold implements OnModuleInit, BeforeApplicationShutdown {
  private readonly logger = new Logger('hold');
  private stamp: FolderStamp | null = null;
  private held: Held | null = null;
  /** Told when the hold is over. */
  readonly released = new Subject<void>();

  constructor(
    private readonly transactions: Transactions,
    private readonly live: LiveService,
  ) {}

  /** Before anything else begins to work on what it finds. */
  async onModuleInit(): Promise<void> {
    const row = (await folderStore.state(this.transactions))!;
    // A database without the name of a folder is new, or from a version that knew none.
    const { stamp, displaced } = FolderStamp.open(config.dataFolder, row.folder ? { folder: row.folder, claims: row.claims } : null);
    this.stamp = stamp;
    this.held = displaced ? { ...displaced, at: new Date().toISOString() } : row.held ? (JSON.parse(row.held) as Held) : null;
    if (this.held)
      this.logger.warn(`Nothing is sent by itself: this data folder is displaced (${this.held.why}). Look at Settings, Safety.`);
    await this.transactions.run((sql) =>
      folderStore.setState(sql, stamp.folder, this.held && JSON.stringify(this.held), row.keyCheck ?? seal(KEY_CHECK)),
    );
  }

  beforeApplicationShutdown(): void {
    this.stamp?.close();
    this.stamp = null;
  }

  get isHeld(): boolean {
    return this.held !== null;
  }

  /** Counts a group of claims, within the transaction that makes them. @returns what `claimed` is told after the commit */
  async count(sql: Sql): Promise<number> {
    const row = await folderStore.claim(sql);
    return row!.claims;
  }

  /** Notes outside of the database that a group was claimed, before the first of it leaves. */
  claimed(claims: number): void {
    this.stamp?.claimed(claims);
  }

  async answer(): Promise<HoldAnswer> {
    const batches = await deliveryStore.waitingByBatch(this.transactions);
    const runs = await printRunStore.open(this.transactions);
    const last = await deliveryStore.lastChange(this.transactions);
    return {
      held: this.held && {
        why: this.held.why,
        at: this.held.at,
        takenAt: this.held.why === 'restored' ? this.held.takenAt : null,
        from: this.held.why === 'restored' ? this.held.from : null,
      },
      batches,
      printRuns: runs?.count ?? 0,
      lastAt: last?.at ?? null,
    };
  }

  /** What waits in these batches may have gone out: its copies are unconfirmed until a person has settled each. */
  async doubt(batchIds: readonly number[], who: Principal): Promise<void> {
    for (const batchId of batchIds) {
      for (;;) {
        const count = await this.transactions.run(async (sql) => {
          const rows = await deliveryStore.waitingOfBatch(sql, batchId, BLOCK);
          const ids = rows.map(({ id }) => id);
          const copies = await copyStore.ofDeliveries(sql, ids);
          const detail = remark('may-have-gone-out');
          await deliveryStore.unconfirm(sql, detail, new Date().toISOString(), ids);
          await changeCopies(
            sql,
            copies.map(({ id }) => id),
            'doubt',
            { who, detail },
          );
          return rows.length;
        });
        if (count < BLOCK) break;
      }
      this.live.notify('copies', batchId);
      this.live.notify('batch', batchId);
    }
  }

  /** A person has looked: what still waits goes out from now on. */
  async release(): Promise<void> {
    await this.transactions.run((sql) => folderStore.release(sql));
    this.held = null;
    this.released.next();
  }
}
