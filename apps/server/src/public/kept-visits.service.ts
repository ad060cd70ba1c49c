import { createHash, randomBytes } from 'node:crypto';
import type { PublicKeepRequest, PublicKeptAnswer } from '@mailbag/contract';
import { MailbagError, addressFault } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { Editions } from '../intakes/editions.service.js';
import { Jobs } from '../jobs/jobs.service.js';
import { Transactions } from '../persistence/transactions.js';
import { SendersService } from '../senders/senders.service.js';
import { keptVisitStore } from '../stores/kept-visit.store.js';
import { visitMail } from './visit-mail.js';

const DAY = 86_400_000;
const digestOf = (token: string): string => createHash('sha256').update(token).digest('hex');

/** What visitors typed and want to go on with elsewhere or later: it is kept for some days under a link that is mailed to them, and to nobody else. */
@Injectable()
export class KeptVisits {
  constructor(
    private readonly editions: Editions,
    private readonly senders: SendersService,
    private readonly transactions: Transactions,
    jobs: Jobs,
  ) {
    jobs.register('kept-visits', {
      title: 'Deleting what visitors did not finish',
      atOnce: 1,
      retry: [60_000],
      run: () => this.transactions.run((sql) => keptVisitStore.dropOver(sql, new Date().toISOString())),
    });
    jobs.every({ kind: 'kept-visits', after: DAY / 24 }, DAY / 4);
  }

  /** Days for which a link holds; 0: none can be mailed. @param site where the page is reached; null: that is not known for sure */
  async days(keptDays: number, site: string | null): Promise<number> {
    return site !== null && (await this.senders.ready(null)) !== null ? keptDays : 0;
  }

  /**
   * Keeps a visit and mails the link to it, in the office's words only: nothing of what the visitor typed stands in the message.
   * @throws MailbagError not-found, intake-link-not-mailed
   */
  async keep(word: string, { edition: id, answers, key, step, language, email }: PublicKeepRequest, site: string | null): Promise<void> {
    const { plan, intakeId } = await this.editions.begun(word, id);
    const days = await this.days(plan.opening.keptDays, site);
    if (days === 0 || addressFault(email.trim()) !== null) throw new MailbagError('intake-link-not-mailed');
    const token = randomBytes(32).toString('base64url');
    const content = JSON.stringify({ edition: id, answers, step, key } satisfies PublicKeptAnswer);
    await this.transactions.run((sql) =>
      keptVisitStore.keep(sql, digestOf(token), intakeId, content, new Date(Date.now() + days * DAY).toISOString()),
    );
    const letter = visitMail(language, plan.title.trim() || plan.name, `${site}/in/${word}#${token}`, days);
    if ((await this.senders.mailOne(email.trim(), letter)) !== null) throw new MailbagError('intake-link-not-mailed');
  }

  /** @throws MailbagError not-found when there is none, or its time is over */
  async goOn(word: string, token: string): Promise<PublicKeptAnswer> {
    const kept = await keptVisitStore.byToken(this.transactions, digestOf(token), new Date().toISOString());
    const { intakeId } = await this.editions.ofWord(word);
    if (kept?.intakeId !== intakeId) throw new MailbagError('not-found', { what: 'visit' });
    return JSON.parse(kept.content) as PublicKeptAnswer;
  }
}
