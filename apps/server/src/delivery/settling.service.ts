import { MailbagError, addressesIn, copyLaw } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { changeCopies, changeCopy, noteCopies } from '../copies/copy-changes.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { assertInNoRun, copiesInRuns } from '../paper/open-runs.js';
import { DeliveryService } from './delivery.service.js';
import { Envelopes, copiesOfDelivery } from './envelopes.service.js';
import type { AddressedCopy } from '../stores/copy.store.js';
import { copyStore } from '../stores/copy.store.js';
import { deliveryStore } from '../stores/delivery.store.js';
import { ledgerStore } from '../stores/ledger.store.js';
import { batchStore } from '../stores/batch.store.js';

/** What a person does with copies that are made: send again, settle, to paper, withdraw. */
@Injectable()
export class Settling {
  constructor(
    private readonly transactions: Transactions,
    private readonly batches: FrozenBatches,
    private readonly envelopes: Envelopes,
    private readonly delivery: DeliveryService,
    private readonly live: LiveService,
  ) {}

  private async copy(manager: EntityManager, id: number): Promise<AddressedCopy> {
    const copy = await copyStore.addressed(manager, id);
    if (!copy) throw new MailbagError('not-found', { what: 'copy' });
    return copy;
  }

  private tell(batches: Iterable<number>): void {
    for (const id of new Set(batches)) {
      this.live.tell('copies', id);
      this.live.tell('batch', id);
    }
  }

  /** The copies that go in one envelope with this one and are in the same state. */
  private async together(manager: EntityManager, copy: AddressedCopy): Promise<number[]> {
    const rows = await copyStore.together(manager, copy);
    return rows.map(({ id }) => id);
  }

  /** Whether the values are still there that a message is composed of. */
  private hasRecord(manager: EntityManager, { batchId, recordOrdinal }: AddressedCopy): Promise<boolean> {
    return batchStore.hasValues(manager, batchId, recordOrdinal);
  }

  private async resend(manager: EntityManager, copy: AddressedCopy, address: string, who: string): Promise<void> {
    const { mailing } = await this.batches.mailing(copy.batchId);
    const { message } = mailing.plan;
    const { fault } = addressesIn(address, message.several ?? false);
    if (fault !== null) throw new MailbagError('mail-address-refused', { address: address.slice(0, 200), why: fault });
    const said = copy.address && copy.address !== address.trim() ? `Address corrected from ${copy.address} to ${address.trim()}` : null;
    const all = [...new Set([copy.id, ...(await this.together(manager, copy))])];
    await assertInNoRun(manager, all);
    if (!(await this.hasRecord(manager, copy))) throw new MailbagError('record-over-time');
    await changeCopy(manager, copy.id, 'send-again', { who, said });
    await changeCopies(manager, all, 'send-again', { who, said });
    const made = await this.envelopes.make(manager, {
      batchId: copy.batchId,
      recordOrdinal: copy.recordOrdinal,
      address,
      copies: all,
      held: false,
      senderId: message.senderId ?? null,
    });
    // Both addresses find it from now on.
    if (said !== null) await ledgerStore.addWords(manager, ` ${address.trim()}`, all);
    if (made === null) throw new MailbagError('sender-not-confirmed', { mailing: mailing.plan.name });
  }

  /**
   * Sends what belongs to a copy's delivery again, to the address given, as a new message.
   * @throws MailbagError mail-address-refused, copy-in-print-run, record-over-time, copy-law, not-found, sender-not-confirmed
   */
  async sendAgain(copyId: number, address: string, who: string): Promise<void> {
    const batchId = await this.transactions.run(async (manager) => {
      const copy = await this.copy(manager, copyId);
      await this.resend(manager, copy, address, who);
      return copy.batchId;
    });
    this.tell([batchId]);
    this.delivery.wake();
  }

  /** A person's word that an unconfirmed delivery did arrive. @throws MailbagError copy-law, not-found */
  async confirmSent(copyId: number, who: string): Promise<void> {
    const batchId = await this.transactions.run(async (manager) => {
      const copy = await this.copy(manager, copyId);
      const because = { who, said: 'Confirmed by hand' };
      await changeCopy(manager, copyId, 'confirm-sent', because);
      if (copy.deliveryId !== null) {
        await changeCopies(manager, await copiesOfDelivery(manager, copy.deliveryId), 'confirm-sent', because);
        const now = new Date().toISOString();
        await deliveryStore.settleSent(manager, now, now, copy.deliveryId);
      }
      return copy.batchId;
    });
    this.tell([batchId]);
  }

  /** @throws MailbagError copy-law, not-found */
  async withdraw(copyId: number, who: string): Promise<void> {
    const batchId = await this.transactions.run(async (manager) => {
      await changeCopy(manager, copyId, 'withdraw', { who });
      return (await this.copy(manager, copyId)).batchId;
    });
    this.tell([batchId]);
  }

  /** Puts copies among those that wait for a print run, or takes them out again. @returns how many */
  private async toPaper(manager: EntityManager, ids: readonly number[], isWanted: boolean, who: string): Promise<number[]> {
    const rows = await copyStore.whosePaperChanges(manager, ids, isWanted ? 0 : 1, copyLaw.print.from);
    const found = rows.map(({ id }) => id);
    await copyStore.setWantsPaper(manager, isWanted, found);
    await noteCopies(manager, found, isWanted ? 'to-paper' : 'off-paper', { who });
    return found;
  }

  /**
   * Does the same with many copies. Those to which it cannot happen are left as they are.
   * @returns how many it was done with; those ids can be given back to undo what can be undone
   */
  async many(
    action: 'send-again' | 'confirm-sent' | 'to-paper' | 'off-paper' | 'withdraw',
    ids: readonly number[],
    who: string,
  ): Promise<number[]> {
    const BLOCK = 200;
    const done: number[] = [];
    const batches = new Set<number>();
    for (let first = 0; first < ids.length; first += BLOCK) {
      const block = ids.slice(first, first + BLOCK);
      await this.transactions.run(async (manager) => {
        const rows = await copyStore.addressedAll(manager, block);
        rows.forEach(({ batchId }) => batches.add(batchId));
        if (action === 'to-paper' || action === 'off-paper')
          return void done.push(...(await this.toPaper(manager, block, action === 'to-paper', who)));
        const able = rows.filter(({ state }) => copyLaw[action].from.includes(state));
        if (action === 'withdraw') {
          await changeCopies(
            manager,
            able.map(({ id }) => id),
            'withdraw',
            { who },
          );
          return void done.push(...able.map(({ id }) => id));
        }
        for (const one of able) {
          // Another copy of the same envelope may have taken it along.
          const copy = await this.copy(manager, one.id);
          if (!copyLaw[action].from.includes(copy.state)) {
            done.push(one.id);
            continue;
          }
          if (action === 'send-again') {
            const { mailing } = await this.batches.mailing(copy.batchId);
            if (addressesIn(copy.address, mailing.plan.message.several ?? false).fault !== null) continue;
            if (!(await this.hasRecord(manager, copy))) continue;
            if ((await copiesInRuns(manager, [copy.id, ...(await this.together(manager, copy))])).length > 0) continue;
            await this.resend(manager, copy, copy.address, who);
          } else {
            await changeCopies(manager, [copy.id], 'confirm-sent', { who, said: 'Confirmed by hand' });
            const now = new Date().toISOString();
            await deliveryStore.settleSent(manager, now, now, copy.deliveryId ?? -1);
          }
          done.push(one.id);
        }
      });
    }
    this.tell(batches);
    this.delivery.wake();
    return done;
  }
}
