import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { Pool } from './pool.js';

/** Has a thread carry the log into the database when the server alone has written much; threads that write do so as they go (SQLite, “Write-Ahead Logging”). */
@Injectable()
export class LogCare {
  constructor(transactions: Transactions, pool: Pool) {
    transactions.checkpoint = () => pool.run('checkpoint', null);
  }
}
