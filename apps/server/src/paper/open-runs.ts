import type { Sql } from '../persistence/sql.js';
import { MailbagError } from '@mailbag/core';
import { printRunStore } from '../stores/print-run.store.js';

/** Copies that lie in a print run which is not over: mailed as well, they would arrive twice. */
export async function copiesInRuns(sql: Sql, ids: readonly number[]): Promise<{ id: number; code: string; run: number }[]> {
  return printRunStore.openWith(sql, ids);
}

/** @throws MailbagError copy-in-print-run */
export async function assertInNoRun(sql: Sql, ids: readonly number[]): Promise<void> {
  const [found] = await copiesInRuns(sql, ids);
  if (found) throw new MailbagError('copy-in-print-run', { copy: found.code, run: found.run });
}
