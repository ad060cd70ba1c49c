import type { ReminderAnswer, ReminderPlan } from '@mailbag/contract';
import { MailbagError, addressesIn } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { DeliveryService } from '../delivery/delivery.service.js';
import { Envelopes } from '../delivery/envelopes.service.js';
import { MailingsService } from '../mailings/mailings.service.js';
import { Transactions } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import { Hold } from '../safety/hold.service.js';
import { batchStore } from '../stores/batch.store.js';
import { mailingStore } from '../stores/mailing.store.js';
import { copyStore } from '../stores/copy.store.js';
import { Jobs } from '../jobs/jobs.service.js';

const DAY = 86_400_000;
const HOUR = 3_600_000;

interface Due {
  batchId: number;
  recordOrdinal: number;
  address: string;
  copies: string;
  reminders: number;
  lastAt: string;
}

/** Reminds those whose copy has not come back. Who has answered, or whose copy was withdrawn or bounced, is never reminded. */
@Injectable()
export class Reminders {
  constructor(
    private readonly transactions: Transactions,
    private readonly mailings: MailingsService,
    private readonly batches: FrozenBatches,
    private readonly envelopes: Envelopes,
    private readonly delivery: DeliveryService,
    private readonly hold: Hold,
    jobs: Jobs,
  ) {
    jobs.register('reminders', { title: 'Reminders', atOnce: 1, retry: [], run: () => this.bySchedule() });
    jobs.every({ kind: 'reminders' }, Math.max(1000, HOUR * config.reminderPace));
  }

  /** A record's copies that were sent and are still out, with the reminders they had. All copies of one recipient must be out: who sent one back has answered. */
  private out(mailingId: number): Promise<Due[]> {
    return copyStore.out(this.transactions, mailingId);
  }

  private isDue(due: Due, plan: ReminderPlan, now: number): boolean {
    return due.reminders < plan.maximum && Date.parse(due.lastAt) + plan.afterDays * DAY * config.reminderPace <= now;
  }

  /** How many would be reminded now. */
  async answer(mailingId: number): Promise<ReminderAnswer> {
    const { plan } = await this.mailings.entity(mailingId);
    const out = await this.out(mailingId);
    const reminder = plan.message.reminder ?? null;
    return {
      out: out.length,
      due: reminder ? out.filter((one) => this.isDue(one, reminder, Date.now())).length : 0,
      reminded: out.filter(({ reminders }) => reminders > 0).length,
    };
  }

  /** Sends reminders. @param all whether those are reminded too whose time has not come @returns how many @throws MailbagError reminder-no-text */
  async remind(mailingId: number, all: boolean): Promise<number> {
    const { plan } = await this.mailings.entity(mailingId);
    const { reminder } = plan.message;
    if (!reminder || reminder.body.trim() === '') throw new MailbagError('reminder-no-text', { mailing: plan.name });
    const now = Date.now();
    const due = (await this.out(mailingId)).filter((one) => all || this.isDue(one, reminder, now));
    let count = 0;
    for (const one of due) {
      const { mailing } = await this.batches.mailing(one.batchId);
      if (addressesIn(one.address, mailing.plan.message.several ?? false).fault !== null) continue;
      // The text as it is now goes out, over the records as they were.
      await this.transactions.run(async (sql) => {
        await batchStore.setReminder(sql, reminder, one.batchId);
        await this.envelopes.make(sql, {
          batchId: one.batchId,
          recordOrdinal: one.recordOrdinal,
          address: one.address,
          copies: JSON.parse(one.copies) as number[],
          held: false,
          kind: 'reminder',
          senderId: plan.message.senderId ?? null,
        });
      });
      this.batches.forget(one.batchId);
      count++;
    }
    this.delivery.wake();
    return count;
  }

  private async bySchedule(): Promise<void> {
    if (this.hold.isHeld) return;
    const rows = await mailingStore.remindingBySchedule(this.transactions);
    for (const { id } of rows) await this.remind(id, false);
  }
}
