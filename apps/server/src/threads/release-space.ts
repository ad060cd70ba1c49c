import { giveRoomBack } from '../persistence/dialect/sqlite.js';
import { ledgerStore } from '../stores/ledger.store.js';
import { inTransaction, threadSql } from './worker-database.js';

/**
 * What was deleted must not stay in the index of the search, in free pages or in the log: the index is written anew, free pages are given back and the log is emptied.
 * What somebody else uses just then is done the next time.
 */
export async function releaseSpace(): Promise<void> {
  await inTransaction((sql) => ledgerStore.optimise(sql));
  await giveRoomBack(threadSql());
}
