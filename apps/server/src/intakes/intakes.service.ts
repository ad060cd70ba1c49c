import type {
  IntakeChangesAnswer,
  IntakeCreateRequest,
  IntakeDetail,
  IntakePlace,
  IntakeSummary,
  MailingDetail,
  MailingPlan,
} from '@mailbag/contract';
import { IntakePlanBody, IntakeQuestionPlan } from '@mailbag/contract';
import type { Change, IntakePlan, Json, MadeIntake, PersonalPlan } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import {
  MailbagError,
  NUMBER_COLUMN,
  alignWithMailing,
  askedSections,
  dependencyLoop,
  isChange,
  makeIntake,
  orderedQuestions,
  readsColumns,
  same,
  withChanges,
} from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { LiveService } from '../live/live.service.js';
import { MailingsService } from '../mailings/mailings.service.js';
import { Transactions } from '../persistence/transactions.js';
import type { Principal } from '../platform/principal.js';
import { validated } from '../platform/validation.js';
import { SendersService } from '../senders/senders.service.js';
import { SourceReadings } from '../sources/source-readings.service.js';
import { SourcesService } from '../sources/sources.service.js';
import type { IntakeListRow, IntakeRow } from '../stores/intake.store.js';
import { intakeStore } from '../stores/intake.store.js';
import { TemplatesService } from '../templates/templates.service.js';
import { freeWord, wordFault } from './intake-words.js';

/** How often a change is tried when others change the same intake. */
const MOST_TRIES = 20;

/** What the visitor's message says until somebody has written another one. */
const firstMessage = (
  name: string,
  addressColumn: string | null,
): Pick<MailingPlan['message'], 'addressColumn' | 'subject' | 'body' | 'recipient'> => ({
  addressColumn,
  recipient: '',
  subject: `Your copy: ${name}`,
  body: `Thank you for filling in “${name}”. Your completed copy is attached. Its number is {{ submission }}.`,
});

/** The fields that take the answer in each column, by what maps them. */
function placesOf({ maps, output }: MailingPlan): Record<string, IntakePlace[]> {
  const places: Record<string, IntakePlace[]> = {};
  const add = (column: string, place: IntakePlace): void => void (places[column] = [...(places[column] ?? []), place]);
  for (const [template, map] of Object.entries(maps))
    for (const [field, rule] of Object.entries(map))
      for (const column of readsColumns(rule)) add(column, { template: Number(template), field });
  for (const { template, field, column } of output.pictures ?? []) if (column !== undefined) add(column, { template, field });
  return places;
}

