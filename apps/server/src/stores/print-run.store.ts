import { storedDetail } from '@mailbag/core';
import type { Detail } from '@mailbag/core';
import type { PaperReason, PrintRunState } from '@mailbag/contract';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { changed, one, rows, run } from '../persistence/sql.js';
import { withRemarks } from './stored-remarks.js';
import type { Principal } from '../platform/principal.js';
import { principalKey } from '../platform/principal.js';

/** Print runs whose paper may still go out. */
const OPEN = "('making', 'ready', 'sending', 'printing', 'unconfirmed')";
/** Whether a copy is in a run that is not over, as SQL. */
/** A copy as print runs see it. */
export interface CopyInRun {
  id: number;
  code: string;
  batchId: number;
  recordOrdinal: number;
  position: number;
  recipient: string;
  templateName: string;
}
/** A copy that may go into a print run. */
export interface PaperCandidate extends CopyInRun {
  mailingId: number;
  mailingName: string;
  reason: PaperReason;
}
const CANDIDATE =
  'copy.id, copy.code, copy.batchId, copy.recordOrdinal, copy.position, copy.recipient, copy.templateName, copy.mailingId, copy.mailingName';

const IN_A_RUN = `EXISTS (SELECT 1 FROM print_run_copy JOIN print_run ON print_run.id = print_run_copy.runId WHERE print_run_copy.copyId = copy.id AND print_run.state IN ${OPEN})`;

export interface PrintRunRow {
  id: number;
  number: number;
  name: string;
  state: PrintRunState;
  /** As JSON. */
  options: string;
  copies: number;
  recipients: number;
  sheets: number;
  pages: number;
  size: number;
  printerId: number | null;
  jobId: number | null;
  detail: Detail | null;
  who: string;
  principal: string;
  createdAt: string;
  updatedAt: string;
}

