import type { EntityManager } from 'typeorm';
import { Grouped } from '../platform/grouped.js';
import type { TransactionQueue } from './transaction-queue.js';

/** Milliseconds: every commit is written through to the disk, which takes longer than this. */
const GATHER = 3;

type Write = (manager: EntityManager) => Promise<unknown>;

/** Small changes that come in at about the same time are committed together; each is told only after the commit. */
export class GroupedWrites {
  private readonly grouped: Grouped<Write, unknown>;

  constructor(transactions: TransactionQueue) {
    this.grouped = new Grouped(
      (writes) =>
        transactions.run(async (manager) => {
          const results: unknown[] = [];
          for (const write of writes) results.push(await write(manager));
          return results;
        }),
      (write) => transactions.run(write),
      GATHER,
    );
  }

  submit<T>(write: (manager: EntityManager) => Promise<T>): Promise<T> {
    return this.grouped.submit(write) as Promise<T>;
  }
}
