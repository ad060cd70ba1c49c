import { createHash, randomBytes, randomUUID } from 'node:crypto';
import type { AskedBackAnswer, PublicSavedVisitAnswer, SubmissionCopy, SubmissionsAnswer } from '@mailbag/contract';
import type { AnswerChange, IntakeAnswers } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, answerRecord, isPictureKind, receivedText, submissionKey } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { BatchStarts } from '../batches/batch-starts.service.js';
import { BatchesService } from '../batches/batches.service.js';
import { fileKey } from '../files/file-key.js';
import { remove } from '../files/files.js';
import { keepPictureList, readPictureList } from '../files/picture-list.js';
import { Jobs } from '../jobs/jobs.service.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { MAILBAG } from '../platform/principal.js';
import { SettingsService } from '../settings/settings.service.js';
import { SourceReadings } from '../sources/source-readings.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { intakeStore } from '../stores/intake.store.js';
import { batchStore } from '../stores/batch.store.js';
import { copyStore } from '../stores/copy.store.js';
import { savedVisitStore } from '../stores/saved-visit.store.js';
import type { SubmissionFilter, SubmissionRow } from '../stores/submission.store.js';
import { submissionStore } from '../stores/submission.store.js';
import { keyOfMend } from './asked-back.js';
import { Editions } from './editions.service.js';
import { IntakesService } from './intakes.service.js';
import { PersonalLinks } from './personal-links.service.js';

const sha256Of = (text: string): string => createHash('sha256').update(text).digest('hex');
/** Days for which an answer can be mended where the page says nothing. */
const DAYS = 14;
/** Milliseconds after each try in vain to bring answers in; the last one again and again. */
const AGAIN = [1000, 5000, 30_000, 300_000];

type CopiesOfRecord = Awaited<ReturnType<typeof copyStore.ofRecord>>;

/** What people answered: it becomes records of the intake's source, and copies where they are wanted at once. Many that come together are brought in together. */
@Injectable()
export class Submissions {
  constructor(
    private readonly transactions: Transactions,
    private readonly intakes: IntakesService,
    private readonly editions: Editions,
    private readonly sources: SourcesService,
    private readonly readings: SourceReadings,
    private readonly starts: BatchStarts,
    private readonly batches: BatchesService,
    private readonly jobs: Jobs,
    private readonly live: LiveService,
    private readonly personal: PersonalLinks,
    private readonly settings: SettingsService,
  ) {
    jobs.register('answers', {
      title: 'Bringing answers in',
      atOnce: 1,
      retry: AGAIN,
      forEver: true,
      run: ({ key }) => this.bringIn(Number(key)),
    });
  }

  /** Answers are there that are no records yet. */
  async arrived(intakeId: number, name: string): Promise<void> {
    await this.jobs.add({ kind: 'answers', key: intakeId, subject: name, priority: 5 });
    this.live.notify('intake', intakeId);
  }

  private async bringIn(id: number): Promise<void> {
    const intake = await intakeStore.byId(this.transactions, id);
    // What came just before it was deleted waits in the wastebasket with it.
    if (!intake || intake.deletedAt !== null) return;
    const { sourceId, mailingId, plan } = intake;
    const came = await submissionStore.pictures(this.transactions, id);
    const known = await readPictureList(await this.sources.pictureList(sourceId));
    const list = new Map([...known, ...Object.entries(came)]);
    if (list.size > known.size) await this.sources.setPictures(sourceId, { list: await keepPictureList(list), count: list.size });
    await this.readings.refresh(sourceId);
    this.live.notify('intake', id);
    if (plan.personal?.accept === 'mailbag') await this.personal.takeOverAll(id);
    if (plan.after.atOnce) await this.makeCopies(mailingId);
    await this.jobs.add({ kind: 'notices', key: id, subject: plan.name });
    this.live.notify('intake', id);
  }

  /** Copies of all answers that have none. */
  private async makeCopies(mailingId: number): Promise<void> {
    const { records, digest, version } = await this.starts.preview(mailingId, { who: 'new' }, false);
    if (records === 0) return;
    await this.batches.start(mailingId, { who: 'new', digest, version, startKey: randomUUID() }, MAILBAG);
  }

  /** The copies of an answer that are made, and whether others still are. */
  async made({ intakeId, number }: Pick<SubmissionRow, 'intakeId' | 'number'>): Promise<{ copies: CopiesOfRecord; isMaking: boolean }> {
    const intake = await intakeStore.byId(this.transactions, intakeId);
    if (!intake) return { copies: [], isMaking: false };
    // In the order in which an answer goes: what moves on between two of them is seen further on.
    const isOnItsWay =
      (await this.jobs.isUnderWay('answers', intakeId)) || (await batchStore.isPlanning(this.transactions, intake.mailingId));
    const all = await copyStore.ofRecord(this.transactions, intake.mailingId, submissionKey(number));
    const copies = all.filter(({ sha256, state }) => sha256 !== null && state !== 'planned' && state !== 'withdrawn');
    // Answers of others that come in meanwhile do not matter to one whose copies are there.
    return { copies, isMaking: all.length > 0 ? all.some(({ state }) => state === 'planned') : isOnItsWay };
  }

  /** Deletes answers whose time is over, with their records and pictures; copies that were made of them stay. @param before ISO 8601 @returns how many */
  async forget(before: string): Promise<number> {
    return this.cleanUp(await this.transactions.run((sql) => submissionStore.dropBefore(sql, before)));
  }

