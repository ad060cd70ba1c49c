import { createHash } from 'node:crypto';
import type { AcceptRequest, ChecksAnswer } from '@mailbag/contract';
import type { Finding } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, isMailbagError, recordKeys } from '@mailbag/core';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import type { WantedJob } from '../jobs/jobs.service.js';
import { Jobs } from '../jobs/jobs.service.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { SourceReadings } from '../sources/source-readings.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { config } from '../platform/config.js';
import { Pool } from '../work/pool.js';
import type { Tasks } from '../work/tasks.js';
import { MailingEntity } from './mailings.entity.js';
import type { Mailing, Subject } from './mailings.service.js';
import { MailingsService } from './mailings.service.js';
import { findingStore } from '../stores/finding.store.js';
import { mailingStore } from '../stores/mailing.store.js';
import type { Principal } from '../platform/principal.js';

/** Records beyond which a change is checked as if all had changed. */
const MOST_TOUCHED = 1000;

/** Records from which on it pays that several threads look at them. */
const MANY = 4000;

/** Places of records for threads that look at them at once, the last open to its end. */
function stretchesOf(count: number, threads: number): { from: number; to: number }[] {
  const parts = count < MANY ? 1 : threads;
  const each = Math.ceil(count / parts);
  return Array.from({ length: parts }, (_, part) => ({ from: part * each, to: part === parts - 1 ? Infinity : (part + 1) * each }));
}

/** What is to be checked: what a change of these columns in these records touches; null: everything. */
interface CheckWish {
  only: { ordinals: number[]; columns: string[] } | null;
}
const both = (waiting: CheckWish, wanted: CheckWish): CheckWish => ({
  only:
    waiting.only && wanted.only
      ? {
          ordinals: [...new Set([...waiting.only.ordinals, ...wanted.only.ordinals])],
          columns: [...new Set([...waiting.only.columns, ...wanted.only.columns])],
        }
      : null,
});

/** What the checks say of the records of mailings. They run by themselves whenever a mailing changes. */
@Injectable()
export class MailingChecks implements OnApplicationBootstrap {
  private readonly logger = new Logger('checks');
  /** What was asked for last and is not there yet, by mailing. */
  private readonly wanted = new Map<number, { key: string; added: Promise<void> }>();

  constructor(
    private readonly mailings: MailingsService,
    private readonly transactions: Transactions,
    private readonly sources: SourcesService,
    private readonly readings: SourceReadings,
    private readonly batches: FrozenBatches,
    private readonly pool: Pool,
    private readonly live: LiveService,
    private readonly jobs: Jobs,
  ) {
    jobs.register<CheckWish>('check', {
      title: 'Checking records',
      atOnce: 2,
      retry: [1000, 10_000],
      run: ({ key, payload }) => this.runChecks(Number(key), payload).finally(() => this.wanted.delete(Number(key))),
    });
  }

  onApplicationBootstrap(): void {
    this.live.events.subscribe(({ topic, id }) => {
      if (topic === 'mailing')
        this.mailings
          .entity(id)
          .then((saved) => this.check(saved))
          .catch((error: unknown) => this.logger.error(error));
    });
  }

  /** What the findings depend on. The text of the message is no part of it. */
  private checkKey({ frozen, sourceId, readAt }: Subject): string {
    const { plan, templates } = frozen;
    const relevant = [
      sourceId,
      readAt,
      frozen.columns.map(({ name, kind, reading }) => [name, kind, reading]),
      plan.checks,
      plan.keyColumn,
      plan.message.mailed,
      plan.message.addressColumn,
      plan.message.several ?? false,
      plan.output.folder,
      plan.output.file,
      plan.output.openPassword,
      plan.output.permissionsPassword,
      [...plan.leftOut].sort((a, b) => a - b),
      plan.output.pictures?.map(({ template, field, column }) => [template, field, column]),
      frozen.pictures,
      templates.map(({ hash, map, when, count }) => [hash, map, when, count]),
    ];
    return createHash('sha256').update(JSON.stringify(relevant)).digest('hex');
  }

