import { setImmediate as nextTurn } from 'node:timers/promises';
import { Injectable } from '@nestjs/common';
import { DataSource } from 'typeorm';
import type { EntityManager } from 'typeorm';

/**
 * Every change goes through here, one after the other: SQLite has one writer, and the driver has one connection,
 * on which two transactions would otherwise mix.
 */
@Injectable()
export class Transactions {
  private tail: Promise<unknown> = Promise.resolve();

  constructor(private readonly database: DataSource) {}

  run<T>(work: (manager: EntityManager) => Promise<T>): Promise<T> {
    // The driver answers at once, so without a turn of the event loop in between a long row of changes would let nobody else in.
    const next = this.tail
      .then(() => nextTurn())
      .then(() =>
        this.database.transaction(async (manager) => {
          // Takes the write lock at once. A transaction that reads first and writes later is refused when a thread has written in between.
          await manager.query('UPDATE batch SET id = id WHERE 0');
          return work(manager);
        }),
      );
    this.tail = next.catch(() => undefined);
    return next;
  }

  /** Reads; SQL with `?` for parameters. */
  read<Row>(sql: string, parameters: unknown[] = []): Promise<Row[]> {
    return this.database.query(sql, parameters) as Promise<Row[]>;
  }
}

/** Runs an UPDATE and tells how many rows it changed, so that a guarded change can see whether it won. */
export async function changed(manager: EntityManager, sql: string, parameters: unknown[]): Promise<number> {
  const rows = (await manager.query(`${sql} RETURNING 1`, parameters)) as unknown[];
  return rows.length;
}
