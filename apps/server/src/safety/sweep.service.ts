import { readdir, rm, stat } from 'node:fs/promises';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { AccountsService } from '../accounts/accounts.service.js';
import { Transactions } from '../persistence/transactions.js';
import { dataPath } from '../platform/config.js';
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
    jobs.register('sweep', { title: 'Throwing away what nobody needs', atOnce: 1, retry: [60_000], run: () => this.sweep() });
    jobs.every({ kind: 'sweep' }, HOUR);
  }

  /** At each start, and once an hour. */
  async onApplicationBootstrap(): Promise<void> {
    await this.jobs.soon('sweep');
  }

  async sweep(): Promise<void> {
    await this.accounts.sweepSessions();
    const used = await sourceStore.fileIds(this.transactions);
    await this.sweepFolder('sources', new Set(used.map(({ fileId }) => fileId)));
    // What is uploaded is moved out of the spool at once; what lies there for long was broken off.
    await this.sweepFolder('spool', new Set());
    const before = new Date(Date.now() - REPORT_DAYS * DAY).toISOString();
    await this.transactions.run(async (sql) => {
      await reportStore.dropBefore(sql, before);
      await reportStore.dropTriesBefore(sql, before);
    });
  }

  private async sweepFolder(folder: 'sources' | 'spool', used: ReadonlySet<string>): Promise<void> {
    const before = Date.now() - UPLOAD_KEPT;
    for (const name of await readdir(dataPath(folder))) {
      if (used.has(name.replace(/\.name$/, ''))) continue;
      const path = dataPath(folder, name);
      const found = await stat(path).catch(() => null);
      if (found?.isFile() && found.mtimeMs < before) await rm(path, { force: true });
    }
  }
}
