import type { EventEmitter } from 'node:events';
import type { Readable } from 'node:stream';
import type { DatabaseTable } from '@mailbag/contract';
import type { DataSource, QueryRunner } from 'typeorm';
import { databaseFailure } from './failures.js';
import type { PreparedQuery } from './query.js';
import type { DatabaseRow } from './reader.js';
import { BLOCK } from './reader.js';

/** Milliseconds that saying goodbye may take. */
const GOODBYE = 1000;

/** Waits for an orderly end, but not for an answer that a dead connection never gives. */
async function briefly(ending: Promise<unknown>): Promise<void> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const enough = new Promise<void>((resolve) => (timer = setTimeout(resolve, GOODBYE)));
  await Promise.race([ending.catch(() => undefined), enough]);
  clearTimeout(timer);
}

/**
 * Works with a database server in one transaction, which is never committed, over a connection of its own.
 * @param begin starts a read-only transaction with its limits
 * @throws MailbagError database-*
 */
export async function readOnlySession<T>(
  database: DataSource,
  host: string,
  begin: (runner: QueryRunner) => Promise<void>,
  work: (runner: QueryRunner) => Promise<T>,
): Promise<T> {
  try {
    await database.initialize();
    const runner = database.createQueryRunner();
    try {
      await begin(runner);
      return await work(runner);
    } finally {
      await briefly(runner.query('ROLLBACK').then(() => runner.release()));
    }
  } catch (error) {
    throw databaseFailure(error, host);
  } finally {
    if (database.isInitialized) await briefly(database.destroy());
  }
}

/** Columns as a server lists them, one a row, gathered by their tables. */
export function tablesOf(rows: readonly { schema: string | null; name: string; column: string; type: string }[]): DatabaseTable[] {
  const tables = new Map<string, DatabaseTable>();
  for (const { schema, name, column, type } of rows) {
    const key = JSON.stringify([schema, name]);
    const table = tables.get(key) ?? { schema, name, columns: [] };
    table.columns.push({ name: column, type });
    tables.set(key, table);
  }
  return [...tables.values()];
}

type NamedRow = Record<string, string | null>;

/**
 * The rows of a stream, or an error as soon as its connection ends: the drivers' streams wait for an answer that does not come any more,
 * even to be ended.
 */
async function* rowsUntilGone(stream: Readable, connection: unknown): AsyncGenerator<NamedRow, void, undefined> {
  const iterator = (stream as AsyncIterable<NamedRow>)[Symbol.asyncIterator]();
  const gone = new Promise<never>((_, reject) => {
    const end = (): void => reject(new Error('Connection terminated'));
    (connection as EventEmitter).once('end', end).once('error', end);
  });
  // It is heard only while a row is waited for.
  gone.catch(() => undefined);
  for (;;) {
    const next = await Promise.race([iterator.next(), gone]);
    if (next.done) return;
    yield next.value;
  }
}

/**
 * Streams the rows of a query in blocks. The names come first, also when no row follows.
 * @param namesOf the names of the columns, once the stream knows them
 * @returns false when there were more rows than `limit`
 */
export async function streamRows(
  runner: QueryRunner,
  { sql, values }: PreparedQuery,
  limit: number,
  namesOf: (stream: Readable) => () => string[] | undefined,
  onNames: (names: string[]) => void,
  onRows: (rows: DatabaseRow[]) => void,
): Promise<boolean> {
  const stream = (await runner.stream(sql, values)) as Readable;
  const known = namesOf(stream);
  let names: string[] | null = null;
  const head = (first?: NamedRow): string[] => {
    if (!names) onNames((names = known() ?? Object.keys(first ?? {})));
    return names;
  };
  const block: DatabaseRow[] = [];
  let count = 0;
  for await (const row of rowsUntilGone(stream, await runner.connect())) {
    const columns = head(row);
    if (++count > limit) {
      onRows(block);
      stream.destroy();
      return false;
    }
    block.push(columns.map((name) => row[name] ?? null));
    if (block.length >= BLOCK) onRows(block.splice(0));
  }
  head();
  if (block.length > 0) onRows(block);
  return true;
}
