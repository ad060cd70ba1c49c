import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { Pool } from '../work/pool.js';
import { MailDoor } from './mail-door.js';

/** The server's door for mail. */
@Injectable()
export class IncomingMail extends MailDoor {
  constructor(transactions: Transactions, pool: Pool) {
    super(transactions, pool);
  }
}
