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
