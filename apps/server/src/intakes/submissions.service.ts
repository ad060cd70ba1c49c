import { randomUUID } from 'node:crypto';
import type { SubmissionsAnswer } from '@mailbag/contract';
import type { AnswerChange, IntakeAnswers } from '@mailbag/core';
import { answerRecord } from '@mailbag/core';
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
import { SourceReadings } from '../sources/source-readings.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { intakeStore } from '../stores/intake.store.js';
import { submissionStore } from '../stores/submission.store.js';
import { Editions } from './editions.service.js';
import { IntakesService } from './intakes.service.js';
import { PersonalLinks } from './personal-links.service.js';

/** Milliseconds after each try in vain to bring answers in; the last one again and again. */
const AGAIN = [1000, 5000, 30_000, 300_000];

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
    this.live.tell('intake', intakeId);
  }

  private async bringIn(id: number): Promise<void> {
    const intake = await intakeStore.byId(this.transactions, id);
    if (!intake) return;
    const { sourceId, mailingId, plan } = intake;
    const came = await submissionStore.pictures(this.transactions, id);
    const known = await readPictureList(await this.sources.pictureList(sourceId));
    const list = new Map([...known, ...Object.entries(came)]);
    if (list.size > known.size) await this.sources.setPictures(sourceId, { list: await keepPictureList(list), count: list.size });
    await this.readings.refresh(sourceId);
    this.live.tell('intake', id);
    if (plan.personal?.accept === 'mailbag') await this.personal.takeOverAll(id);
    if (plan.after.atOnce) await this.makeCopies(mailingId);
    this.live.tell('intake', id);
  }

  /** Copies of all answers that have none. */
  private async makeCopies(mailingId: number): Promise<void> {
    const { records, digest, version } = await this.starts.preview(mailingId, { who: 'new' }, false);
    if (records === 0) return;
    await this.batches.start(mailingId, { who: 'new', digest, version, startKey: randomUUID() }, MAILBAG);
  }

  /** Deletes answers whose time is over, with their records and pictures; copies that were made of them stay. @param before ISO 8601 @returns how many */
  async forget(before: string): Promise<number> {
    const gone = await this.transactions.run((sql) => submissionStore.dropBefore(sql, before));
    for (const id of new Set(gone.map(({ intakeId }) => intakeId))) {
      const intake = await intakeStore.byId(this.transactions, id);
      if (!intake) continue;
      const left = new Map(Object.entries(await submissionStore.pictures(this.transactions, id)));
      const kept = new Set(left.values());
      await this.sources.setPictures(intake.sourceId, left.size > 0 ? { list: await keepPictureList(left), count: left.size } : null);
      for (const { pictures } of gone.filter(({ intakeId }) => intakeId === id))
        for (const digest of Object.values(JSON.parse(pictures) as Record<string, string>))
          if (!kept.has(digest)) await remove(fileKey('attachments', digest));
      await this.readings.refresh(intake.sourceId);
      this.live.tell('intake', id);
    }
    return gone.length;
  }

  /** The newest first. @throws MailbagError not-found */
  async page(id: number, from: number, count: number): Promise<SubmissionsAnswer> {
    const { mailingId } = await this.intakes.entity(id);
    const rows = await submissionStore.page(this.transactions, id, mailingId, from, count);
    const lines = await Promise.all(
      rows.map(async ({ id: own, number, receivedAt, language, answers, editionId, copies, copyCode, changes, settled }) => {
        const { plan } = await this.editions.byId(editionId);
        const values = answerRecord(plan, JSON.parse(answers) as IntakeAnswers, receivedAt.slice(0, 10));
        return { id: own, number, receivedAt, language, values, copies, copyCode, changes: JSON.parse(changes) as AnswerChange[], settled };
      }),
    );
    return { total: await submissionStore.count(this.transactions, id), lines };
  }
}
