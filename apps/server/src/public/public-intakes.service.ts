import { createHash, randomBytes } from 'node:crypto';
import type {
  OfficeRequest,
  PublicAnswersRequest,
  PublicBox,
  PublicClosed,
  PublicFault,
  PublicIntake,
  PublicReceipt,
  PublicSubmitAnswer,
  PublicSubmitRequest,
} from '@mailbag/contract';
import type { AnswerFault, IntakeAnswers, IntakePlan, PageLanguage } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import {
  MailbagError,
  SAMPLE_CODE,
  answerFault,
  answerFaults,
  copyCode,
  isMailbagError,
  orderedQuestions,
  planIn,
  shownSections,
  shownTranslations,
} from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import type { Readable } from 'node:stream';
import { archivedBytes } from '../archive/archived-bytes.js';
import { fileKey } from '../files/file-key.js';
import type { ZipPart } from '../files/zip-of-files.js';
import { zipOfFiles } from '../files/zip-of-files.js';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { pictureBytes, readAnswers, sampleOf, withPictures } from '../intakes/given-answers.js';
import { mendedBy } from '../intakes/asked-back.js';
import type { Edition } from '../intakes/editions.service.js';
import { Editions } from '../intakes/editions.service.js';
import { PersonalLinks } from '../intakes/personal-links.service.js';
import { Submissions } from '../intakes/submissions.service.js';
import { Transactions } from '../persistence/transactions.js';
import { OFFICE, SettingsService } from '../settings/settings.service.js';
import { submissionStore } from '../stores/submission.store.js';
import { Pool } from '../work/pool.js';
import { answerBoxes } from './answer-boxes.js';
import { SavedVisits } from './saved-visits.service.js';
import { keepAnswerPicture } from './answer-pictures.js';

const sha256 = (text: string): string => createHash('sha256').update(text).digest('hex');

/** Intakes as strangers reach them. Every answer is held against the page here again, whatever the visitor's device has said of it. */
@Injectable()
export class PublicIntakes {
  constructor(
    private readonly editions: Editions,
    private readonly submissions: Submissions,
    private readonly settings: SettingsService,
    private readonly batches: FrozenBatches,
    private readonly pool: Pool,
    private readonly transactions: Transactions,
    private readonly visits: SavedVisits,
    private readonly links: PersonalLinks,
  ) {}

  /**
   * @param site where the page is reached; null: that is not known for sure
   * @param begun the version in which somebody began, and finishes; null: what is published now
   * @throws MailbagError not-found
   */
  async page(word: string, site: string | null, begun: number | null): Promise<PublicIntake> {
    const edition = begun === null ? await this.editions.ofWord(word) : await this.editions.begun(word, begun);
    return {
      edition: edition.id,
      office: ((await this.settings.get<OfficeRequest>(OFFICE))?.returnLine ?? '').split(/[,·]/)[0]!.trim(),
      plan: publicPlan(edition.plan),
      forms: edition.frozen.templates.map(({ name }) => name),
      retentionDays: await this.visits.days(edition.plan.opening.retentionDays, site),
      closed: await this.closed(edition),
    };
  }

  /** Why a page takes no answers; null: it does. */
  private async closed({ plan, intakeId }: Edition): Promise<PublicClosed | null> {
    const { from, until, maximum: limit } = plan.opening;
    const now = Date.now();
    if (from !== null && Date.parse(from) > now) return { why: 'not-yet', at: from };
    if (until !== null && Date.parse(until) <= now) return { why: 'over', at: until };
    if (limit !== null && (await submissionStore.count(this.transactions, intakeId)) >= limit) return { why: 'full', at: '' };
    return null;
  }

  /** Where the answers stand on the forms. @throws MailbagError not-found */
  async boxes(word: string, edition: number): Promise<PublicBox[]> {
    return answerBoxes(await this.editions.begun(word, edition));
  }

  private async country(): Promise<string> {
    return (await this.settings.get<OfficeRequest>(OFFICE))?.country ?? '';
  }

  /** What is wrong with answers that were given so far, those that are missing left aside. @throws MailbagError not-found */
  async faults(word: string, { edition, answers }: PublicAnswersRequest): Promise<PublicFault[]> {
    const { plan } = await this.editions.begun(word, edition);
    const country = await this.country();
    return Object.entries(readAnswers(plan, answers)).flatMap(([id, answer]) => {
      const fault = answerFault(plan.questions[id]!, answer, country);
      return fault && fault.code !== 'missing' ? [fault] : [];
    });
  }

