import type { MailingChangesAnswer, MailingDetail, MailingSaveAnswer, MailingSaveRequest, MailingSummary } from '@mailbag/contract';
import { MailingPlan } from '@mailbag/contract';
import type { Change, Column, Json } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, isChange, isMailbagError, patternWithColumn, planWithColumn, same, withChanges } from '@mailbag/core';
import { readRules } from './plan-rules.js';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { exampleLink, linksOf } from '../frozen/link-places.js';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { History } from '../history/history.service.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { principal } from '../platform/principal.js';
import { validated } from '../platform/validation.js';
import { SourcesService } from '../sources/sources.service.js';
import type { FillableTemplate } from '../templates/templates.service.js';
import { TemplatesService, toldTemplate } from '../templates/templates.service.js';
import { changedParts } from './changed-parts.js';
import { MailingEntity } from './mailings.entity.js';
import { sealedPlan, toldPlan, withPasswordPatterns } from '../frozen/plan-passwords.js';
import { batchStore } from '../stores/batch.store.js';
import type { EarlierPlan } from '../stores/mailing-change.store.js';
import { mailingChangeStore } from '../stores/mailing-change.store.js';
import type { PacketItem } from '../stores/mailing.store.js';
import { intakeStore } from '../stores/intake.store.js';
import { mailingStore } from '../stores/mailing.store.js';
import { correctionStore } from '../stores/correction.store.js';

/** How often changes are made anew when others are quicker. */
const MOST_TRIES = 20;

const emptyPlan = (name: string): MailingPlan => ({
  name,
  packet: [],
  sourceId: null,
  keyColumn: null,
  maps: {},
  leftOut: [],
  output: { folder: '', file: '{{ template }} {{ code }}.pdf' },
  message: { mailed: true, addressColumn: null, recipient: '', subject: '', body: '' },
});

/** A mailing with its whole plan. */
export interface Mailing extends Omit<MailingEntity, 'plan'> {
  plan: MailingPlan;
  /** The revision of each of its templates, by the template. */
  revisions: ReadonlyMap<number, number>;
}

/** What is kept of a mailing when it is changed. */
export function earlierPlan({ plan: { sourceId, packet, ...plan }, revisions }: Mailing): EarlierPlan {
  return { plan, sourceId, packet: packet.map((templateId) => ({ templateId, revisionId: revisions.get(templateId)! })) };
}

/** A mailing as a batch would run it, over the records as they were read last. */
export interface Subject {
  frozen: FrozenMailing;
  sourceId: number;
  count: number;
  readAt: string | null;
}

@Injectable()
export class MailingsService {
  constructor(
    @InjectRepository(MailingEntity) private readonly mailings: Repository<MailingEntity>,
    private readonly transactions: Transactions,
    private readonly templates: TemplatesService,
    private readonly sources: SourcesService,
    private readonly live: LiveService,
    private readonly history: History,
    private readonly frozenBatches: FrozenBatches,
  ) {}

  /** As it is kept. @throws MailbagError not-found, in-wastebasket */
  async entity(id: number): Promise<Mailing> {
    const mailing = await this.stored(id);
    if (mailing.deletedAt !== null) throw new MailbagError('in-wastebasket', { name: mailing.name });
    return mailing;
  }

  /** Also one in the wastebasket. @throws MailbagError not-found */
  private async stored(id: number): Promise<Mailing> {
    const mailing = await this.mailings.findOneBy({ id });
    if (!mailing) throw new MailbagError('not-found', { what: t`mailing` });
    const packet = await mailingStore.packet(this.transactions, id);
    const plan = { ...mailing.plan, sourceId: mailing.sourceId, packet: packet.map(({ templateId }) => templateId) };
    return { ...mailing, plan, revisions: new Map(packet.map(({ templateId, revisionId }) => [templateId, revisionId])) };
  }

  /** The templates of a packet, each in the revision that it was mapped for. */
  private packetOf({ plan, revisions }: Pick<Mailing, 'plan' | 'revisions'>): Promise<FillableTemplate[]> {
    return Promise.all(plan.packet.map((templateId) => this.templates.detail(templateId, revisions.get(templateId))));
  }

