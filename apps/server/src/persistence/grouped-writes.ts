import type { EntityManager } from 'typeorm';
import type { Transactions } from './transactions.js';

interface Waiting {
  work: (manager: EntityManager) => Promise<unknown>;
  resolve: (value: unknown) => void;
  reject: (error: unknown) => void;
}

/** Small changes that come in at about the same time are committed together; each is told only after the commit. */
export class GroupedWrites {
  private waiting: Waiting[] = [];
  private flushing = false;

  constructor(
    private readonly transactions: Transactions,
    private readonly most = 60,
  ) {}

  submit<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    const done = new Promise<T>((resolve, reject) => this.waiting.push({ work, resolve: resolve as Waiting['resolve'], reject }));
    if (!this.flushing) void this.flush();
    return done;
  }

  private async flush(): Promise<void> {
    this.flushing = true;
    while (this.waiting.length > 0) {
      const group = this.waiting.splice(0, this.most);
      try {
        const results = await this.transactions.run(async (manager) => {
          const all: unknown[] = [];
          for (const { work } of group) all.push(await work(manager));
          return all;
        });
        group.forEach(({ resolve }, index) => resolve(results[index]));
      } catch {
        // One of them failed and took the others with it: each is tried by itself.
        for (const { work, resolve, reject } of group) await this.transactions.run(work).then(resolve, reject);
      }
    }
    this.flushing = false;
  }
}
