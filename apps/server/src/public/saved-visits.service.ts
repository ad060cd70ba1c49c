import { createHash, randomBytes } from 'node:crypto';
import type { PublicKeepRequest, PublicSavedVisitAnswer } from '@mailbag/contract';
import { MailbagError, addressFault } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { Editions } from '../intakes/editions.service.js';
import { Jobs } from '../jobs/jobs.service.js';
import { Transactions } from '../persistence/transactions.js';
import { SendersService } from '../senders/senders.service.js';
import { savedVisitStore } from '../stores/saved-visit.store.js';
import { visitMail } from './visit-mail.js';

const DAY = 86_400_000;
const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** What visitors typed and want to go on with elsewhere or later: it is kept for some days under a link that is mailed to them, and to nobody else. */
@Injectable()
export class SavedVisits {
  constructor(
    private readonly editions: Editions,
    private readonly senders: SendersService,
    private readonly transactions: Transactions,
    jobs: Jobs,
  ) {
    jobs.register('saved-visits', {
      title: 'Deleting what visitors did not finish',
      atOnce: 1,
      retry: [60_000],
      run: () => this.transactions.run((sql) => savedVisitStore.dropOver(sql, new Date().toISOString())),
    });
    jobs.every({ kind: 'saved-visits', after: DAY / 24 }, DAY / 4);
  }

  /** Days for which a link holds; 0: none can be mailed. @param site where the page is reached; null: that is not known for sure */
  async days(retentionDays: number, site: string | null): Promise<number> {
    return site !== null && (await this.senders.ready(null)) !== null ? retentionDays : 0;
  }

  /**
   * Keeps a visit and mails the link to it, in the office's words only: nothing of what the visitor typed stands in the message.
   * @throws MailbagError not-found, intake-link-not-mailed
   */
  async keep(word: string, { edition: id, answers, key, step, language, email }: PublicKeepRequest, site: string | null): Promise<void> {
    const { plan, intakeId } = await this.editions.begun(word, id);
    const days = await this.days(plan.opening.retentionDays, site);
    if (days === 0 || addressFault(email.trim()) !== null) throw new MailbagError('intake-link-not-mailed');
    const token = randomBytes(32).toString('base64url');
    const content = JSON.stringify({ edition: id, answers, step, key } satisfies PublicSavedVisitAnswer);
    await this.transactions.run((sql) =>
      savedVisitStore.keep(sql, digestOf(token), intakeId, content, new Date(Date.now() + days * DAY).toISOString()),
    );
    const letter = visitMail(language, plan.title.trim() || plan.name, `${site}/in/${word}#${token}`, days);
    if ((await this.senders.mailOne(email.trim(), letter)) !== null) throw new MailbagError('intake-link-not-mailed');
  }

  /** @throws MailbagError not-found when there is none, or its time is over */
  async goOn(word: string, token: string): Promise<PublicSavedVisitAnswer> {
    const saved = await savedVisitStore.byToken(this.transactions, digestOf(token), new Date().toISOString());
    const { intakeId } = await this.editions.ofWord(word);
    if (saved?.intakeId !== intakeId) throw new MailbagError('not-found', { what: t`visit` });
    return JSON.parse(saved.content) as PublicSavedVisitAnswer;
  }
}
