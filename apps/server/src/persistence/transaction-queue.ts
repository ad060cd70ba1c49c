import { setImmediate as nextTurn, setTimeout as pause } from 'node:timers/promises';
import { MailbagError } from '@mailbag/core';
import type { DataSource, EntityManager, QueryRunner } from 'typeorm';
import { isBusy, sqliteCode, told } from './failures.js';
import { LogSync } from './log-sync.js';
import { MainConnection } from './main-connection.js';
import type { Sql } from './sql.js';
import { waitingForTurn } from './writers-turn.js';

/** Milliseconds for which somebody else may hold the database, and between looks whether they still do. */
const PATIENCE = 60_000;
const [SHORTEST_PAUSE, LONGEST_PAUSE] = [2, 20];
/** Changes after which the log is to be carried into the database. */
const CHANGES_OF_A_LOG = 400;

/**
 * Every change goes through here, one after the other: SQLite has one writer, and the driver has one connection,
 * on which two transactions would otherwise mix. A lock that somebody else holds is waited for without holding up anything but changes.
 */
export class TransactionQueue implements Sql {
  private readonly connection: MainConnection;
  private readonly log: LogSync;
  private tail: Promise<unknown> = Promise.resolve();
  private changes = 0;

  /** Carries the log into the database, in a thread. */
  checkpoint: () => Promise<void> = () => Promise.resolve();

  /** @param complain is told what is mended by itself */
  constructor(
    private readonly database: DataSource,
    private readonly complain: (words: string) => void,
  ) {
    this.log = new LogSync(String(database.options.database));
    this.connection = new MainConnection(database);
  }

  /** Ends when the change is on the disk: the next one may begin before that. @throws MailbagError database-busy, disk-full, and as the work does */
  async run<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    // The driver answers at once, so without a turn of the event loop in between a long row of changes would let nobody else in.
    const next = this.tail.then(() => nextTurn()).then(() => this.attempt(work));
    this.tail = next.catch(() => undefined);
    const result = await next;
    await this.log.durable().catch((error: unknown) => {
      throw told(error);
    });
    if (++this.changes % CHANGES_OF_A_LOG === 0) this.checkpoint().catch((error: unknown) => this.complain(String(error)));
    return result;
  }

  private async attempt<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    const runner = await this.begin();
    try {
      const result = await work(runner.manager);
      await runner.commitTransaction();
      return result;
    } catch (error) {
      await runner.rollbackTransaction().catch(() => this.connection.reopen());
      // A snapshot that is older than the database stays so on this connection.
      if (sqliteCode(error) === 'SQLITE_BUSY_SNAPSHOT') await this.connection.reopen();
      throw told(error);
    }
  }

  /** Takes the write lock, and waits for it without holding the event loop. */
  private begin(): Promise<QueryRunner> {
    return waitingForTurn(() => this.takeLock());
  }

  private async takeLock(): Promise<QueryRunner> {
    const until = Date.now() + PATIENCE;
    for (let wait = SHORTEST_PAUSE; ; wait = Math.min(wait * 2, LONGEST_PAUSE)) {
      try {
        return this.connection.begin();
      } catch (error) {
        const isStale = sqliteCode(error) === 'SQLITE_BUSY_SNAPSHOT' || /within a transaction/.test(String(error));
        if (!isStale && !isBusy(error)) throw told(error);
        if (isStale) {
          this.complain('The connection to the database was stale and is opened anew.');
          await this.connection.reopen();
        }
        if (Date.now() >= until) throw new MailbagError('database-busy', { seconds: PATIENCE / 1000 }, { cause: error });
        await pause(wait);
      }
    }
  }

  /** Reads, outside of a transaction. */
  query<Row>(text: string, values: readonly unknown[] = []): Promise<Row[]> {
    return this.database.query(text, [...values]) as Promise<Row[]>;
  }
}