  list(): Promise<MailingSummary[]> {
    return mailingStore.list(this.transactions);
  }

  private batchesOf(id: number): Promise<{ id: number; number: number; state: string }[]> {
    return batchStore.ofMailing(this.transactions, id);
  }

  async create(name: string): Promise<MailingDetail> {
    const now = new Date().toISOString();
    const { sourceId, packet: _packet, ...plan } = emptyPlan(name.trim());
    const mailing = await this.transactions.run((manager) =>
      manager.save(MailingEntity, {
        name: name.trim(),
        plan,
        sourceId,
        version: 1,
        checkedKey: null,
        checkError: null,
        checkProgress: 0,
        createdAt: now,
        updatedAt: now,
        archivedAt: null,
      }),
    );
    return this.detail(mailing.id);
  }

  async detail(id: number): Promise<MailingDetail> {
    const mailing = await this.entity(id);
    const { plan } = mailing;
    const source = plan.sourceId ? await this.sources.detail(plan.sourceId).catch(() => null) : null;
    return {
      id,
      version: mailing.version,
      plan,
      templates: (await this.packetOf(mailing)).map(toldTemplate),
      source,
      batches: await this.batchesOf(id),
      next: {
        ...(await this.frozenBatches.next()),
        ...(source && { count: source.count }),
        ...exampleLink(await linksOf(this.transactions, id)),
      },
      updatedAt: mailing.updatedAt,
    };
  }

  /** Saves the whole plan when nobody else changed it in between. @param revisions in which templates are taken that are new; left out: in the latest @throws MailbagError mailing-changed-elsewhere, not-found */
  async save(id: number, { version, plan }: MailingSaveRequest, revisions?: Mailing['revisions']): Promise<MailingSaveAnswer> {
    const mailing = await this.entity(id);
    if (plan.name.trim() === '') throw new MailbagError('mailing-name-empty');
    readRules(plan);
    // What is in the packet stays with its revision; what is new in it is mapped for the latest.
    const packet = (await this.packetOf({ plan, revisions: revisions ?? mailing.revisions })).map((one) => ({
      templateId: one.id,
      revisionId: one.revisionId,
    }));
    if (plan.sourceId) await this.sources.detail(plan.sourceId);
    return this.keep(mailing, version, sealedPlan({ ...plan }, mailing.plan), packet);
  }

  /** Writes a plan down with its passwords encrypted, and what the mailing was before. @throws MailbagError mailing-changed-elsewhere */
  async keep(
    mailing: Mailing,
    version: number,
    plan: MailingPlan,
    packet: readonly PacketItem[],
    isOwnChange = false,
  ): Promise<MailingSaveAnswer> {
    const now = new Date();
    const [name, changes] = [plan.name.trim(), changedParts(mailing.plan, plan)];
    const isMine = await this.transactions.run(async (sql) => {
      const { sourceId, packet: _packet, ...rest } = plan;
      const isSaved = await mailingStore.save(sql, mailing.id, version, {
        name,
        plan: rest,
        sourceId,
        packet,
        updatedAt: now.toISOString(),
      });
      if (isSaved && changes.length > 0) {
        const before = earlierPlan(mailing);
        if (isOwnChange) await mailingChangeStore.add(sql, mailing.id, before, changes, principal(), now.toISOString());
        else await mailingChangeStore.note(sql, mailing.id, before, changes, principal(), now);
      }
      return isSaved;
    });
    if (!isMine) throw new MailbagError('mailing-changed-elsewhere', { mailing: mailing.name });
    if (changes.length > 0) await this.history.noteOften(t`changed a mailing`, name, changes.join(', '));
    this.live.notify('mailing', mailing.id);
    return { version: version + 1, updatedAt: now.toISOString() };
  }

  /** Puts it away, or takes it back. @throws MailbagError not-found */
  async archive(id: number, isArchived: boolean): Promise<MailingSummary> {
    await this.entity(id);
    await this.transactions.run((sql) => mailingStore.archive(sql, id, isArchived ? new Date().toISOString() : null));
    this.live.notify('mailing', id);
    return (await this.list()).find((one) => one.id === id)!;
  }

