import type { BeforeApplicationShutdown } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { JobRunner } from './job-runner.js';

export type { JobKind, JobRun, WantedJob } from './job-runner.js';

/** The jobs of this server. */
@Injectable()
export class Jobs extends JobRunner implements BeforeApplicationShutdown {
  constructor(transactions: Transactions) {
    const logger = new Logger('jobs');
    super(transactions, (error) => logger.error(error));
  }

  beforeApplicationShutdown(): Promise<void> {
    return this.close();
  }
}
