import { randomBytes, randomUUID } from 'node:crypto';
import type { Account, TrialAnswer, TrialRequest } from '@mailbag/contract';
import type { SourceRecord } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, copyCode, isMailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import type { FileKey } from '../files/file-key.js';
import { remove } from '../files/files.js';
import type { ZipPart } from '../files/zip-of-files.js';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { MailingsService } from '../mailings/mailings.service.js';
import { MessageSamples } from '../mailings/message-samples.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { Pool } from '../work/pool.js';

/** A trial as it is kept: with where its files lie. */
interface CachedTrial {
  answer: TrialAnswer;
  keys: FileKey[];
}

/**
 * Copies that are made to be looked at. They lie in the spool, so that no backup and no ledger knows of them; each account has one trial of a mailing at most,
 * which goes when the next one is made, when it is thrown away, and with the spool after a day.
 */
@Injectable()
export class Trials {
  private readonly cache = new Map<string, CachedTrial>();

  constructor(
    private readonly mailings: MailingsService,
    private readonly sources: SourcesService,
    private readonly samples: MessageSamples,
    private readonly batches: FrozenBatches,
    private readonly pool: Pool,
  ) {}

  private readonly nameOf = (id: number, { id: account }: Account): string => `${id} ${account}`;

  current(id: number, account: Account): TrialAnswer | null {
    const answer = this.cache.get(this.nameOf(id, account))?.answer;
    if (!answer) return null;
    return account.seesPasswords ? answer : { ...answer, copies: answer.copies.map((copy) => ({ ...copy, openPassword: null })) };
  }

  /** @throws MailbagError mailing-no-template, mailing-no-records, not-found, pattern-*, work-too-* */
  async make(id: number, { indexes, mailed }: TrialRequest, account: Account): Promise<TrialAnswer> {
    const mailing = await this.mailings.entity(id);
    const subject = await this.mailings.frozen(mailing);
    if (!subject)
      throw new MailbagError(mailing.plan.packet.length === 0 ? 'mailing-no-template' : 'mailing-no-records', { mailing: mailing.name });
    const found = await this.sources.recordsAt(subject.sourceId, indexes);
    return this.makeOf(id, subject.frozen, { indexes, found, mailed }, account);
  }

  /**
   * Makes a trial of records that need not be anywhere.
   * @param found the records, by their places among all @param pictures those that they name and that are kept nowhere
   * @throws MailbagError not-found, pattern-*, work-too-*
   */
  async makeOf(
    id: number,
    frozen: FrozenMailing,
    {
      indexes,
      found,
      mailed,
      pictures = {},
    }: TrialRequest & { found: ReadonlyMap<number, SourceRecord>; pictures?: Record<string, Uint8Array> },
    account: Account,
  ): Promise<TrialAnswer> {
    const codes = (): string[] => frozen.templates.map(() => copyCode(new Uint8Array(randomBytes(10))));
    const records = indexes.flatMap((ordinal) => {
      const record = found.get(ordinal);
      return record ? [{ record, ordinal, codes: codes() }] : [];
    });
    if (records.length === 0) throw new MailbagError('not-found', { what: t`record` });
    const { copies, faults } = await this.pool.run('trial', {
      mailing: frozen,
      batch: await this.batches.next(),
      records,
      name: `trial-${randomUUID()}`,
      pictures,
    });
    await this.throwAway(id, account);
    const failed = new Set(faults.map(({ index }) => index));
    const mail = mailed
      ? await this.mail(
          records.filter(({ ordinal }) => !failed.has(ordinal)),
          (record, ordinal) => this.samples.testOf(id, frozen, record, ordinal, account.email, pictures),
        )
      : null;
    const answer: TrialAnswer = {
      at: new Date().toISOString(),
      indexes: records.map(({ ordinal }) => ordinal),
      copies: copies.map(({ key: _key, openPassword, ...copy }, number) => ({ ...copy, number, openPassword: openPassword || null })),
      faults: [...faults, ...(mail?.faults ?? [])],
      mail: mail && { address: account.email, sent: mail.sent },
    };
    this.cache.set(this.nameOf(id, account), { answer, keys: copies.map(({ key }) => key) });
    return this.current(id, account)!;
  }

  /** Sends the messages of records, one after the other. */
  private async mail(
    records: readonly { record: SourceRecord; ordinal: number }[],
    send: (record: SourceRecord, ordinal: number) => Promise<unknown>,
  ): Promise<{ sent: number; faults: TrialAnswer['faults'] }> {
    const faults: TrialAnswer['faults'] = [];
    for (const { record, ordinal: index } of records) {
      try {
        await send(record, index);
      } catch (error) {
        if (!isMailbagError(error)) throw error;
        faults.push({ index, why: error.message });
      }
    }
    return { sent: records.length - faults.length, faults };
  }

  /** The file of a copy of the trial. @throws MailbagError not-found */
  copy(id: number, number: number, account: Account): { key: FileKey; file: string } {
    const trial = this.cache.get(this.nameOf(id, account));
    const [key, copy] = [trial?.keys[number], trial?.answer.copies[number]];
    if (!key || !copy) throw new MailbagError('not-found', { what: t`copy` });
    return { key, file: copy.file };
  }

  /** All files of the trial. @throws MailbagError not-found */
  async *files(id: number, account: Account): AsyncGenerator<ZipPart> {
    const trial = this.cache.get(this.nameOf(id, account));
    // Copies that want one name get numbers, as in the archive.
    const taken = new Map<string, number>();
    for (const [at, key] of trial?.keys.entries() ?? []) {
      const { file } = trial!.answer.copies[at]!;
      const count = (taken.get(file) ?? 0) + 1;
      taken.set(file, count);
      yield { key, name: count === 1 ? file : file.replace(/\.pdf$/i, ` (${count}).pdf`) };
    }
  }

  async throwAway(id: number, account: Account): Promise<void> {
    const trial = this.cache.get(this.nameOf(id, account));
    this.cache.delete(this.nameOf(id, account));
    for (const key of trial?.keys ?? []) await remove(key);
  }
}
