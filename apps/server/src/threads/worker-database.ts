import Database from 'libsql';
import type { Sql, Statement } from '../persistence/sql.js';
import { letOthersFirst } from '../persistence/writers-turn.js';
import { databasePath } from '../platform/config.js';

/** Milliseconds for which a thread waits until nobody else writes; it holds up nothing but its task. */
const PATIENCE = 60_000;

/** A thread's own connection to the database. A task writes only rows that belong to it, and a thread has one task at a time. */
class ThreadConnection implements Sql {
  private readonly database = new Database(databasePath());
  private readonly statements = new Map<string, Database.Statement>();

  constructor() {
    this.database.pragma(`busy_timeout = ${PATIENCE}`);
    // As the main connection does: what a row was before must not stay in free room of its page.
    this.database.pragma('secure_delete = ON');
    this.database.pragma('synchronous = NORMAL');
    // Records that are being read stand under a number that no source has yet.
    this.database.pragma('foreign_keys = OFF');
  }

  // The driver answers at once; what it throws is to come as a rejection all the same.
  async query<Row>(text: string, values: readonly unknown[] = []): Promise<Row[]> {
    // Gone through to its end, whatever it is: one that is left open holds its lock.
    return this.prepared(text).all([...values]) as Row[];
  }

  exec(text: string): void {
    this.database.exec(text);
  }

  /** Makes changes before it comes back. */
  runNow({ text, values }: Statement): void {
    this.prepared(text).run([...values]);
  }

  private prepared(text: string): Database.Statement {
    let statement = this.statements.get(text);
    if (!statement) this.statements.set(text, (statement = this.database.prepare(text)));
    return statement;
  }
}

let connection: ThreadConnection | null = null;

/** The connection of this thread, for questions outside of a transaction. */
export const threadSql = (): Sql => (connection ??= new ThreadConnection());

function transaction(own: ThreadConnection): { commit: () => void; rollback: () => void } {
  letOthersFirst();
  own.exec('BEGIN IMMEDIATE');
  return { commit: () => own.exec('COMMIT'), rollback: () => own.exec('ROLLBACK') };
}

/**
 * Writes in one transaction that takes the write lock at once. One that reads first and writes later is refused when somebody has written in between,
 * and its connection stays at what it read.
 */
export async function inTransaction<T>(work: (sql: Sql) => Promise<T>): Promise<T> {
  const own = (connection ??= new ThreadConnection());
  const { commit, rollback } = transaction(own);
  try {
    const result = await work(own);
    commit();
    return result;
  } catch (error) {
    rollback();
    throw error;
  }
}

/** Changes in one transaction that is over when this comes back, for those who cannot wait: readers of files hand on what they read as they go. */
export function writeAtOnce(statements: readonly Statement[]): void {
  const own = (connection ??= new ThreadConnection());
  const { commit, rollback } = transaction(own);
  try {
    for (const statement of statements) own.runNow(statement);
    commit();
  } catch (error) {
    rollback();
    throw error;
  }
}
