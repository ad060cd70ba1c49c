import type { MailingChangeLine, MailingPlan, MailingSaveAnswer } from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { SourcesService } from '../sources/sources.service.js';
import { mailingChangeStore } from '../stores/mailing-change.store.js';
import { TemplatesService } from '../templates/templates.service.js';
import { MailingsService } from './mailings.service.js';

/** What mailings were before their changes, and the way back. */
@Injectable()
export class MailingHistory {
  constructor(
    private readonly mailings: MailingsService,
    private readonly templates: TemplatesService,
    private readonly sources: SourcesService,
    private readonly transactions: Transactions,
  ) {}

  /** What was changed of it, the newest first. @throws MailbagError not-found */
  async changes(id: number): Promise<MailingChangeLine[]> {
    await this.mailings.entity(id);
    return mailingChangeStore.list(this.transactions, id);
  }

  /**
   * Makes the mailing what it was before a change. Templates and records that are gone since are left out. It is a change itself, so there is a way back from it.
   * @throws MailbagError not-found, mailing-changed-elsewhere
   */
  async goBack(id: number, change: number): Promise<MailingSaveAnswer> {
    const mailing = await this.mailings.entity(id);
    const earlier = await mailingChangeStore.before(this.transactions, id, change);
    if (!earlier) throw new MailbagError('not-found', { what: t`change` });
    const there = await Promise.all(
      earlier.packet.map(({ templateId, revisionId }) => this.templates.detail(templateId, revisionId).catch(() => null)),
    );
    const packet = earlier.packet.filter((_, at) => there[at] !== null);
    const source = earlier.sourceId === null ? null : await this.sources.detail(earlier.sourceId).catch(() => null);
    const plan: MailingPlan = {
      ...(earlier.plan as Omit<MailingPlan, 'sourceId' | 'packet'>),
      sourceId: earlier.sourceId === null ? null : (source?.id ?? mailing.plan.sourceId),
      packet: packet.map(({ templateId }) => templateId),
    };
    return this.mailings.keep(mailing, mailing.version, plan, packet, true);
  }
}