  /**
   * Makes changes in whatever version is there: what others changed meanwhile stays, and what both changed is told with both values.
   * @param seesPasswords whether the changes are said over passwords in clear
   * @throws MailbagError not-found, request-wrong, and as `save`; BadRequestException when the plan would not be one any more
   */
  async change(id: number, changes: readonly Change[], seesPasswords: boolean): Promise<MailingChangesAnswer> {
    if (!changes.every(isChange)) throw new MailbagError('request-wrong', { why: t`it holds something that is not a change` });
    for (let tries = 1; ; tries++) {
      const { plan, version, updatedAt } = await this.entity(id);
      const told = toldPlan(plan, seesPasswords);
      const { document, clashes } = withChanges(JSON.parse(JSON.stringify(told)) as Json, changes);
      if (same(document, told as unknown as Json)) return { version, updatedAt, plan: told, clashes };
      try {
        const saved = await this.save(id, { version, plan: await validated(document, MailingPlan) });
        return { ...saved, plan: toldPlan((await this.entity(id)).plan, seesPasswords), clashes };
      } catch (error) {
        // Somebody was quicker: what they did is looked at, and the changes are made in that.
        if (!isMailbagError(error) || error.code !== 'mailing-changed-elsewhere' || tries === MOST_TRIES) throw error;
      }
    }
  }

  /** Deletes it for good. @throws MailbagError mailing-has-intake */
  async erase(id: number): Promise<void> {
    await this.assertFree(id);
    await this.transactions.run(async (manager) => {
      await manager.delete(MailingEntity, { id });
      await batchStore.forgetHadCopies(manager, id);
    });
  }

  /** @throws MailbagError not-found, in-wastebasket, mailing-has-intake */
  async assertMayGo(id: number): Promise<void> {
    await this.assertFree((await this.entity(id)).id);
  }

  /** What makes copies of the answers of an intake goes with it, not by itself. */
  private async assertFree(id: number): Promise<void> {
    const intake = await intakeStore.ofMailing(this.transactions, id);
    if (intake) throw new MailbagError('mailing-has-intake', { mailing: intake.plan.name, intake: intake.plan.name });
  }

  /** The mailing as a batch would run it. Null: it has no templates or no records yet. */
  async frozen(mailing: Mailing): Promise<Subject | null> {
    const { plan } = mailing;
    const source = plan.sourceId ? await this.sources.detail(plan.sourceId).catch(() => null) : null;
    if (!source || source.state !== 'ready' || plan.packet.length === 0) return null;
    const [templates, pictures] = [await this.packetOf(mailing), await this.sources.pictureList(source.id)];
    const links = await linksOf(this.transactions, mailing.id);
    return {
      sourceId: source.id,
      count: source.count,
      readAt: source.readAt,
      frozen: {
        plan,
        columns: source.columns,
        ...links,
        ...(pictures !== null && { pictures }),
        templates: templates.map((one) => ({
          id: one.id,
          name: one.name,
          revisionId: one.revisionId,
          hash: one.hash,
          pages: one.pages,
          fields: one.fieldList,
          map: plan.maps[one.id] ?? {},
          ...(plan.conditions?.[one.id] ? { when: plan.conditions[one.id] } : {}),
          ...(plan.counts?.[one.id] ? { count: plan.counts[one.id] } : {}),
          stamps: one.stamps,
        })),
      },
    };
  }

  /** A column of a source takes another name in every mailing that reads it: rules, key, address, checks and patterns go along. */
  async renameColumn(sourceId: number, from: Pick<Column, 'name' | 'slug'>, to: Pick<Column, 'name' | 'slug'>): Promise<number> {
    const rows = await mailingStore.ofSource(this.transactions, sourceId);
    // Corrections that did not fit for want of it hold again.
    await this.transactions.run((sql) => correctionStore.renameColumn(sql, to.name, sourceId, from.name));
    for (const { id } of rows) {
      const mailing = await this.stored(id);
      const clear = withPasswordPatterns(mailing.plan, (pattern) => patternWithColumn(pattern, from, to));
      const packet = [...mailing.revisions].map(([templateId, revisionId]) => ({ templateId, revisionId }));
      await this.keep(mailing, mailing.version, sealedPlan(planWithColumn(clear, from, to), mailing.plan), packet);
    }
    return rows.length;
  }
}
