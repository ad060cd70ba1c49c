import type { BatchStartRequest, ListedRecord, MatchingRecords, StartChoice, StartGroup, StartList, StartPreview } from '@mailbag/contract';
import { startGroups } from '@mailbag/contract';
import type { SourceRecord } from '@mailbag/core';
import { MailbagError, compilePattern, fieldLabel, isFillable, outputPattern } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { letterPattern, passwordPattern, patternNames } from '../frozen/message-of.js';
import { MailingChecks } from '../mailings/mailing-checks.service.js';
import { SendersService } from '../senders/senders.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { Pool } from '../work/pool.js';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';

/** What was shown last: places of records by group, for the lists behind the numbers. */
export interface Shown {
  sourceId: number;
  mailing: FrozenMailing;
  groups: Record<StartGroup, number[]>;
  /** Copies that would be made. */
  copies: number;
}
/** Records that a search lists; all that it finds can be taken. */
const MOST_LISTED = 200;
/** Previews whose lists can be opened. */
const MOST_SHOWN = 20;

/** Who would run, what they would get, and why others would not: looked at before a batch begins, and compared when it does. */
@Injectable()
export class BatchStarts {
  private readonly shown = new Map<string, Shown>();

  constructor(
    private readonly checks: MailingChecks,
    private readonly senders: SendersService,
    private readonly sources: SourcesService,
    private readonly batches: FrozenBatches,
    private readonly pool: Pool,
  ) {}

  /** Everything that must be in order before anything is made. @throws MailbagError mailing-*, pattern-*, sender-not-confirmed */
  private async assertReady(name: string, mailing: FrozenMailing): Promise<void> {
    const { plan, columns, templates } = mailing;
    if (!templates.some(({ map }) => Object.values(map).some(({ kind }) => kind !== 'blank')))
      throw new MailbagError('mailing-map-empty', { mailing: name });
    outputPattern(plan.output.folder, plan.output.file, patternNames(columns));
    compilePattern(plan.message.recipient, patternNames(columns));
    const hasPassword = passwordPattern(plan, columns) !== null;
    if (plan.message.mailed) letterPattern(mailing);
    if ((plan.output.combined ?? 'none') !== 'none' && hasPassword) throw new MailbagError('output-combined-password');
    const isFlat = (plan.output.finish ?? 'flattened') === 'flattened' && !hasPassword;
    if (plan.message.mailed && plan.message.attach === 'combined' && templates.length > 1 && !isFlat)
      throw new MailbagError('mail-combined-needs-flat');
    if (!plan.message.mailed) return;
    if (!plan.message.addressColumn) throw new MailbagError('mailing-no-recipient-column', { mailing: name });
    if ((await this.senders.sendingServers()).length === 0) throw new MailbagError('mailing-no-mail-server');
    if (!(await this.senders.ready(plan.message.senderId ?? null))) throw new MailbagError('sender-not-confirmed', { mailing: name });
  }

  /**
   * Who would run with a choice.
   * @param isFresh whether a database is read again first
   * @throws MailbagError mailing-*, pattern-*, database-*
   */
  async preview(mailingId: number, choice: StartChoice, isFresh: boolean): Promise<StartPreview> {
    const { name, frozen, sourceId, version } = await this.checks.readyToRun(mailingId, isFresh);
    await this.assertReady(name, frozen);
    const { groups, copies, sizes, unknownBatches, digest } = await this.pool.run('whoRuns', {
      mailingId,
      sourceId,
      mailing: frozen,
      version,
      choice,
      context: await this.batches.next(),
    });
    this.shown.set(digest, { sourceId, mailing: frozen, groups, copies });
    if (this.shown.size > MOST_SHOWN) this.shown.delete(this.shown.keys().next().value!);
    const { plan, templates } = frozen;
    const runs = groups.runs.length;
    return {
      who: choice.who,
      digest,
      version,
      mailed: plan.message.mailed,
      records: runs,
      copies,
      counts: Object.fromEntries(startGroups.map((group) => [group, groups[group].length])) as Record<StartGroup, number>,
      sizes,
      unknownBatches,
      keyColumn: plan.keyColumn ?? null,
      unmapped: templates.flatMap(({ name: template, fields, map }) =>
        fields
          .filter((field) => isFillable(field) && field.kind !== 'signature' && !Object.hasOwn(map, field.name))
          .map((field) => ({ template, field: field.name, label: fieldLabel(field) })),
      ),
      firstMailed: groups.mailed[0] ?? null,
      startAt: plan.message.startAt ?? null,
    };
  }

