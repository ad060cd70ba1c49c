import type { EventEmitter } from 'node:events';
import type { DatabaseTable } from '@mailbag/contract';

/** Where a database is and how it is entered; the password in clear, so never logged or answered. */
export interface DatabaseAccess {
  kind: 'sqlite' | 'postgres' | 'mysql';
  host: string;
  port: number;
  databaseName: string;
  user: string;
  password: string;
  tls: boolean;
  /** Path of a SQLite file. */
  path: string | null;
}

export interface QueryLimits {
  /** Rows after which reading ends. */
  rows: number;
  /** Milliseconds that a statement may take. */
  time: number;
}

/** Values come as text, as the database writes them; null: none. */
export type DatabaseRow = (string | null)[];

/** A database that is only read: each reading is one statement in a read-only transaction of a connection of its own. */
export interface DatabaseReader {
  /** @throws MailbagError database-* */
  tables(): Promise<DatabaseTable[]>;
  /**
   * Reads rows in blocks. The names come first, also when no row follows.
   * @returns false when there were more rows than the limit
   * @throws MailbagError database-*
   */
  read(
    sql: string,
    parameters: Readonly<Record<string, string>>,
    limits: QueryLimits,
    onNames: (names: string[]) => void,
    onRows: (rows: DatabaseRow[]) => void,
  ): Promise<boolean>;
}

export const BLOCK = 500;
/** Milliseconds to reach a server and sign in. */
export const CONNECT_TIME = 8000;

/** The name of a table in a query, quoted. */
export const quoted = (mark: string, ...names: string[]): string =>
  names.map((name) => mark + name.replaceAll(mark, mark + mark) + mark).join('.');

/**
 * The rows of a stream, or an error as soon as its connection ends: the drivers' streams wait for an answer that does not come any more,
 * even to be ended.
 */
export async function* rowsUntilGone<Row>(rows: AsyncIterable<Row>, connection: unknown): AsyncGenerator<Row, void, undefined> {
  const iterator = rows[Symbol.asyncIterator]();
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

/** Milliseconds that saying goodbye may take. */
const GOODBYE = 1000;

/** Waits for an orderly end, but not for an answer that a dead connection never gives. */
export async function briefly(ending: Promise<unknown>): Promise<void> {
  let timer: ReturnType<typeof setTimeout> | undefined;
  const enough = new Promise<void>((resolve) => (timer = setTimeout(resolve, GOODBYE)));
  await Promise.race([ending.catch(() => undefined), enough]);
  clearTimeout(timer);
}
