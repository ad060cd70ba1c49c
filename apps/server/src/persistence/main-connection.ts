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
    // One that failed half-way must not be inside the next one.
    driverOf(this.database).databaseConnection.exec('BEGIN IMMEDIATE');
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
