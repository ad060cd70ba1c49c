import { MailbagError, addressesIn, copyLaw, remark } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { changeCopies, changeCopy, noteCopies } from '../copies/copy-changes.js';
import { LiveService } from '../live/live.service.js';
import type { Sql } from '../persistence/sql.js';
import { Transactions } from '../persistence/transactions.js';
import { assertInNoRun, copiesInRuns } from '../paper/open-runs.js';
import { DeliveryService } from './delivery.service.js';
import { Envelopes, copiesOfDelivery } from './envelopes.service.js';
import type { AddressedCopy } from '../stores/copy-rows.js';
import { copyStore } from '../stores/copy.store.js';
import { deliveryStore } from '../stores/delivery.store.js';
import { ledgerStore } from '../stores/ledger.store.js';
import { batchStore } from '../stores/batch.store.js';
import type { Principal } from '../platform/principal.js';

/** What a person does with copies that are made: send again, settle, to paper, withdraw. */
@Injectable()
export class CopyActions {
  constructor(
    private readonly transactions: Transactions,
    private readonly batches: FrozenBatches,
    private readonly envelopes: Envelopes,
    private readonly delivery: DeliveryService,
    private readonly live: LiveService,
  ) {}

  private async copy(sql: Sql, id: number): Promise<AddressedCopy> {
    const copy = await copyStore.addressed(sql, id);
    if (!copy) throw new MailbagError('not-found', { what: t`copy` });
    return copy;
  }

  private tell(batches: Iterable<number>): void {
    for (const id of new Set(batches)) {
      this.live.notify('copies', id);
      this.live.notify('batch', id);
    }
  }

  /** The copies that go in one envelope with this one and are in the same state. */
  private async together(sql: Sql, copy: AddressedCopy): Promise<number[]> {
    const rows = await copyStore.together(sql, copy);
    return rows.map(({ id }) => id);
  }

  /** Whether the values are still there that a message is composed of. */
  private hasRecord(sql: Sql, { batchId, recordOrdinal }: AddressedCopy): Promise<boolean> {
    return batchStore.hasValues(sql, batchId, recordOrdinal);
  }

  private async resend(sql: Sql, copy: AddressedCopy, address: string, who: Principal): Promise<void> {
    const { mailing } = await this.batches.mailing(copy.batchId);
    const { message } = mailing.plan;
    const { fault } = addressesIn(address, message.several ?? false);
    if (fault !== null) throw new MailbagError('mail-address-refused', { address: address.slice(0, 200), why: fault });
    const to = address.trim();
    const detail = copy.address && copy.address !== to ? remark('address-corrected', { from: copy.address, to }) : null;
    const all = [...new Set([copy.id, ...(await this.together(sql, copy))])];
    await assertInNoRun(sql, all);
    if (!(await this.hasRecord(sql, copy))) throw new MailbagError('record-over-time');
    await changeCopy(sql, copy.id, 'send-again', { who, detail });
    await changeCopies(sql, all, 'send-again', { who, detail });
    const made = await this.envelopes.make(sql, {
      batchId: copy.batchId,
      recordOrdinal: copy.recordOrdinal,
      address,
      copies: all,
      held: false,
      senderId: message.senderId ?? null,
    });
    // Both addresses find it from now on.
    if (detail !== null) await ledgerStore.addWords(sql, ` ${address.trim()}`, all);
    if (made === null) throw new MailbagError('sender-not-confirmed', { mailing: mailing.plan.name });
  }

  /**
   * Sends what belongs to a copy's delivery again, to the address given, as a new message.
   * @throws MailbagError mail-address-refused, copy-in-print-run, record-over-time, copy-law, not-found, sender-not-confirmed
   */
  async sendAgain(copyId: number, address: string, who: Principal): Promise<void> {
    const batchId = await this.transactions.run(async (sql) => {
      const copy = await this.copy(sql, copyId);
      await this.resend(sql, copy, address, who);
      return copy.batchId;
    });
    this.tell([batchId]);
    this.delivery.wake();
  }

