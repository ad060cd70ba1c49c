import { existsSync } from 'node:fs';
import { readFile, rename, rm, writeFile } from 'node:fs/promises';
import { basename } from 'node:path';
import type { ReadingRequest, RecordsAnswer, SourceFileAnswer, SourceRequest, SourceSummary } from '@mailbag/contract';
import type { Cell, SourceRecord } from '@mailbag/core';
import { MailbagError, isMailbagError } from '@mailbag/core';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { Repository } from 'typeorm';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { dataPath } from '../platform/config.js';
import { Pool } from '../work/pool.js';
import { SourceEntity } from './sources.entity.js';

type RecordRow = { ordinal: number; row: number; cells: string };
const toRecord = ({ row, cells }: RecordRow): SourceRecord => ({ row, cells: JSON.parse(cells) as Cell[] });

@Injectable()
export class SourcesService implements OnApplicationBootstrap {
  private readonly logger = new Logger('sources');

  constructor(
    @InjectRepository(SourceEntity) private readonly sources: Repository<SourceEntity>,
    private readonly transactions: Transactions,
    private readonly pool: Pool,
    private readonly live: LiveService,
  ) {}

  /** Readings that a stop of the server broke off begin again. */
  async onApplicationBootstrap(): Promise<void> {
    for (const source of await this.sources.findBy({ state: 'reading' })) void this.read(source);
  }

  private filePath(fileId: string): string {
    if (!/^upload-[0-9a-f-]{36}$/.test(fileId)) throw new MailbagError('not-found', { what: 'file' });
    return dataPath('sources', fileId);
  }

  /** Keeps an uploaded file and shows its first rows. @throws MailbagError sheet-* */
  async takeFile(path: string, fileName: string): Promise<SourceFileAnswer> {
    const fileId = basename(path);
    const kept = this.filePath(fileId);
    await rename(path, kept);
    await writeFile(`${kept}.name`, fileName);
    try {
      return { fileId, fileName, excerpt: await this.pool.run('excerpt', { path: kept, file: fileName, reading: {} }) };
    } catch (error) {
      await rm(kept, { force: true });
      await rm(`${kept}.name`, { force: true });
      throw error;
    }
  }

  /** @throws MailbagError sheet-*, not-found */
  async excerpt(fileId: string, reading: ReadingRequest): Promise<SourceFileAnswer> {
    const fileName = await this.fileName(fileId);
    return {
      fileId,
      fileName,
      excerpt: await this.pool.run('excerpt', { path: this.filePath(fileId), file: fileName, reading: { ...reading } }),
    };
  }

  private async fileName(fileId: string): Promise<string> {
    const path = this.filePath(fileId);
    if (!existsSync(path)) throw new MailbagError('not-found', { what: 'file' });
    return readFile(`${path}.name`, 'utf8');
  }

  async create({ fileId, name, reading }: SourceRequest): Promise<SourceSummary> {
    const fileName = await this.fileName(fileId);
    const source = await this.transactions.run((manager) =>
      manager.save(SourceEntity, {
        name: name.trim(),
        fileName,
        fileId,
        state: 'reading' as const,
        count: 0,
        columns: [],
        notes: [],
        reading: { ...reading },
        error: null,
        createdAt: new Date().toISOString(),
      }),
    );
    void this.read(source);
    return this.summary(source);
  }

  private async read(source: SourceEntity): Promise<void> {
    const { id, fileName, fileId, reading } = source;
    try {
      const result = await this.pool.run('readSource', { sourceId: id, path: this.filePath(fileId), file: fileName, reading });
      await this.transactions.run((manager) => manager.update(SourceEntity, { id }, { ...result, state: 'ready' }));
    } catch (error) {
      const told = isMailbagError(error) ? error : new MailbagError('unexpected', { trace: `source ${id}` });
      if (told !== error) this.logger.error(error);
      await this.transactions
        .run((manager) => manager.update(SourceEntity, { id }, { state: 'failed', error: told.toJSON() }))
        .catch((failure: unknown) => this.logger.error(failure));
    }
    this.live.tell('source', id);
  }

  async list(): Promise<SourceSummary[]> {
    return Promise.all((await this.sources.find({ order: { id: 'DESC' } })).map((source) => this.summary(source)));
  }

  /** @throws MailbagError not-found */
  async detail(id: number): Promise<SourceSummary> {
    const source = await this.sources.findOneBy({ id });
    if (!source) throw new MailbagError('not-found', { what: 'source' });
    return this.summary(source);
  }

  private async summary(source: SourceEntity): Promise<SourceSummary> {
    const { fileId: _fileId, ...rest } = source;
    const used = await this.transactions.read<{ name: string }>(
      "SELECT name FROM mailing WHERE json_extract(plan, '$.sourceId') = ? ORDER BY name",
      [source.id],
    );
    return { ...rest, usedBy: used.map(({ name }) => name) };
  }

  async records(id: number, from: number, count: number): Promise<RecordsAnswer> {
    const { count: total } = await this.detail(id);
    const rows = await this.transactions.read<RecordRow>(
      'SELECT ordinal, row, cells FROM source_record WHERE sourceId = ? AND ordinal >= ? ORDER BY ordinal LIMIT ?',
      [id, from, count],
    );
    return { from, total, records: rows.map(toRecord) };
  }

  /** Records by their places, in the order asked for. */
  async recordsAt(id: number, ordinals: readonly number[]): Promise<Map<number, SourceRecord>> {
    if (ordinals.length === 0) return new Map();
    const rows = await this.transactions.read<RecordRow>(
      `SELECT ordinal, row, cells FROM source_record WHERE sourceId = ? AND ordinal IN (${ordinals.map(() => '?').join(',')})`,
      [id, ...ordinals],
    );
    return new Map(rows.map((row) => [row.ordinal, toRecord(row)]));
  }

  /** Place of the first record after `after` that holds the text; -1: none. Goes round once. */
  async findRecord(id: number, text: string, after: number): Promise<number> {
    const like = `%${text.toLowerCase().replace(/[\\%_"]/g, (char) => (char === '"' ? '\\\\"' : `\\${char}`))}%`;
    const [row] = await this.transactions.read<{ ordinal: number }>(
      "SELECT ordinal FROM source_record WHERE sourceId = ? AND lower(cells) LIKE ? ESCAPE '\\' ORDER BY ordinal <= ?, ordinal LIMIT 1",
      [id, like, after],
    );
    return row?.ordinal ?? -1;
  }

  /** @throws MailbagError source-in-use, not-found */
  async remove(id: number): Promise<void> {
    const source = await this.detail(id);
    if (source.usedBy.length > 0) throw new MailbagError('source-in-use', { source: source.name, mailings: source.usedBy });
    const entity = await this.sources.findOneByOrFail({ id });
    await this.transactions.run(async (manager) => {
      await manager.query('DELETE FROM source_record WHERE sourceId = ?', [id]);
      await manager.delete(SourceEntity, { id });
    });
    await rm(this.filePath(entity.fileId), { force: true });
    await rm(`${this.filePath(entity.fileId)}.name`, { force: true });
  }
}
