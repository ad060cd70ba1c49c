import type { IntakeAnswers, OfficeNotice } from '@mailbag/core';
import { MailbagError, addressesIn, isAnswered, isPictureKind, orderedQuestions, submissionRecord, typedText } from '@mailbag/core';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { packetAttachments } from '../delivery/attachments.js';
import { combinedCopies } from '../delivery/combined-copies.js';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { Jobs } from '../jobs/jobs.service.js';
import { LiveService } from '../live/live.service.js';
import { config } from '../platform/config.js';
import { Transactions } from '../persistence/transactions.js';
import { Hold } from '../safety/hold.service.js';
import { SendersService } from '../senders/senders.service.js';
import { SettingsService } from '../settings/settings.service.js';
import { intakeStore } from '../stores/intake.store.js';
import type { SubmissionRow } from '../stores/submission.store.js';
import { submissionStore } from '../stores/submission.store.js';
import { Pool } from '../work/pool.js';
import type { AnswerRows } from './answer-table.js';
import { answersAsHtml, answersAsText } from './answer-table.js';
import type { Edition } from './editions.service.js';
import { Editions } from './editions.service.js';
import { Submissions } from './submissions.service.js';

/** Milliseconds after each try in vain; the last one again and again. */
const AGAIN = [5000, 30_000, 300_000];
/** Milliseconds until it is looked again whether copies are made; for so long after an answer came they are waited for. */
const [SOON, PATIENCE] = [1500, 600_000];
/** Milliseconds until it is looked again whether the folder may send. */
const HELD = 30_000;
/** Milliseconds after which a notice that no server took is given up. */
const LATEST = 3 * 86_400_000;

/**
 * Tells the office of each answer, with the answers as a table and with the copies. It is written down before a notice leaves: after a fall in between, it is told
 * that nobody knows whether it arrived, and it is not sent again.
 */
@Injectable()
export class Notices implements OnApplicationBootstrap {
  constructor(
    private readonly transactions: Transactions,
    private readonly submissions: Submissions,
    private readonly editions: Editions,
    private readonly senders: SendersService,
    private readonly batches: FrozenBatches,
    private readonly pool: Pool,
    private readonly jobs: Jobs,
    private readonly live: LiveService,
    private readonly settings: SettingsService,
    private readonly hold: Hold,
  ) {
    jobs.register('notices', {
      title: 'Telling the office of answers',
      atOnce: 1,
      retry: AGAIN.map((wait) => wait * config.retryPace),
      forEver: true,
      run: ({ key }) => this.notifyAll(Number(key)),
    });
  }

  async onApplicationBootstrap(): Promise<void> {
    const waiting = await this.transactions.run((sql) => submissionStore.reopenNotices(sql));
    for (const { intakeId } of waiting) await this.jobs.add({ kind: 'notices', key: intakeId, after: SOON });
  }

  /** @throws MailbagError intake-notice-failed: one could not be sent, and is tried again */
  private async notifyAll(intakeId: number): Promise<void> {
    const intake = await intakeStore.byId(this.transactions, intakeId);
    if (!intake) return;
    // The folder that this one comes from may have told them: they wait until somebody has looked.
    if (this.hold.isHeld) return void (await this.jobs.add({ kind: 'notices', key: intakeId, subject: intake.plan.name, after: HELD }));
    let isWaiting = false;
    let failed: string | null = null;
    let last = 0;
    for (;;) {
      const row = await submissionStore.toTell(this.transactions, intakeId, last);
      if (!row) break;
      last = row.id;
      const age = Date.now() - Date.parse(row.receivedAt);
      const { copies, isMaking } = await this.submissions.made(row);
      if (isMaking && age < PATIENCE) isWaiting = true;
      else failed = (await this.notify(row, copies, age)) ?? failed;
    }
    if (failed !== null) throw new MailbagError('intake-notice-failed', { why: failed });
    if (isWaiting) await this.jobs.add({ kind: 'notices', key: intakeId, subject: intake.plan.name, after: SOON });
  }

  /** @returns why it could not be sent; null: it was, or nobody wants it */
  private async notify(
    row: SubmissionRow,
    copies: Awaited<ReturnType<Submissions['made']>>['copies'],
    age: number,
  ): Promise<string | null> {
    const edition = await this.editions.byId(row.editionId);
    const { notice } = edition.plan.after;
    const to = addressesIn(notice?.to ?? '', true).addresses.map(({ address }) => address);
    const move = (from: SubmissionRow['notice'], next: SubmissionRow['notice']): Promise<boolean> =>
      this.transactions.run((sql) => submissionStore.moveNotice(sql, row.id, from, next));
    if (!notice || to.length === 0) {
      await move('waiting', 'none');
      return null;
    }
    const message = await this.message(row, edition, notice, copies);
    if (!(await move('waiting', 'sending'))) return null;
    const { kind, failure } = await this.senders.mailSingle(to, message);
    await move('sending', kind === 'not-sent' ? (age < LATEST ? 'waiting' : 'failed') : kind);
    this.live.notify('intake', row.intakeId);
    return kind === 'not-sent' ? failure : null;
  }

  private async message(
    row: SubmissionRow,
    { plan, frozen }: Edition,
    { subject, body, attach }: OfficeNotice,
    copies: Awaited<ReturnType<Submissions['made']>>['copies'],
  ) {
    const values = submissionRecord(plan, { ...row, answers: JSON.parse(row.answers) as IntakeAnswers }, this.settings.zone);
    const letter = await this.pool.run('letter', {
      mailing: {
        ...frozen,
        plan: {
          ...frozen.plan,
          message: { ...frozen.plan.message, subject, body, bodyFormat: 'html', copyTo: '', blindCopyTo: '' },
          // The sentence that tells how to open goes along only with what is to be opened.
          output: attach === 'none' || copies.length === 0 ? { ...frozen.plan.output, openPassword: '' } : frozen.plan.output,
        },
      },
      record: { row: 1, cells: frozen.columns.map(({ name, kind }) => typedText(values[name] ?? '', { kind })) },
      batch: await this.batches.next(),
      code: row.number,
    });
    const rows: AnswerRows = [
      ['Number', row.number],
      ...orderedQuestions(plan)
        .filter((question) => !question.isAway && isAnswered(question))
        .flatMap(({ words, column, kind }): [string, string][] => {
          const value = values[column] ?? '';
          return value === '' ? [] : [[words, isPictureKind(kind) ? 'given' : value]];
        }),
    ];
    const none = copies.length === 0 && attach !== 'none' ? 'There are no copies of it yet: look at it in Mailbag.' : '';
    const attachments =
      attach === 'none'
        ? []
        : await packetAttachments(copies, attach, `${plan.name} ${row.number}`, () => combinedCopies(this.pool, copies));
    return {
      subject: letter.subject,
      text: [letter.text, answersAsText(rows), none].filter(Boolean).join('\n\n'),
      html: [letter.html, answersAsHtml(rows), none && `<p>${none}</p>`].filter(Boolean).join('\n'),
      attachments,
    };
  }
}
