import type { SavedView, SavedViewRequest } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';

/** Filters of the ledger that a person keeps under a name. */
@Injectable()
export class SavedViews {
  constructor(private readonly transactions: Transactions) {}

  list(accountId: number): Promise<SavedView[]> {
    return this.transactions.read('SELECT id, name, filter FROM saved_view WHERE accountId = ? ORDER BY name COLLATE NOCASE', [accountId]);
  }

  /** Keeps a view; one of the same name is replaced. */
  async save(accountId: number, { name, filter }: SavedViewRequest): Promise<SavedView[]> {
    await this.transactions.run(async (manager) => {
      await manager.query('DELETE FROM saved_view WHERE accountId = ? AND name = ?', [accountId, name.trim()]);
      await manager.query('INSERT INTO saved_view (accountId, name, filter, createdAt) VALUES (?, ?, ?, ?)', [
        accountId,
        name.trim(),
        filter,
        new Date().toISOString(),
      ]);
    });
    return this.list(accountId);
  }

  async remove(accountId: number, id: number): Promise<SavedView[]> {
    await this.transactions.run((manager) => manager.query('DELETE FROM saved_view WHERE id = ? AND accountId = ?', [id, accountId]));
    return this.list(accountId);
  }
}