export const printRunStore = {
  runsOfCopy: (sql: Sql, copyId: number) =>
    rows<{ id: number; number: number; state: string; sheet: number }>(
      sql,
      'SELECT print_run.id, print_run.number, print_run.state, print_run_copy.sheet FROM print_run_copy JOIN print_run ON print_run.id = print_run_copy.runId WHERE print_run_copy.copyId = ? ORDER BY print_run.id DESC',
      [copyId],
    ),

  inTrouble: (sql: Sql) =>
    withRemarks<{ number: number; detail: Detail | null }>(
      rows(sql, "SELECT number, detail FROM print_run WHERE state IN ('failed', 'unconfirmed') ORDER BY number"),
    ),

  openWith: (sql: Sql, ids: readonly number[]) =>
    rows<{ id: number; code: string; run: number }>(
      sql,
      `SELECT copy.id, copy.code, MIN(print_run.number) AS run FROM copy JOIN print_run_copy ON print_run_copy.copyId = copy.id JOIN print_run ON print_run.id = print_run_copy.runId
     WHERE copy.id ${dialect.inIds} AND print_run.state IN ${OPEN} GROUP BY copy.id`,
      [JSON.stringify(ids)],
    ),

  underWay: (sql: Sql) => withRemarks<PrintRunRow>(rows(sql, "SELECT * FROM print_run WHERE state IN ('making', 'sending', 'printing')")),

  printing: (sql: Sql, jobId: number, id: number) =>
    run(sql, "UPDATE print_run SET state = 'printing', jobId = ? WHERE id = ?", [jobId, id]),

  move: (sql: Sql, to: string, detail: Detail | null, now: string, id: number, from: string) =>
    changed(sql, 'UPDATE print_run SET state = ?, detail = ?, updatedAt = ? WHERE id = ? AND state = ?', [
      to,
      storedDetail(detail),
      now,
      id,
      from,
    ]),

  lastNumber: (sql: Sql) => one<{ number: number | null }>(sql, 'SELECT MAX(number) AS number FROM print_run'),

  candidates: (sql: Sql, runId: number) =>
    rows<CopyInRun>(
      sql,
      'SELECT copy.id, copy.code, copy.batchId, copy.recordOrdinal, copy.position, copy.recipient, copy.templateName FROM print_run_copy JOIN copy ON copy.id = print_run_copy.copyId WHERE print_run_copy.runId = ? ORDER BY print_run_copy.place',
      [runId],
    ),

  ready: (sql: Sql, sheets: number, pages: number, size: number, now: string, id: number) =>
    run(sql, "UPDATE print_run SET state = 'ready', sheets = ?, pages = ?, size = ?, updatedAt = ? WHERE id = ? AND state = 'making'", [
      sheets,
      pages,
      size,
      now,
      id,
    ]),

  setSheets: (sql: Sql, sheets: unknown, runId: number) =>
    run(
      sql,
      `WITH one AS MATERIALIZED (SELECT ${dialect.at('value', 0)} AS copyId, ${dialect.at('value', 1)} AS sheet FROM ${dialect.items('item')}) UPDATE print_run_copy SET sheet = one.sheet FROM one WHERE runId = ? AND print_run_copy.copyId = one.copyId`,
      [JSON.stringify(sheets), runId],
    ),

  one: async (sql: Sql, id: number) => (await withRemarks<PrintRunRow>(rows(sql, 'SELECT * FROM print_run WHERE id = ?', [id])))[0],

  latest: (sql: Sql) => withRemarks<PrintRunRow>(rows(sql, 'SELECT * FROM print_run ORDER BY number DESC LIMIT 100')),

  lines: (sql: Sql, runId: number) =>
    rows<{ copyId: number; code: string; recipient: string; postalCode: string; sheet: number; state: string; templateName: string }>(
      sql,
      'SELECT print_run_copy.copyId, copy.code, print_run_copy.recipient, print_run_copy.postalCode, print_run_copy.sheet, copy.state, copy.templateName FROM print_run_copy JOIN copy ON copy.id = print_run_copy.copyId WHERE print_run_copy.runId = ? ORDER BY print_run_copy.place LIMIT 5000',
      [runId],
    ),

  setPrinter: (sql: Sql, printerId: number, id: number) => run(sql, 'UPDATE print_run SET printerId = ? WHERE id = ?', [printerId, id]),

  accepted: (sql: Sql, jobId: number, id: number) =>
    run(sql, "UPDATE print_run SET state = 'printing', jobId = ?, detail = NULL WHERE id = ?", [jobId, id]),

  say: (sql: Sql, detail: Detail | null, id: number) =>
    run(sql, "UPDATE print_run SET detail = ? WHERE id = ? AND state = 'printing'", [storedDetail(detail), id]),

  printed: (sql: Sql, detail: Detail | null, now: string, id: number, from: string) =>
    changed(sql, "UPDATE print_run SET state = 'printed', detail = ?, updatedAt = ? WHERE id = ? AND state = ?", [
      storedDetail(detail),
      now,
      id,
      from,
    ]),

  copies: (sql: Sql, runId: number) =>
    rows<{ id: number; batchId: number; state: string }>(
      sql,
      'SELECT copy.id, copy.batchId, copy.state FROM print_run_copy JOIN copy ON copy.id = print_run_copy.copyId WHERE print_run_copy.runId = ?',
      [runId],
    ),

  atPrinter: (sql: Sql, printerId: number) =>
    one<{ number: number }>(sql, "SELECT number FROM print_run WHERE printerId = ? AND state IN ('sending', 'printing')", [printerId]),

  ofBatch: (sql: Sql, batchId: number) =>
    rows<{ runId: number }>(
      sql,
      'SELECT DISTINCT runId FROM print_run_copy JOIN copy ON copy.id = print_run_copy.copyId WHERE copy.batchId = ?',
      [batchId],
    ),

  open: (sql: Sql) =>
    one<{ count: number }>(
      sql,
      "SELECT COUNT(*) AS count FROM print_run WHERE state IN ('making', 'ready', 'sending', 'printing', 'unconfirmed')",
    ),

  /** @returns the id of a new one, which is being put together */
  add: async (
    sql: Sql,
    run: { number: number; name: string; options: unknown; copies: number; recipients: number; who: Principal; createdAt: string },
  ) =>
    (await one<{ id: number }>(
      sql,
      "INSERT INTO print_run (number, name, state, options, copies, recipients, sheets, pages, size, who, principal, createdAt, updatedAt) VALUES (?, ?, 'making', ?, ?, ?, 0, 0, 0, ?, ?, ?, ?) RETURNING id",
      [
        run.number,
        run.name,
        JSON.stringify(run.options),
        run.copies,
        run.recipients,
        run.who.name,
        principalKey(run.who),
        run.createdAt,
        run.createdAt,
      ],
    ))!.id,

  /** Lays copies into a run, in the order of the list. */
  addCopies: (sql: Sql, runId: number, copies: readonly { id: number; recipient: string; postalCode: string }[]) =>
    run(
      sql,
      `INSERT INTO print_run_copy (runId, copyId, place, recipient, postalCode, sheet)
       SELECT ?, ${dialect.at('value', 'id')}, key, ${dialect.at('value', 'recipient')}, ${dialect.at('value', 'postalCode')}, 0 FROM ${dialect.items('item')}`,
      [runId, JSON.stringify(copies)],
    ),

  /** Copies that are gathered for a print run because they were chosen. */
  chosenForPaper: (sql: Sql, ids: readonly number[]) =>
    rows<PaperCandidate>(
      sql,
      `SELECT ${CANDIDATE}, 'asked' AS reason FROM copy WHERE id ${dialect.inIds} AND state IN ('made', 'bounced', 'printed') ORDER BY batchId, recordOrdinal, position`,
      [JSON.stringify(ids)],
    ),

  /**
   * Copies that wait for paper, and why: bounced, asked for, or made for a mailing although nobody can be mailed. Those of batches that still run are
   * left out, since what is made may be about to be queued; so are those of a run that is not over.
   */
  gathered: (sql: Sql, of: { batch?: number | null | undefined; mailing?: number | null | undefined }) =>
    rows<PaperCandidate>(
      sql,
      `SELECT ${CANDIDATE},
         CASE WHEN copy.wantsPaper = 1 THEN 'asked' WHEN copy.state = 'bounced' THEN 'bounced' WHEN copy.state = 'made' AND copy.deliveryId IS NULL AND batch.mailed = 1 THEN 'no-address' END AS reason
       FROM copy JOIN batch ON batch.id = copy.batchId
       WHERE copy.state IN ('made', 'bounced') AND (copy.wantsPaper = 1 OR copy.state = 'bounced' OR (copy.deliveryId IS NULL AND batch.mailed = 1)) AND batch.state NOT IN ('planning', 'making')
         AND NOT ${IN_A_RUN}${of.batch ? ' AND copy.batchId = ?' : of.mailing ? ' AND copy.mailingId = ?' : ''} ORDER BY copy.batchId, copy.recordOrdinal, copy.position`,
      of.batch ? [of.batch] : of.mailing ? [of.mailing] : [],
    ),

  /** How many of some copies are in a run that is not over, and how many cannot go to paper. */
  takenElsewhere: async (sql: Sql, ids: readonly number[]) =>
    (await one<{ inRuns: number; elsewhere: number }>(
      sql,
      `SELECT COUNT(*) FILTER (WHERE ${IN_A_RUN}) AS inRuns, COUNT(*) FILTER (WHERE state NOT IN ('made', 'bounced', 'printed')) AS elsewhere FROM copy WHERE id ${dialect.inIds}`,
      [JSON.stringify(ids)],
    ))!,
};