/** Intakes as those who make them know them: each has a mailing and a source of its own. */
@Injectable()
export class IntakesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly templates: TemplatesService,
    private readonly mailings: MailingsService,
    private readonly sources: SourcesService,
    private readonly readings: SourceReadings,
    private readonly senders: SendersService,
    private readonly live: LiveService,
  ) {}

  private toSummary({ plan: text, publishedVersion, publishedAt, mailingChangedAt, ...row }: IntakeListRow): IntakeSummary {
    const plan = JSON.parse(text) as IntakePlan;
    const asked = askedSections(plan).flatMap(({ questions }) => questions);
    return {
      id: row.id,
      name: plan.name,
      word: row.word,
      isPublished: publishedVersion !== null,
      isAhead:
        publishedVersion !== null &&
        (publishedVersion !== row.version || (mailingChangedAt !== null && mailingChangedAt > (publishedAt ?? ''))),
      questions: asked.length,
      doubts: asked.filter(({ doubt }) => doubt !== '').length,
      answers: row.answers,
      lastAnswerAt: row.lastAnswerAt,
      mailingId: row.mailingId,
      sourceId: row.sourceId,
      updatedAt: row.updatedAt,
    };
  }

  async list(): Promise<IntakeSummary[]> {
    return (await intakeStore.list(this.transactions)).map((row) => this.toSummary(row));
  }

  /** As it is kept. @throws MailbagError not-found */
  async entity(id: number): Promise<IntakeRow> {
    const intake = await intakeStore.byId(this.transactions, id);
    if (!intake) throw new MailbagError('not-found', { what: t`intake` });
    if (intake.deletedAt !== null) throw new MailbagError('in-wastebasket', { name: intake.plan.name });
    return intake;
  }

  /** @throws MailbagError not-found */
  async detail(id: number): Promise<IntakeDetail> {
    const { plan, version, mailingId } = await this.entity(id);
    const [row] = await intakeStore.list(this.transactions, id);
    const mailing = await this.mailings.detail(mailingId);
    const [, ...earlierWords] = await intakeStore.words(this.transactions, id);
    return { ...this.toSummary(row!), version, plan, templates: mailing.templates, places: placesOf(mailing.plan), earlierWords };
  }

  /**
   * Makes an intake of templates: its questions, the source that their answers go to, and a mailing that makes copies of them.
   * @throws MailbagError not-found, intake-no-fields
   */
  async create({ name, templates: wanted, before }: IntakeCreateRequest): Promise<IntakeDetail> {
    const mailing = before && (await this.mailings.detail(before.mailingId));
    const ids = mailing?.plan.packet ?? wanted;
    if (ids.length === 0) throw new MailbagError('intake-no-templates');
    const templates = await Promise.all(ids.map((id) => this.templates.detail(id)));
    const empty = templates.find(({ fieldList }) => fieldList.length === 0);
    if (empty) throw new MailbagError('intake-no-fields', { template: empty.name });
    const made = this.before(
      mailing,
      before?.site ?? '',
      makeIntake(
        name.trim(),
        templates.map(({ id, name: form, fieldList, answers }) => ({ id, name: form, fields: fieldList, answers })),
      ),
    );
    const address = orderedQuestions(made.plan).find(({ kind, isAway }) => kind === 'e-mail' && !isAway)?.column ?? null;
    const sourceId = await this.sources.createFor('intake', name);
    const { id: mailingId, plan, version } = await this.mailings.create(name);
    const mailed = (await this.senders.ready(null)) !== null && (await this.senders.sendingServers()).length > 0;
    await this.mailings.save(mailingId, {
      version,
      plan: {
        ...plan,
        packet: ids,
        sourceId,
        keyColumn: NUMBER_COLUMN,
        maps: made.maps,
        ...(mailing?.plan.conditions && { conditions: mailing.plan.conditions }),
        output: { ...plan.output, ...(made.pictures.length > 0 && { pictures: made.pictures }) },
        message: { ...plan.message, mailed: mailed && address !== null, ...firstMessage(name.trim(), address) },
      },
    });
    const now = new Date().toISOString();
    const id = await this.transactions.run(async (sql) => {
      const added = await intakeStore.add(sql, mailingId, sourceId, made.plan, now);
      await intakeStore.setWord(sql, added, await freeWord(sql, name), now);
      return added;
    });
    await this.readings.want(await this.readings.source(sourceId));
    this.live.notify('intake', id);
    return this.detail(id);
  }

  /** Puts an intake before a mailing: what its records say is known to whoever comes by a personal link. */
  private before(mailing: MailingDetail | undefined, site: string, made: MadeIntake): MadeIntake {
    if (!mailing) return made;
    const { maps, message } = mailing.plan;
    const columns = mailing.source?.columns.map(({ name: own }) => own) ?? [];
    const { recordWords, ...aligned } = alignWithMailing(made, { maps, addressColumn: message.addressColumn, columns });
    const personal: PersonalPlan = { mailingId: mailing.id, site, until: null, ask: '', accept: 'person', round: 1, columns, recordWords };
    return { ...aligned, plan: { ...aligned.plan, personal } };
  }

  /**
   * Makes changes in whatever version is there: what others changed meanwhile stays, and what both changed is told with both values.
   * @throws MailbagError not-found, request-wrong, intake-changed-elsewhere; BadRequestException when the plan would not be one any more
   */
  async change(id: number, changes: readonly Change[]): Promise<IntakeChangesAnswer> {
    if (!changes.every(isChange)) throw new MailbagError('request-wrong', { why: t`it holds something that is not a change` });
    for (let tries = 1; ; tries++) {
      const { version, plan } = await this.entity(id);
      const { document, clashes } = withChanges(plan as unknown as Json, changes);
      if (same(document, plan as unknown as Json)) return { version, plan, clashes };
      const next = await this.wholePlan(document);
      const isMine = await this.transactions.run((sql) => intakeStore.save(sql, id, version, next, new Date().toISOString()));
      if (isMine) {
        this.live.notify('intake', id);
        return { version: version + 1, plan: next, clashes };
      }
      if (tries === MOST_TRIES) throw new MailbagError('intake-changed-elsewhere', { intake: plan.name });
    }
  }

  private async wholePlan(document: Json): Promise<IntakePlan> {
    const plan = await validated(document, IntakePlanBody);
    const questions = await Promise.all(
      Object.entries(plan.questions).map(async ([id, question]) => [id, { ...(await validated(question, IntakeQuestionPlan)) }] as const),
    );
    return JSON.parse(JSON.stringify({ ...plan, questions: Object.fromEntries(questions) })) as IntakePlan;
  }

  /** Gives an intake another word; the ones before go on leading to it. @throws MailbagError not-found, intake-word-wrong, intake-word-taken */
  async setWord(id: number, word: string): Promise<IntakeDetail> {
    await this.entity(id);
    await this.assertWord(id, word);
    await this.transactions.run((sql) => intakeStore.setWord(sql, id, word, new Date().toISOString()));
    this.live.notify('intake', id);
    return this.detail(id);
  }

  /** Whether an intake can have a word. @throws MailbagError intake-word-wrong, intake-word-taken */
  async assertWord(id: number, word: string): Promise<void> {
    if (wordFault(word)) throw new MailbagError('intake-word-wrong', { word });
    const owner = await intakeStore.idOfWord(this.transactions, word);
    if (owner !== undefined && owner !== id) throw new MailbagError('intake-word-taken', { word });
  }

  /**
   * Publishes an intake as it is now. Answers that are under way finish in the version they began.
   * @throws MailbagError not-found, intake-no-questions, intake-loop, intake-words-empty, intake-options-few
   */
  async publish(id: number, who: Principal): Promise<IntakeDetail> {
    const { plan, version, mailingId, sourceId } = await this.entity(id);
    this.assertWhole(plan);
    const frozen = await this.frozen({ plan, mailingId, sourceId });
    await this.transactions.run((sql) =>
      intakeStore.publish(
        sql,
        {
          intakeId: id,
          plan: JSON.stringify(plan),
          frozen: JSON.stringify(frozen),
          version,
          publishedAt: new Date().toISOString(),
        },
        who.name,
      ),
    );
    this.live.notify('intake', id);
    return this.detail(id);
  }

  /**
   * What makes copies of answers to an intake as it is now: its columns are read anew. Answers that come in meanwhile have them read again, which is waited for.
   * @throws MailbagError mailing-no-template, intake-changed-elsewhere
   */
  async frozen({ plan, mailingId, sourceId }: Pick<IntakeRow, 'plan' | 'mailingId' | 'sourceId'>): Promise<FrozenMailing> {
    for (let tries = 1; tries <= MOST_TRIES; tries++) {
      await this.readings.refresh(sourceId);
      const mailing = await this.mailings.entity(mailingId);
      if (mailing.plan.packet.length === 0) throw new MailbagError('mailing-no-template', { mailing: plan.name });
      const subject = await this.mailings.frozen(mailing);
      if (subject) return subject.frozen;
    }
    throw new MailbagError('intake-changed-elsewhere', { intake: plan.name });
  }

  private assertWhole(plan: IntakePlan): void {
    const asked = askedSections(plan).flatMap(({ questions }) => questions);
    if (asked.length === 0) throw new MailbagError('intake-no-questions', { intake: plan.name });
    const silent = asked.find(({ words }) => words.trim() === '');
    if (silent) throw new MailbagError('intake-words-empty', { column: silent.column });
    const bare = asked.find(({ kind, options }) => (kind === 'one of' || kind === 'some of') && options.length === 0);
    if (bare) throw new MailbagError('intake-options-few', { question: bare.words });
    const loop = dependencyLoop(plan);
    if (loop) throw new MailbagError('intake-loop', { questions: loop.map(({ words }) => `“${words}”`).join(' → ') });
  }

  /** Deletes for good an intake that has no answers any more, with its mailing and its source. */
  async erase(id: number): Promise<void> {
    const intake = await intakeStore.byId(this.transactions, id);
    if (!intake) return;
    await this.transactions.run((sql) => intakeStore.remove(sql, id));
    await this.mailings.erase(intake.mailingId);
    await this.sources.erase(intake.sourceId);
  }
}
