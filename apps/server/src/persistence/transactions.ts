import { Injectable, Logger } from '@nestjs/common';
import { DataSource } from 'typeorm';
import { TransactionQueue } from './transaction-queue.js';

/** The server's changes. */
@Injectable()
export class Transactions extends TransactionQueue {
  constructor(database: DataSource) {
    const logger = new Logger('database');
    super(database, (words) => logger.warn(words));
  }
}
