import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { AccountsService } from '../accounts/accounts.service.js';
import { Transactions } from '../persistence/transactions.js';
import { fileName } from '../files/file-key.js';
import { list, remove, stat } from '../files/files.js';
import { reportStore } from '../stores/report.store.js';
import { sourceStore } from '../stores/source.store.js';
import { Jobs } from '../jobs/jobs.service.js';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
/** Milliseconds after which an upload that nothing was made of is not waited for any more. */
const UPLOAD_KEPT = DAY;
/** Days after which what came into the bounce mailbox, and was settled, is forgotten. */
const REPORT_DAYS = 400;

/** Throws away what nobody needs any more: sessions that are over, uploads that nothing was made of, old reports. */
@Injectable()
export class Sweep implements OnApplicationBootstrap {
  constructor(
    private readonly transactions: Transactions,
    private readonly accounts: AccountsService,
    private readonly jobs: Jobs,
  ) {
    jobs.register('sweep', { title: 'Clearing away what nobody needs', atOnce: 1, retry: [60_000], run: () => this.sweep() });
    jobs.every({ kind: 'sweep' }, HOUR);
  }

  /** At each start, and once an hour. */
  async onApplicationBootstrap(): Promise<void> {
    await this.jobs.soon('sweep');
  }

  async sweep(): Promise<void> {
    await this.accounts.sweepSessions();
    const used = await sourceStore.fileIds(this.transactions);
    await this.sweepShelf('sources', new Set(used.map(({ fileId }) => fileId)));
    // What is uploaded is moved out of the spool at once; what lies there for long was broken off.
    await this.sweepShelf('spool', new Set());
    const before = new Date(Date.now() - REPORT_DAYS * DAY).toISOString();
    await this.transactions.run(async (sql) => {
      await reportStore.dropBefore(sql, before);
      await reportStore.dropTriesBefore(sql, before);
    });
  }

  private async sweepShelf(shelf: 'sources' | 'spool', used: ReadonlySet<string>): Promise<void> {
    const before = Date.now() - UPLOAD_KEPT;
    for (const key of await list(shelf)) {
      if (used.has(fileName(key).replace(/\.name$/, ''))) continue;
      const found = await stat(key);
      if (found && found.changedAt.getTime() < before) await remove(key);
    }
  }
}
