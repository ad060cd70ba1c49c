import type { Sql } from '../apps/server/src/persistence/sql.js';
import { ownDatabase } from './own-database.js';
import type { RowAdder } from './rows.js';
import { rowAdder } from './rows.js';

/** Tables of the server in a database of their own, and what puts rows into them. */
export interface OwnTables {
  sql: Sql;
  add: RowAdder;
}

/**
 * Has every test of a file, or all of them together, begin with tables of their own.
 * @param begin takes them and puts into them what the tests begin with
 */
export function ownTables(lasts: 'each' | 'all', begin: (own: OwnTables) => Promise<unknown> | void): void {
  const [before, after] = lasts === 'each' ? [beforeEach, afterEach] : [beforeAll, afterAll];
  let close: (() => Promise<void>) | null = null;
  before(async () => {
    const own = await ownDatabase();
    close = own.close;
    const sql = own.database.manager;
    await begin({ sql, add: rowAdder(sql) });
  });
  after(() => close?.());
}
