import type { EntityManager } from 'typeorm';
import { MailbagError } from '@mailbag/core';

/** Print runs whose paper may still go out. */
const OPEN = "('making', 'ready', 'sending', 'printing', 'unconfirmed')";

/** Whether a copy is in a run that is not over, as SQL. */
export const IN_A_RUN = `EXISTS (SELECT 1 FROM print_run_copy JOIN print_run ON print_run.id = print_run_copy.runId WHERE print_run_copy.copyId = copy.id AND print_run.state IN ${OPEN})`;

/** Copies that lie in a print run which is not over: mailed as well, they would arrive twice. */
export async function copiesInRuns(manager: EntityManager, ids: readonly number[]): Promise<{ id: number; code: string; run: number }[]> {
  return manager.query(
    `SELECT copy.id, copy.code, MIN(print_run.number) AS run FROM copy JOIN print_run_copy ON print_run_copy.copyId = copy.id JOIN print_run ON print_run.id = print_run_copy.runId
     WHERE copy.id IN (SELECT value FROM json_each(?)) AND print_run.state IN ${OPEN} GROUP BY copy.id`,
    [JSON.stringify(ids)],
  );
}

/** @throws MailbagError copy-in-print-run */
export async function assertInNoRun(manager: EntityManager, ids: readonly number[]): Promise<void> {
  const [found] = await copiesInRuns(manager, ids);
  if (found) throw new MailbagError('copy-in-print-run', { copy: found.code, run: found.run });
}
