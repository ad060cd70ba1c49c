import type { CorrectionAnswer, RecordsAnswer, SourceRequest, SourceRereadRequest, SourceSummary } from '@mailbag/contract';
import type { Cell, SourceRecord, TableReading } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import type { EntityManager } from 'typeorm';
import { IsNull, Repository } from 'typeorm';
import { ConnectionsService } from '../databases/connections.service.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { SourceEntity } from './sources.entity.js';
import type { SourceKindName } from '../work/tasks.js';
import type { Origin } from './kinds/source-kind.js';
import { SourceKinds } from './kinds/source-kinds.js';
import { correctionStore } from '../stores/correction.store.js';
import { mailingStore } from '../stores/mailing.store.js';
import type { RecordRow } from '../stores/record.store.js';
import { recordStore } from '../stores/record.store.js';
import { findingStore } from '../stores/finding.store.js';
import { fileKey } from '../files/file-key.js';
import { remove as removeFile } from '../files/files.js';
import { readPictureList } from '../files/picture-list.js';
import { SourceFiles } from './source-files.service.js';
import { SourceReadings } from './source-readings.service.js';

/** A record as it is kept, read. */
export const toRecord = ({ row, cells }: Pick<RecordRow, 'row' | 'cells'>): SourceRecord => ({ row, cells: JSON.parse(cells) as Cell[] });

@Injectable()
export class SourcesService {
  constructor(
    @InjectRepository(SourceEntity) private readonly sources: Repository<SourceEntity>,
    private readonly transactions: Transactions,
    private readonly live: LiveService,
    private readonly connections: ConnectionsService,
    private readonly files: SourceFiles,
    private readonly kinds: SourceKinds,
    private readonly readings: SourceReadings,
  ) {}

  /** Keeps a source and begins to read it. @throws MailbagError not-found */
  async create({ name, reading, ...request }: SourceRequest): Promise<SourceSummary> {
    const source = await this.add(name, await this.kinds.ofRequest(request), { ...reading });
    await this.readings.want(source);
    return this.summary(source);
  }

  /** Keeps a source whose records come from elsewhere in Mailbag. It is read when whoever makes it says so. @returns its id */
  async createFor(kind: SourceKindName, name: string): Promise<number> {
    return (await this.add(name, { kind, files: [], query: null }, {})).id;
  }

  private add(name: string, { kind, files, query }: Origin & { kind: SourceKindName }, reading: TableReading): Promise<SourceEntity> {
    return this.transactions.run((manager) =>
      manager.save(SourceEntity, {
        name: name.trim(),
        fileName: files[0]?.fileName ?? '',
        fileId: files[0]?.fileId ?? '',
        kind,
        files,
        query,
        state: 'reading' as const,
        count: 0,
        progress: 0,
        columns: [],
        notes: [],
        reading,
        keyColumn: null,
        changes: null,
        error: null,
        createdAt: new Date().toISOString(),
        readAt: null,
        readingId: null,
        attempts: 0,
        pictures: null,
        deletedAt: null,
      }),
    );
  }

  /**
   * Reads a source again. What was read before stays until the new records are whole, and if they never are.
   * @throws MailbagError not-found, source-key-missing, request-wrong
   */
  async reread(id: number, { fileIds, reading, keyColumn }: SourceRereadRequest): Promise<SourceSummary> {
    const source = await this.sources.findOneBy({ id });
    if (!source) throw new MailbagError('not-found', { what: t`source` });
    if (keyColumn && !source.columns.some(({ name }) => name === keyColumn))
      throw new MailbagError('source-key-missing', { source: source.name, column: keyColumn });
    if (fileIds && fileIds.length > 0 && source.kind !== 'file')
      throw new MailbagError('request-wrong', { why: t`the records of this source come from no file` });
    const files = fileIds && fileIds.length > 0 ? await this.files.of(fileIds) : source.files;
    const replaced = source.files.filter((old) => !files.some(({ fileId }) => fileId === old.fileId));
    const changed = {
      files,
      fileName: files[0]?.fileName ?? '',
      fileId: files[0]?.fileId ?? '',
      // A new file may have its headings elsewhere; what a person has set of columns stays.
      reading: reading
        ? { ...reading }
        : fileIds
          ? {
              ...(source.reading.columns ? { columns: source.reading.columns } : {}),
              ...(source.reading.onePer !== undefined ? { onePer: source.reading.onePer } : {}),
              ...(source.reading.layout ? { layout: source.reading.layout } : {}),
              ...(source.reading.roles ? { roles: source.reading.roles } : {}),
            }
          : source.reading,
      keyColumn: keyColumn === undefined ? source.keyColumn : keyColumn,
      state: 'reading' as const,
      progress: 0,
      attempts: 0,
    };
    await this.transactions.run((manager) => manager.update(SourceEntity, { id }, changed));
    const fresh = await this.sources.findOneByOrFail({ id });
    this.live.notify('source', id);
    await this.readings.want(
      fresh,
      replaced.map(({ fileId }) => fileId),
    );
    return this.summary(fresh);
  }

  async list(): Promise<SourceSummary[]> {
    return Promise.all(
      (await this.sources.find({ where: { deletedAt: IsNull() }, order: { id: 'DESC' } })).map((source) => this.summary(source)),
    );
  }

  /** @throws MailbagError not-found */
  async detail(id: number): Promise<SourceSummary> {
    const source = await this.sources.findOneBy({ id });
    if (!source) throw new MailbagError('not-found', { what: t`source` });
    if (source.deletedAt !== null) throw new MailbagError('in-wastebasket', { name: source.name });
    return this.summary(source);
  }

