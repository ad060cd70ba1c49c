import type { SavedView, SavedViewRequest } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
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

  /** @throws MailbagError not-found */
  async rename(accountId: number, id: number, name: string): Promise<SavedView[]> {
    await this.assertMayGo(id, accountId);
    await this.transactions.run((sql) => savedViewStore.rename(sql, id, accountId, name.trim()));
    return this.list(accountId);
  }

  /** @throws MailbagError not-found where it is somebody else's too */
  async assertMayGo(id: number, accountId: number): Promise<void> {
    if (!(await this.list(accountId)).some((view) => view.id === id)) throw new MailbagError('not-found', { what: t`saved view` });
  }

  /** Deletes it for good. */
  erase(id: number): Promise<unknown> {
    return this.transactions.run((sql) => savedViewStore.drop(sql, id));
  }
}