  private wish(id: number, name: string, only: CheckWish['only']): WantedJob<CheckWish> {
    return { kind: 'check', key: id, subject: name, priority: 5, payload: { only }, merge: both };
  }

  /** Runs checks of a mailing: those that a change touches when the findings held before it, else all. */
  private async runChecks(id: number, { only }: CheckWish): Promise<void> {
    const mailing = await this.mailings.entity(id).catch(() => null);
    const subject = mailing && (await this.mailings.frozen(mailing));
    if (!mailing || !subject) return;
    const key = this.checkKey(subject);
    const isCurrent = mailing.checkedKey === key;
    if (only === null && isCurrent) return;
    let checkError: string | null = null;
    try {
      const what = { mailingId: id, sourceId: subject.sourceId, mailing: subject.frozen, context: await this.batches.next() };
      if (isCurrent && only !== null && only.ordinals.length <= MOST_TOUCHED) await this.pool.run('checkTouched', { ...what, only });
      else await this.checkAll(what, subject.count);
    } catch (error) {
      // The next start has them run.
      if (isMailbagError(error) && error.code === 'server-stops') throw error;
      checkError = isMailbagError(error) ? error.message : 'The checks could not be run. Try again in a moment.';
      if (!isMailbagError(error)) this.logger.error(error);
    }
    await this.transactions.run((manager) => manager.update(MailingEntity, { id }, { checkedKey: key, checkError }));
    this.live.notify('checks', id);
  }

  /** Runs all checks over all records: of many, each thread looks at a stretch. What held before holds until all is found. */
  private async checkAll(what: Tasks['checkComparing']['input'], count: number): Promise<void> {
    const { mailingId } = what;
    await this.pool.run('settleChecks', { mailingId, isBefore: true });
    const stretches = stretchesOf(count, config.threads);
    await Promise.all([
      ...stretches.map((stretch) => this.pool.run('checkStretch', { ...what, stretch: { ...stretch, compares: stretches.length === 1 } })),
      ...(stretches.length > 1 ? [this.pool.run('checkComparing', what)] : []),
    ]);
    await this.pool.run('settleChecks', { mailingId, isBefore: false });
  }

  /** Has the checks run unless their findings hold already. */
  private async check(mailing: Mailing): Promise<boolean> {
    const subject = await this.mailings.frozen(mailing);
    if (!subject) return false;
    const key = this.checkKey(subject);
    if (mailing.checkedKey === key) return true;
    // Who asks again while they run asks for nothing new.
    let wish = this.wanted.get(mailing.id);
    if (wish?.key !== key) {
      wish = { key, added: this.jobs.add(this.wish(mailing.id, mailing.name, null)) };
      this.wanted.set(mailing.id, wish);
    }
    try {
      await wish.added;
    } catch (error) {
      this.wanted.delete(mailing.id);
      throw error;
    }
    return false;
  }

  /** Checks again, in every mailing that reads the source, what a change of some values touches. */
  async recheck(sourceId: number, only: { ordinals: number[]; columns: string[] }): Promise<void> {
    const rows = await mailingStore.ofSource(this.transactions, sourceId);
    await Promise.all(
      rows.map(async ({ id }) => {
        // One in the wastebasket is checked when it is put back.
        const mailing = await this.mailings.entity(id).catch(() => null);
        if (mailing) await this.jobs.run(this.wish(id, mailing.name, only));
      }),
    );
  }

  /** The values that the checks propose for a kind of finding. */
  mends(
    id: number,
    { code, column, row }: { code: string; column?: string; row?: number },
  ): Promise<{ row: number; column: string; value: string }[]> {
    return findingStore.mends(this.transactions, id, {
      code,
      ...(column === undefined ? {} : { column }),
      ...(row === undefined ? {} : { row }),
    });
  }