  private async summary(source: SourceEntity): Promise<SourceSummary> {
    const { fileId: _fileId, readingId: _readingId, attempts: _attempts, files, query, pictures, deletedAt: _deletedAt, ...rest } = source;
    const used = await mailingStore.namesBySource(this.transactions, source.id);
    const sum = await correctionStore.activeCount(this.transactions, source.id);
    const connection = query ? ((await this.connections.list()).find(({ id }) => id === query.connectionId)?.name ?? '') : '';
    return {
      ...rest,
      files: files.length,
      query: query ? { ...query, connection } : null,
      corrections: sum?.count ?? 0,
      pictures: pictures?.count ?? 0,
      usedBy: used.map(({ name }) => name),
    };
  }

  /** The list of the pictures that came with a source; null: none did. See `files/picture-list`. */
  async pictureList(id: number): Promise<string | null> {
    return (await this.sources.findOneBy({ id }))?.pictures?.list ?? null;
  }

  /** @throws MailbagError not-found */
  async setPictures(id: number, pictures: SourceEntity['pictures']): Promise<void> {
    await this.detail(id);
    await this.transactions.run((manager) => manager.update(SourceEntity, { id }, { pictures }));
    this.live.notify('source', id);
  }

  async records(id: number, from: number, count: number): Promise<RecordsAnswer> {
    const { count: total } = await this.detail(id);
    const rows = await recordStore.page(this.transactions, id, from, count);
    return {
      from,
      total,
      records: rows.map(toRecord),
      corrections: await this.correctionsOf(
        id,
        rows.map(({ row }) => row),
      ),
    };
  }

  /** Records by their places, in the order asked for; those that are gone are left out. */
  async recordsOf(id: number, ordinals: readonly number[]): Promise<RecordsAnswer> {
    const { count: total } = await this.detail(id);
    const found = await this.recordsAt(id, ordinals);
    const records = ordinals.flatMap((ordinal) => found.get(ordinal) ?? []);
    const places = records.map(({ row }) => row);
    return { from: 0, total, records, corrections: await this.correctionsOf(id, places) };
  }

  /** Corrections that hold for some records, by their rows. */
  async correctionsOf(id: number, rows: readonly number[]): Promise<CorrectionAnswer[]> {
    const found = await correctionStore.ofRows(this.transactions, id, rows);
    return found.map(({ columnName, was, value, sourceId: _, principal: __, ...rest }) => ({
      ...rest,
      column: columnName,
      was: (JSON.parse(was) as Cell).text,
      value: (JSON.parse(value) as Cell).text,
    }));
  }

  /** All records in blocks, for what leaves Mailbag. */
  async *all(id: number): AsyncGenerator<SourceRecord[]> {
    for (let from = 0; ; from += 500) {
      const { records } = await this.records(id, from, 500);
      if (records.length === 0) return;
      yield records;
    }
  }

  /** Records by their places, in the order asked for. */
  async recordsAt(id: number, ordinals: readonly number[]): Promise<Map<number, SourceRecord>> {
    if (ordinals.length === 0) return new Map();
    const rows = await recordStore.recordsAt(this.transactions, id, ordinals);
    return new Map(rows.map((row) => [row.ordinal, toRecord(row)]));
  }

  /** @throws MailbagError not-found, in-wastebasket */
  async rename(id: number, name: string): Promise<SourceSummary> {
    await this.detail(id);
    await this.transactions.run((manager) => manager.update(SourceEntity, { id }, { name: name.trim() }));
    return this.detail(id);
  }

  /** @throws MailbagError source-in-use, not-found, in-wastebasket */
  async assertMayGo(id: number): Promise<void> {
    const { name: source, usedBy: mailings } = await this.detail(id);
    if (mailings.length > 0) throw new MailbagError('source-in-use', { source, mailings });
  }

  /** Deletes a source for good, also from mailings: their maps stay, what is said of single records goes. */
  async erase(id: number): Promise<void> {
    await this.deleteAll(id, async (manager) => {
      const ids = (await mailingStore.ofSource(manager, id)).map((row) => row.id);
      await findingStore.dropOfMailings(manager, ids);
      await mailingStore.disconnect(manager, ids);
    });
  }

  private async deleteAll(id: number, before: (manager: EntityManager) => Promise<void>): Promise<void> {
    const entity = await this.sources.findOneByOrFail({ id });
    await this.transactions.run(async (manager) => {
      await before(manager);
      await correctionStore.dropOfSource(manager, id);
      await recordStore.dropReadings(manager, id);
      await manager.delete(SourceEntity, { id });
    });
    await this.readings.sweep();
    await this.files.drop(entity.files.map(({ fileId }) => fileId));
    if (entity.pictures) await this.dropPictures(entity.pictures.list);
  }

  /** Pictures go with their records, unless another source has them too or a mailing uses them. */
  private async dropPictures(list: string): Promise<void> {
    const used = new Set((await mailingStore.allPlans(this.transactions)).flatMap(({ plan }) => plan.match(/[0-9a-f]{64}/g) ?? []));
    for (const { pictures } of await this.sources.find()) {
      if (!pictures) continue;
      used.add(pictures.list);
      for (const digest of (await readPictureList(pictures.list)).values()) used.add(digest);
    }
    const own = [...(await readPictureList(list)).values(), list];
    for (const digest of own) if (!used.has(digest)) await removeFile(fileKey('attachments', digest));
  }
}
