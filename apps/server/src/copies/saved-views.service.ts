import type { SavedView, SavedViewRequest } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { savedViewStore } from '../stores/saved-view.store.js';

/** Filters of the ledger that a person keeps under a name. */
@Injectable()
export class SavedViews {
  constructor(private readonly transactions: Transactions) {}

  list(accountId: number): Promise<SavedView[]> {
    return savedViewStore.ofAccount(this.transactions, accountId);
  }

  /** Keeps a view; one of the same name is replaced. */
  async save(accountId: number, { name, filter }: SavedViewRequest): Promise<SavedView[]> {
    await this.transactions.run(async (sql) => {
      await savedViewStore.dropNamed(sql, accountId, name.trim());
      await savedViewStore.add(sql, accountId, name.trim(), filter, new Date().toISOString());
    });
    return this.list(accountId);
  }

  async remove(accountId: number, id: number): Promise<SavedView[]> {
    await this.transactions.run((sql) => savedViewStore.drop(sql, id, accountId));
    return this.list(accountId);
  }
}
