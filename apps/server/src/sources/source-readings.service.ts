import { MailbagError, isMailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import type { BeforeApplicationShutdown, OnApplicationBootstrap } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import { In, Repository } from 'typeorm';
import type { WantedJob } from '../jobs/jobs.service.js';
import { Jobs } from '../jobs/jobs.service.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { Pool } from '../work/pool.js';
import { SourceEntity } from './sources.entity.js';
import { SourceKinds } from './kinds/source-kinds.js';
import { SourceFiles } from './source-files.service.js';

/** After how many readings that ended with the server it is not tried again by itself. */
const MOST_ATTEMPTS = 2;

/** What goes when a source has been read anew. */
interface ReadWish {
  replaced: string[];
}

/** The readings of sources: each is a job, begins again after a stop of the server, and is left to a person once it has brought the server down twice. */
@Injectable()
export class SourceReadings implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('sources');
  /** Sources that are read right now, and whose attempt is written down. */
  private readonly underWay = new Set<number>();
  private isStopping = false;

  constructor(
    @InjectRepository(SourceEntity) private readonly sources: Repository<SourceEntity>,
    private readonly transactions: Transactions,
    private readonly pool: Pool,
    private readonly live: LiveService,
    private readonly files: SourceFiles,
    private readonly kinds: SourceKinds,
    private readonly jobs: Jobs,
  ) {
    jobs.register<ReadWish>('reading', {
      title: 'Reading records',
      atOnce: 2,
      retry: [],
      run: ({ key, payload }) => this.readWanted(Number(key), payload),
    });
  }

  /** Readings that a stop of the server broke off begin again, but not one that has broken the server off twice. */
  async onApplicationBootstrap(): Promise<void> {
    for (const source of await this.sources.findBy({ state: 'reading' })) {
      if (source.attempts < MOST_ATTEMPTS) await this.want(source);
      else await this.failed(source, new MailbagError('source-reading-breaks-off', { source: source.name, times: source.attempts }));
    }
    void this.sweep();
  }

  /**
   * A stop in peace is no failure of the file, so what is being read was not tried. That is written down while the database is surely open: the readings
   * themselves are broken off with their threads, at the very end.
   */
  beforeApplicationShutdown(): Promise<void> {
    this.isStopping = true;
    return this.transactions.run(async (manager) => {
      await manager.decrement(SourceEntity, { id: In([...this.underWay]) }, 'attempts', 1);
    });
  }

  /** Removes records that belong to no reading any more. */
  async sweep(): Promise<void> {
    await this.pool.run('sweepRecords', null).catch((error: unknown) => {
      if (!isMailbagError(error) || error.code !== 'server-stops') this.logger.error(error);
    });
  }

  /** @throws MailbagError not-found */
  async source(id: number): Promise<SourceEntity> {
    const source = await this.sources.findOneBy({ id });
    if (!source) throw new MailbagError('not-found', { what: t`source` });
    return source;
  }

  /** Has a source read. @param replaced files of the reading before, which are needed until the new one is whole */
  want(source: SourceEntity, replaced: string[] = []): Promise<void> {
    return this.jobs.add(this.wish(source, replaced));
  }

  /** Reads what may have changed by itself again, and waits for it; files are as they were. @throws MailbagError as reading does */
  async refresh(id: number): Promise<void> {
    const source = await this.sources.findOneBy({ id });
    if (!source || !this.kinds.of(source.kind).isLive) return;
    // What is being read may have begun before the last change.
    if (source.state === 'reading') await this.jobs.settled('reading', id);
    await this.transactions.run((manager) => manager.update(SourceEntity, { id }, { state: 'reading' as const, progress: 0, attempts: 0 }));
    await this.jobs.run(this.wish(source));
    const { error } = await this.sources.findOneByOrFail({ id });
    if (error) throw MailbagError.from(error);
  }

  private wish({ id, name }: SourceEntity, replaced: string[] = []): WantedJob<ReadWish> {
    return { kind: 'reading', key: id, subject: name, priority: 10, payload: { replaced } };
  }

  private async readWanted(id: number, { replaced }: ReadWish): Promise<void> {
    const source = await this.sources.findOneBy({ id });
    if (source?.state !== 'reading') return;
    await this.read(source);
    if ((await this.sources.findOneBy({ id }))?.error !== null) return;
    await this.files.drop(replaced);
  }

  /** That a source is tried is written down before it is read: what brings the server down must not do so at every start. */
  private begin(id: number): Promise<void> {
    return this.transactions.run(async (manager) => {
      if (this.isStopping) throw new MailbagError('server-stops');
      await manager.increment(SourceEntity, { id }, 'attempts', 1);
      this.underWay.add(id);
    });
  }

  private async read(source: SourceEntity): Promise<void> {
    const { id, reading, keyColumn, columns: before } = source;
    try {
      await this.begin(id);
      const from = await this.kinds.of(source.kind).input(source);
      await this.pool.run('readSource', { sourceId: id, from, reading, keyColumn, before });
    } catch (error) {
      // The next start reads it. Until then it counts as under way: whoever writes down that it was not tried may come later.
      if (isMailbagError(error) && error.code === 'server-stops') throw error;
      const told = isMailbagError(error) ? error : new MailbagError('unexpected', { trace: `source ${id}` });
      if (told !== error) this.logger.error(error);
      await this.failed(source, told);
    }
    this.underWay.delete(id);
    void this.sweep();
    this.live.notify('source', id);
  }

  /** A source that was read before still has those records. */
  private async failed({ id, readingId }: SourceEntity, error: MailbagError): Promise<void> {
    const state = readingId === null ? ('failed' as const) : ('ready' as const);
    await this.transactions
      .run((manager) => manager.update(SourceEntity, { id }, { state, attempts: 0, error: error.toJSON() }))
      .catch((failure: unknown) => this.logger.error(failure));
  }
}