  /** A person's word that an unconfirmed delivery did arrive. @throws MailbagError copy-law, not-found */
  async confirmSent(copyId: number, who: Principal): Promise<void> {
    const batchId = await this.transactions.run(async (sql) => {
      const copy = await this.copy(sql, copyId);
      const because = { who, detail: remark('confirmed-by-hand') };
      await changeCopy(sql, copyId, 'confirm-sent', because);
      if (copy.deliveryId !== null) {
        await changeCopies(sql, await copiesOfDelivery(sql, copy.deliveryId), 'confirm-sent', because);
        const now = new Date().toISOString();
        await deliveryStore.settleSent(sql, now, now, copy.deliveryId);
      }
      return copy.batchId;
    });
    this.tell([batchId]);
  }

  /** @throws MailbagError copy-law, not-found */
  async withdraw(copyId: number, who: Principal): Promise<void> {
    const batchId = await this.transactions.run(async (sql) => {
      await changeCopy(sql, copyId, 'withdraw', { who });
      return (await this.copy(sql, copyId)).batchId;
    });
    this.tell([batchId]);
  }

  /** Puts copies among those that wait for a print run, or takes them out again. @returns how many */
  private async toPaper(sql: Sql, ids: readonly number[], isWanted: boolean, who: Principal): Promise<number[]> {
    const rows = await copyStore.whosePaperChanges(sql, ids, isWanted ? 0 : 1, copyLaw.print.from);
    const found = rows.map(({ id }) => id);
    await copyStore.setWantsPaper(sql, isWanted, found);
    await noteCopies(sql, found, isWanted ? 'to-paper' : 'off-paper', { who });
    return found;
  }

  /**
   * Does the same with many copies. Those to which it cannot happen are left as they are.
   * @returns how many it was done with; those ids can be given back to undo what can be undone
   */
  async many(
    action: 'send-again' | 'confirm-sent' | 'to-paper' | 'off-paper' | 'withdraw',
    ids: readonly number[],
    who: Principal,
  ): Promise<number[]> {
    const BLOCK = 200;
    const done: number[] = [];
    const batches = new Set<number>();
    for (let first = 0; first < ids.length; first += BLOCK) {
      const block = ids.slice(first, first + BLOCK);
      await this.transactions.run(async (sql) => {
        const rows = await copyStore.addressedAll(sql, block);
        rows.forEach(({ batchId }) => batches.add(batchId));
        if (action === 'to-paper' || action === 'off-paper')
          return void done.push(...(await this.toPaper(sql, block, action === 'to-paper', who)));
        const able = rows.filter(({ state }) => copyLaw[action].from.includes(state));
        if (action === 'withdraw') {
          await changeCopies(
            sql,
            able.map(({ id }) => id),
            'withdraw',
            { who },
          );
          return void done.push(...able.map(({ id }) => id));
        }
        for (const one of able) {
          // Another copy of the same envelope may have taken it along.
          const copy = await this.copy(sql, one.id);
          if (!copyLaw[action].from.includes(copy.state)) {
            done.push(one.id);
            continue;
          }
          if (action === 'send-again') {
            const { mailing } = await this.batches.mailing(copy.batchId);
            if (addressesIn(copy.address, mailing.plan.message.several ?? false).fault !== null) continue;
            if (!(await this.hasRecord(sql, copy))) continue;
            if ((await copiesInRuns(sql, [copy.id, ...(await this.together(sql, copy))])).length > 0) continue;
            await this.resend(sql, copy, copy.address, who);
          } else {
            await changeCopies(sql, [copy.id], 'confirm-sent', { who, detail: remark('confirmed-by-hand') });
            const now = new Date().toISOString();
            await deliveryStore.settleSent(sql, now, now, copy.deliveryId ?? -1);
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