  /** The copies as they would be made of answers so far. @throws MailbagError not-found, work-too-* */
  async preview(
    word: string,
    { edition, answers, personal }: PublicAnswersRequest,
  ): Promise<{ name: string; form: number; bytes: Uint8Array }[]> {
    const { plan, frozen } = await this.editions.begun(word, edition);
    const visit = personal ? await this.links.given(word, personal.token, personal.check ?? null) : null;
    const known = visit ? this.links.beside(plan, visit) : {};
    const { copies } = await this.pool.run('visitorCopies', {
      mailing: { ...frozen, plan: { ...frozen.plan, output: { ...frozen.plan.output, openPassword: '', permissionsPassword: '' } } },
      ...sampleOf(plan, frozen.columns, answers, this.settings.zone, known),
      ordinal: 0,
      batch: await this.batches.next(),
      codes: frozen.templates.map(() => SAMPLE_CODE),
    });
    return copies;
  }

  /**
   * Takes a submission in: once for each key, and only when it is on disk is it acknowledged.
   * @throws MailbagError not-found, intake-closed
   */
  async submit(word: string, { edition: id, answers, key, language, website, personal }: PublicSubmitRequest): Promise<PublicSubmitAnswer> {
    const edition = await this.editions.begun(word, id);
    const keyHash = sha256(key);
    const before = await submissionStore.byKey(this.transactions, keyHash);
    if (before) return { faults: [], number: before.number, receipt: key };
    const mends = await this.mended(edition.intakeId, key);
    // What the office asked back it takes, whatever the hour.
    const closed = mends === null ? await this.closed(edition) : null;
    if (closed !== null) throw new MailbagError('intake-closed', { why: closedWords(closed, edition.plan.opening) });
    // People do not see that field.
    if (website) throw new MailbagError('request-wrong', { why: t`it was not filled in by a person` });
    const { plan } = edition;
    const visit = personal ? await this.links.given(word, personal.token, personal.check ?? null) : null;
    const given = readAnswers(plan, answers);
    const faults = answerFaults(plan, given, this.settings.today(), await this.country());
    if (faults.length > 0) return { faults, number: null, receipt: null };
    const number = copyCode(new Uint8Array(randomBytes(10)));
    const pictures: Record<string, string> = {};
    const waiting: Promise<void>[] = [];
    const unreadable: AnswerFault[] = [];
    const named = withPictures(plan, given, (question, url) => {
      const name = `${number.toLowerCase()}-${question.id}.png`;
      const keep = keepAnswerPicture(pictureBytes(url)).then(
        (digest) => void (pictures[name] = digest),
        (error: unknown) => {
          if (!isMailbagError(error)) throw error;
          unreadable.push({ question: question.id, code: 'not-a-picture', detail: '' });
        },
      );
      waiting.push(keep);
      return name;
    });
    await Promise.all(waiting);
    if (unreadable.length > 0) return { faults: unreadable, number: null, receipt: null };
    const changes = visit ? this.links.changes(plan, visit, given, this.settings.today()) : [];
    const mail = addressOf(plan, given, this.settings.today());
    const stored = await this.transactions.run(async (sql) => {
      // The same sent twice at the same time is one, and has not answered before itself.
      const same = await submissionStore.byKey(sql, keyHash);
      if (same) return { row: same, isNew: false };
      if (plan.opening.oncePerAddress && mends === null && mail && (await submissionStore.isAnswered(sql, edition.intakeId, mail.address)))
        return { question: mail.question };
      const added = await submissionStore.keep(sql, keyHash, {
        intakeId: edition.intakeId,
        editionId: edition.id,
        number,
        language,
        receivedAt: new Date().toISOString(),
        answers: JSON.stringify(named),
        pictures: JSON.stringify(pictures),
        copyCode: visit?.copy.code ?? null,
        changes: JSON.stringify(changes),
        known: JSON.stringify(visit ? this.links.beside(plan, visit) : {}),
        settled: changes.length > 0 ? 'open' : 'none',
        mends,
        address: mail?.address ?? '',
        notice: plan.after.notice ? 'waiting' : 'none',
      });
      if (visit && added.isNew) await this.links.returned(sql, visit, number, changes.length > 0);
      return added;
    });
    if ('question' in stored)
      return { faults: [{ question: stored.question, code: 'answered-already', detail: '' }], number: null, receipt: null };
    const { row, isNew } = stored;
    if (isNew) await this.submissions.arrived(edition.intakeId, plan.name);
    return { faults: [], number: row.number, receipt: key };
  }