  /** Deletes one answer for good; copies that were made of it stay. @throws MailbagError not-found */
  async remove(intakeId: number, id: number): Promise<void> {
    const gone = await this.transactions.run((sql) => submissionStore.drop(sql, intakeId, id));
    if (gone.length === 0) throw new MailbagError('not-found', { what: t`answer` });
    await this.cleanUp(gone);
  }

  /** The copies that were made of an answer. @throws MailbagError not-found */
  async copies(intakeId: number, id: number): Promise<SubmissionCopy[]> {
    const { mailingId } = await this.intakes.entity(intakeId);
    const copies = await copyStore.ofRecord(this.transactions, mailingId, submissionKey((await this.row(intakeId, id)).number));
    return copies.flatMap(({ id: copy, templateName: template, pages, sha256 }) =>
      sha256 === null ? [] : [{ id: copy, template, pages }],
    );
  }

  /** Lets the visitor mend an answer: a link at which it stands as it was given, without its pictures. @param site where Mailbag is reached @throws MailbagError not-found */
  async askBack(intakeId: number, id: number, site: string): Promise<AskedBackAnswer> {
    const { number, editionId, answers: text } = await this.row(intakeId, id);
    const { plan } = await this.editions.byId(editionId);
    const answers = Object.fromEntries(
      Object.entries(JSON.parse(text) as IntakeAnswers).filter(([question]) => !isPictureKind(plan.questions[question]?.kind ?? 'text')),
    );
    const [token, days] = [randomBytes(32).toString('base64url'), plan.opening.retentionDays || DAYS];
    const content = JSON.stringify({ edition: editionId, answers, step: 1, key: keyOfMend(id) } satisfies PublicSavedVisitAnswer);
    const until = new Date(Date.now() + days * 86_400_000).toISOString();
    await this.transactions.run((sql) => savedVisitStore.keep(sql, sha256Of(token), intakeId, content, until));
    const [word] = await intakeStore.words(this.transactions, intakeId);
    return { number, link: `${site}/in/${word}#${token}`, days };
  }

  private async row(intakeId: number, id: number): Promise<SubmissionRow> {
    const row = await submissionStore.byId(this.transactions, intakeId, id);
    if (!row) throw new MailbagError('not-found', { what: t`answer` });
    return row;
  }

  /** What hangs on answers that are gone. @returns how many they are */
  private async cleanUp(gone: readonly { intakeId: number; pictures: string }[]): Promise<number> {
    for (const id of new Set(gone.map(({ intakeId }) => intakeId))) {
      const intake = await intakeStore.byId(this.transactions, id);
      if (!intake) continue;
      const left = new Map(Object.entries(await submissionStore.pictures(this.transactions, id)));
      await this.sources.setPictures(intake.sourceId, left.size > 0 ? { list: await keepPictureList(left), count: left.size } : null);
      await this.removePictures(gone.filter(({ intakeId }) => intakeId === id));
      await this.readings.refresh(intake.sourceId);
      this.live.notify('intake', id);
    }
    return gone.length;
  }

  /** Deletes the files of pictures that no answer has any more. */
  private async removePictures(gone: readonly { pictures: string }[]): Promise<void> {
    const digests = new Set(gone.flatMap(({ pictures }) => Object.values(JSON.parse(pictures) as Record<string, string>)));
    if (digests.size === 0) return;
    // The same picture may have been sent to another intake.
    const used = await submissionStore.allDigests(this.transactions);
    for (const digest of digests) if (!used.has(digest)) await remove(fileKey('attachments', digest));
  }

  /** An intake goes with its answers. @throws MailbagError not-found, in-wastebasket */
  async assertMayGo(intakeId: number): Promise<void> {
    await this.intakes.entity(intakeId);
  }

  /** What came just before the intake was deleted is brought in. */
  async cameBack(intakeId: number): Promise<void> {
    const intake = await intakeStore.byId(this.transactions, intakeId);
    if (intake) await this.arrived(intakeId, intake.plan.name);
  }

  /** Deletes for good an intake with its answers and their pictures, its mailing and its source; copies that were made stay in the ledger. */
  async erase(intakeId: number): Promise<void> {
    const gone = await this.transactions.run((sql) => submissionStore.dropAll(sql, intakeId));
    await this.intakes.erase(intakeId);
    await this.removePictures(gone);
  }

  /** The newest first. @throws MailbagError not-found */
  async page(id: number, filter: SubmissionFilter, from: number, count: number): Promise<SubmissionsAnswer> {
    const { mailingId } = await this.intakes.entity(id);
    const rows = await submissionStore.page(this.transactions, id, mailingId, filter, from, count);
    const lines = await Promise.all(
      rows.map(
        async ({ id: own, number, receivedAt, language, answers, editionId, copies, copyCode, changes, settled, mendedBy, notice }) => {
          const { plan } = await this.editions.byId(editionId);
          const day = receivedText(receivedAt, this.settings.zone).slice(0, 10);
          const values = answerRecord(plan, JSON.parse(answers) as IntakeAnswers, day);
          return {
            id: own,
            number,
            receivedAt,
            language,
            values,
            copies,
            copyCode,
            changes: JSON.parse(changes) as AnswerChange[],
            settled,
            mendedBy,
            notice,
          };
        },
      ),
    );
    return { total: await submissionStore.count(this.transactions, id), lines };
  }
}
