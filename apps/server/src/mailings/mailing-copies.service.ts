import type { MailingDetail, MailingPlan } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { findingStore } from '../stores/finding.store.js';
import { mailingStore } from '../stores/mailing.store.js';
import { MailingsService } from './mailings.service.js';

/** Begins mailings as earlier ones were. */
@Injectable()
export class MailingCopies {
  constructor(
    private readonly mailings: MailingsService,
    private readonly transactions: Transactions,
  ) {}

  /**
   * A mailing with the packet, in the revisions that it was mapped for, and with the map, the checks, the output and the message of an earlier one, over
   * the same records. Looks that somebody accepted stay so for as long as their values hold. What was said of single rows, and a time to start, do not come along.
   * @throws MailbagError not-found, mailing-name-empty
   */
  async begin(name: string, from: number): Promise<MailingDetail> {
    if (name.trim() === '') throw new MailbagError('mailing-name-empty');
    const earlier = await this.mailings.entity(from);
    const { id } = await this.mailings.create(name);
    const { sourceId, packet: _packet, ...rest } = earlier.plan;
    const { startAt: _startAt, ...message } = rest.message;
    const plan: Omit<MailingPlan, 'sourceId' | 'packet'> = { ...rest, name: name.trim(), leftOut: [], message };
    const packet = earlier.plan.packet.map((templateId) => ({ templateId, revisionId: earlier.revisions.get(templateId)! }));
    await this.transactions.run(async (sql) => {
      await mailingStore.save(sql, id, 1, { name: plan.name, plan, sourceId, packet, updatedAt: new Date().toISOString() });
      await findingStore.copyAcceptances(sql, from, id);
    });
    return this.mailings.detail(id);
  }
}