  /** The answer in whose place one comes that the office asked back; null: it comes in nobody's. */
  private async mended(intakeId: number, key: string): Promise<number | null> {
    const id = mendedBy(key);
    return id !== null && (await submissionStore.byId(this.transactions, intakeId, id)) ? id : null;
  }

  /** What became of a submission. @param key that it was sent with @throws MailbagError not-found */
  async receipt(key: string): Promise<PublicReceipt & { files: { id: number; code: string; path: string; sha256: string | null }[] }> {
    const submission = await submissionStore.byKey(this.transactions, sha256(key));
    if (!submission) throw new MailbagError('not-found', { what: t`submission` });
    const { copies, isMaking } = await this.submissions.made(submission);
    return {
      number: submission.number,
      copies: copies.map(({ path }) => path.slice(path.lastIndexOf('/') + 1)),
      isMaking,
      canMail: (await this.visits.days(1, '')) > 0,
      files: copies.map(({ id, code, path, sha256: digest }) => ({ id, code, path, sha256: digest })),
    };
  }

  /** What the page says above that a submission was sent from. @throws MailbagError not-found */
  async titleOf(key: string): Promise<string> {
    const submission = await submissionStore.byKey(this.transactions, sha256(key));
    if (!submission) throw new MailbagError('not-found', { what: t`submission` });
    const { plan } = await this.editions.byId(submission.editionId);
    return planIn(plan, submission.language.slice(0, 2) as PageLanguage).title.trim() || plan.name;
  }

  /** One copy of a submission. @throws MailbagError not-found, batch-file-gone, copy-changed */
  async copy(key: string, index: number): Promise<{ name: string; bytes: Buffer }> {
    const { copies, files } = await this.receipt(key);
    const file = files[index];
    if (!file) throw new MailbagError('not-found', { what: t`copy` });
    return { name: copies[index]!, bytes: await archivedBytes(file) };
  }

  /** All copies of a submission in one file. @throws MailbagError not-found */
  async zip(key: string): Promise<{ number: string; stream: Readable }> {
    const { number, copies, files } = await this.receipt(key);
    async function* parts(): AsyncGenerator<ZipPart> {
      for (const [index, { path }] of files.entries()) {
        const name = copies[index]!;
        yield { name: copies.indexOf(name) === index ? name : `${index + 1} ${name}`, key: fileKey('archive', path) };
      }
    }
    return { number, stream: zipOfFiles(parts()) };
  }
}

/** Why a page takes no answers, for programs; the page says it in the visitor's language. */
function closedWords({ why, at }: PublicClosed, { maximum, contact }: IntakePlan['opening']): string {
  const day = at.slice(0, 10);
  const reason = { 'not-yet': `it opens on ${day}`, over: `it closed on ${day}`, full: `all ${maximum} places are taken` }[why];
  return contact.trim() === '' ? reason : `${reason}; ask ${contact.trim()}`;
}

/** The e-mail address in answers, in small letters, and its question; null: none is asked for after these answers, or none was given. */
function addressOf(plan: IntakePlan, answers: IntakeAnswers, today: string): { question: string; address: string } | null {
  const question = shownSections(plan, answers, today)
    .flatMap(({ questions }) => questions)
    .find(({ kind }) => kind === 'e-mail');
  const answer = question && answers[question.id];
  return question && typeof answer === 'string' && answer.trim() !== ''
    ? { question: question.id, address: answer.trim().toLowerCase() }
    : null;
}

/** The plan as a page is told it: what was put away, and what only the office needs, stays here. */
const publicPlan = (plan: IntakePlan): IntakePlan => {
  // What is filled from answers can be asked about by conditions.
  const told = orderedQuestions(plan).filter(({ isAway, filled }) => !isAway || filled);
  const isTold = new Set(told.map(({ id }) => id));
  return {
    ...plan,
    sections: plan.sections.map((section) => ({ ...section, questions: section.questions.filter((id) => isTold.has(id)) })),
    questions: Object.fromEntries(told.map((one) => [one.id, { ...one, doubt: '', sure: null }])),
    opening: {
      from: null,
      until: null,
      maximum: null,
      contact: plan.opening.contact,
      sites: [],
      retentionDays: 0,
      ...(plan.opening.zone && { zone: plan.opening.zone }),
    },
    personal: null,
    translations: shownTranslations(plan),
  };
};
