import type { DataSource, QueryRunner } from 'typeorm';

/** The driver's own connection, as TypeORM keeps it (better-sqlite3's interface). */
interface Connection {
  exec(sql: string): void;
  close(): void;
}
interface Driver {
  databaseConnection: Connection;
  createDatabaseConnection(): Promise<Connection>;
}

/** Milliseconds for which a reader waits, where SQLite lets readers wait at all: while another program mends the log. */
export const BUSY_TIMEOUT = 20;
const driverOf = (database: DataSource): Driver => database.driver as unknown as Driver;

/**
 * The one connection over which the server writes. TypeORM begins transactions without asking for the write lock, so this does it; and a connection
 * on which a statement was left open sees the database as it was for ever, so it can be opened anew.
 */
export class MainConnection {
  constructor(private readonly database: DataSource) {}

  get runner(): QueryRunner {
    return this.database.createQueryRunner();
  }

  /** Begins a transaction that may write. @throws the driver's SQLITE_BUSY when somebody else writes */
  begin(): QueryRunner {
    const { runner } = this;
    const { databaseConnection } = driverOf(this.database);
    // Whoever waits for the lock comes again; SQLite would wait for it on the thread that answers everybody (PRAGMA busy_timeout).
    databaseConnection.exec('PRAGMA busy_timeout = 0');
    try {
      // One that failed half-way must not be inside the next one.
      databaseConnection.exec('BEGIN IMMEDIATE');
    } finally {
      databaseConnection.exec(`PRAGMA busy_timeout = ${BUSY_TIMEOUT}`);
    }
    // So that what saves entities does not begin another one.
    const state = runner as unknown as { isTransactionActive: boolean; transactionDepth: number };
    state.isTransactionActive = true;
    state.transactionDepth = 1;
    return runner;
  }

  async reopen(): Promise<void> {
    const driver = driverOf(this.database);
    const old = driver.databaseConnection;
    driver.databaseConnection = await driver.createDatabaseConnection();
    const state = this.runner as unknown as { stmtCache: Map<string, unknown>; isTransactionActive: boolean; transactionDepth: number };
    state.stmtCache.clear();
    state.isTransactionActive = false;
    state.transactionDepth = 0;
    old.close();
  }
}