  /** What was shown. @throws MailbagError start-outdated */
  shownAs(digest: string): Shown {
    const shown = this.shown.get(digest);
    if (!shown) throw new MailbagError('start-outdated', { mailing: 'This mailing' });
    return shown;
  }

  /** The records behind a number. @throws MailbagError start-outdated */
  async list(digest: string, group: StartGroup, from: number, count: number): Promise<StartList> {
    const shown = this.shownAs(digest);
    const ordinals = shown.groups[group];
    return { total: ordinals.length, rows: await this.listed(shown, ordinals.slice(from, from + count)) };
  }

  /** Records as they are listed: by key, address, and what stands first beside them. */
  private async listed({ sourceId, mailing }: Pick<Shown, 'sourceId' | 'mailing'>, ordinals: readonly number[]): Promise<ListedRecord[]> {
    const { columns, plan } = mailing;
    const at = ({ cells }: SourceRecord, column: string | null | undefined): string =>
      cells[columns.findIndex(({ name }) => name === column)]?.text ?? '';
    const others = columns.filter(({ name }) => name !== plan.keyColumn && name !== plan.message.addressColumn).slice(0, 2);
    const records = await this.sources.recordsAt(sourceId, ordinals);
    return ordinals.flatMap((index) => {
      const record = records.get(index);
      if (!record) return [];
      const about = others
        .map(({ name }) => at(record, name))
        .filter(Boolean)
        .join(' · ');
      return [{ index, row: record.row, key: at(record, plan.keyColumn), address: at(record, plan.message.addressColumn), about }];
    });
  }

  /** Records that hold a text, that were corrected, or that have something to look at. @throws MailbagError mailing-* */
  async matching(mailingId: number, { text, only }: { text: string; only: 'corrected' | 'looked' | null }): Promise<MatchingRecords> {
    const { frozen, sourceId } = await this.checks.readyToRun(mailingId, false);
    const found = await this.pool.run('matchRecords', { mailingId, sourceId, text, only });
    const first = found.slice(0, MOST_LISTED);
    return {
      rows: found.map(({ row }) => row),
      shown: await this.listed(
        { sourceId, mailing: frozen },
        first.map(({ ordinal }) => ordinal),
      ),
    };
  }

  /**
   * Begins a batch over those who were shown, once for each request.
   * @throws MailbagError mailing-*, pattern-*, start-outdated, start-not-confirmed
   */
  async begin(
    mailingId: number,
    { who, rows, digest, version, startKey, confirmation }: BatchStartRequest,
  ): Promise<{ id: number; isNew: boolean }> {
    const { name, frozen, sourceId } = await this.checks.readyToRun(mailingId, false);
    await this.assertReady(name, frozen);
    const shown = this.shown.get(digest);
    if (!shown) throw new MailbagError('start-outdated', { mailing: name });
    // Whoever mails people again says how many.
    const { again, runs } = shown.groups;
    if (who === 'everybody' && again.length > 0 && confirmation !== runs.length)
      throw new MailbagError('start-not-confirmed', { count: runs.length });
    return this.pool.run('startBatch', {
      mailingId,
      sourceId,
      mailing: frozen,
      name,
      version,
      choice: { who, ...(rows ? { rows } : {}) },
      digest,
      startKey,
      context: await this.batches.next(),
    });
  }
}
