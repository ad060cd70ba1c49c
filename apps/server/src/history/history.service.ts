import { Injectable, Logger } from '@nestjs/common';
import { asker } from '../platform/asker.js';
import type { Asker } from '../platform/asker.js';
import { Transactions } from '../persistence/transactions.js';

/** Who did what and when: written as it is done, never changed. */
@Injectable()
export class History {
  private readonly logger = new Logger('history');
  constructor(private readonly transactions: Transactions) {}

  /** @param subject what it was done to @param detail what else is worth knowing; never a value of a record or a secret @param who left out: who asks */
  async note(action: string, subject: string, detail: string | null = null, who: Asker = asker()): Promise<void> {
    await this.transactions
      .run((manager) =>
        manager.query('INSERT INTO history (at, accountId, who, action, subject, detail) VALUES (?, ?, ?, ?, ?, ?)', [
          new Date().toISOString(),
          who.accountId,
          who.name,
          action,
          subject,
          detail,
        ]),
      )
      .catch((error: unknown) => this.logger.error(error));
  }
}