  /** Accepts what checks want a person to look at, for as long as the values stay: all that is asked for, or nothing. @throws MailbagError not-found */
  async accept(id: number, { looks, reason }: AcceptRequest, who: Principal): Promise<{ accepted: number }> {
    const mailing = await this.mailings.entity(id);
    const subject = await this.mailings.frozen(mailing);
    if (!subject) throw new MailbagError('not-found', { what: t`record` });
    const wanted: { id: number; ordinal: number; column: string; finding: Finding }[] = [];
    for (const { row, code, column, field } of looks) {
      const found = (await findingStore.looksAt(this.transactions, id, row, code, column ?? ''))
        .map((one) => ({ id: one.id, ordinal: one.ordinal, column: column ?? '', finding: JSON.parse(one.body) as Finding }))
        .filter(({ finding }) => !field || finding.field === field);
      if (found.length === 0) throw new MailbagError('not-found', { what: t`finding` });
      wanted.push(...found);
    }
    const records = await this.sources.recordsAt(subject.sourceId, [...new Set(wanted.map(({ ordinal }) => ordinal))]);
    const keyOf = recordKeys(subject.frozen.columns, mailing.plan.keyColumn);
    const at = new Date().toISOString();
    await this.transactions.run(async (manager) => {
      for (const { id: findingId, ordinal, column, finding } of wanted)
        await findingStore.accept(manager, findingId, {
          mailingId: id,
          recordKey: keyOf(records.get(ordinal)!),
          code: finding.code,
          column,
          field: finding.field ?? '',
          value: finding.value,
          reason: reason.trim(),
          who,
          at,
        });
    });
    this.live.notify('checks', id);
    return { accepted: wanted.length };
  }

  /** @throws MailbagError not-found */
  async takeBackAcceptance(id: number, acceptanceId: number): Promise<void> {
    await this.mailings.entity(id);
    await this.transactions.run(async (manager) => {
      await findingStore.takeBack(manager, id, acceptanceId);
      await findingStore.dropAcceptance(manager, id, acceptanceId);
    });
    this.live.notify('checks', id);
  }

  async checks(id: number): Promise<ChecksAnswer> {
    const mailing = await this.mailings.entity(id);
    const subject = await this.mailings.frozen(mailing);
    const current = (await this.check(mailing)) && !(await this.jobs.isUnderWay('check', id));
    const groups = subject ? await findingStore.groups(this.transactions, id) : [];
    const sums = await findingStore.totals(this.transactions, id);
    const stopped = subject ? (sums?.stopped ?? 0) : 0;
    return {
      current,
      progress: current ? 0 : mailing.checkProgress,
      possible: subject !== null,
      records: subject?.count ?? 0,
      stopped,
      looked: subject ? (sums?.flagged ?? 0) - stopped : 0,
      leftOut: mailing.plan.leftOut.length,
      accepted: subject ? (sums?.accepted ?? 0) : 0,
      groups,
      error: current ? mailing.checkError : null,
    };
  }

  /**
   * The mailing as it is now, with its checks run to the end.
   * @param isFresh whether a database is read again first
   * @throws MailbagError mailing-no-template, mailing-no-records, database-*
   */
  async readyToRun(id: number, isFresh: boolean): Promise<{ name: string; frozen: FrozenMailing; sourceId: number; version: number }> {
    const { plan } = await this.mailings.entity(id);
    if (isFresh && plan.sourceId && plan.packet.length > 0) await this.readings.refresh(plan.sourceId);
    for (;;) {
      const mailing = await this.mailings.entity(id);
      if (mailing.plan.packet.length === 0) throw new MailbagError('mailing-no-template', { mailing: mailing.name });
      const subject = await this.mailings.frozen(mailing);
      if (!subject) throw new MailbagError('mailing-no-records', { mailing: mailing.name });
      if ((await this.check(mailing)) && !(await this.jobs.isUnderWay('check', id))) {
        if (mailing.checkError) throw new MailbagError('request-wrong', { why: mailing.checkError });
        return { name: mailing.name, version: mailing.version, ...subject };
      }
      await this.jobs.settled('check', id);
    }
  }
}
