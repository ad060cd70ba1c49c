import type { JobState } from '@mailbag/contract';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { changed, one, rows, run } from '../persistence/sql.js';

/** A job as it is kept; times in milliseconds since 1970. */
export interface JobRow {
  id: number;
  kind: string;
  /** What of its kind it is about; one job of a kind has it. */
  key: string;
  /** What it is about, for people. */
  subject: string;
  state: JobState;
  /** The greater goes first. */
  priority: number;
  /** As JSON. */
  payload: string;
  who: string;
  /** Key of who asked. */
  principal: string;
  /** Milliseconds between its runs; null: it runs once. */
  everyMs: number | null;
  dueAt: number;
  /** Runs since it last came to its end. */
  attempts: number;
  /** 1: it was asked for once more while it ran. */
  again: number;
  done: number;
  total: number;
  /** Who runs it; null: nobody. */
  lease: string | null;
  leaseUntil: number | null;
  /** Why it did not come to its end the last time, as JSON; null: it did. */
  error: string | null;
  startedAt: number | null;
  finishedAt: number | null;
  createdAt: number;
}
export type NewJob = Pick<JobRow, 'kind' | 'key' | 'subject' | 'priority' | 'payload' | 'who' | 'principal' | 'everyMs' | 'dueAt'>;

/** Waits and is due. One that repeats is never further ahead than its time: the clock may have been set back. */
const DUE = "(state = 'waiting' AND (dueAt <= ? OR (everyMs IS NOT NULL AND dueAt > ? + everyMs)))";

const ADD =
  "INSERT INTO job (kind, key, subject, state, priority, payload, who, principal, everyMs, dueAt, attempts, again, done, total, createdAt) VALUES (?, ?, ?, 'waiting', ?, ?, ?, ?, ?, ?, 0, 0, 0, 0, ?)";
const valuesOf = (job: NewJob, now: number): unknown[] => [
  job.kind,
  job.key,
  job.subject,
  job.priority,
  job.payload,
  job.who,
  job.principal,
  job.everyMs,
  job.dueAt,
  now,
];

export const jobStore = {
  /** Adds a job, or asks for the one with its key once more: one that waits is due then, one that runs runs again afterwards. */
  add: (sql: Sql, job: NewJob, now: number) =>
    run(
      sql,
      `${ADD}
       ON CONFLICT (kind, key) DO UPDATE SET subject = excluded.subject, priority = excluded.priority, payload = excluded.payload, who = excluded.who, principal = excluded.principal, everyMs = COALESCE(excluded.everyMs, job.everyMs),
         dueAt = excluded.dueAt, again = CASE WHEN job.state = 'running' THEN 1 ELSE 0 END, state = CASE WHEN job.state = 'running' THEN 'running' ELSE 'waiting' END, attempts = CASE WHEN job.state = 'running' THEN job.attempts ELSE 0 END`,
      valuesOf(job, now),
    ),

  /** Repeats a job from now on; one that is there already keeps its time. */
  repeat: (sql: Sql, job: NewJob, now: number) =>
    run(
      sql,
      `${ADD}
       ON CONFLICT (kind, key) DO UPDATE SET everyMs = excluded.everyMs, state = CASE WHEN job.state = 'failed' THEN 'waiting' ELSE job.state END`,
      valuesOf(job, now),
    ),

  /** Has a job run soon. @returns how many there are */
  soon: (sql: Sql, kind: string, key: string, now: number) =>
    changed(
      sql,
      "UPDATE job SET dueAt = ?, again = CASE WHEN state = 'running' THEN 1 ELSE 0 END WHERE kind = ? AND key = ? AND state <> 'failed'",
      [now, kind, key],
    ),

  /** What failed is tried once more. */
  tryAgain: (sql: Sql, id: number, now: number) =>
    changed(sql, "UPDATE job SET state = 'waiting', dueAt = ?, attempts = 0 WHERE id = ? AND state <> 'running'", [now, id]),

  /** What can be claimed now, the most urgent first: what is due, and what somebody left lying. */
  due: (sql: Sql, now: number, limit: number) =>
    rows<JobRow>(
      sql,
      `SELECT * FROM job WHERE ${DUE} OR (state = 'running' AND leaseUntil < ?) ORDER BY priority DESC, dueAt, id LIMIT ?`,
      [now, now, now, limit],
    ),

  /** @returns it as it was claimed; undefined: it was not there to be claimed any more */
  claim: (sql: Sql, { id, lease }: Pick<JobRow, 'id' | 'lease'>, mine: string, until: number, now: number) =>
    one<JobRow>(
      sql,
      `UPDATE job SET state = 'running', lease = ?, leaseUntil = ?, attempts = attempts + 1, again = 0, done = 0, total = 0, startedAt = ? WHERE id = ? AND state <> 'failed' AND lease IS NOT DISTINCT FROM ? RETURNING *`,
      [mine, until, now, id, lease],
    ),

  /** @param ids of those that run: one whose end could not be written down is nobody's when its lease is over */
  renew: (sql: Sql, mine: string, ids: readonly number[], until: number) =>
    run(sql, `UPDATE job SET leaseUntil = ? WHERE lease = ? AND state = 'running' AND id ${dialect.inIds}`, [
      until,
      mine,
      JSON.stringify(ids),
    ]),

  setProgress: (sql: Sql, id: number, done: number, total: number) =>
    run(sql, 'UPDATE job SET done = ?, total = ? WHERE id = ?', [done, total, id]),

  /** What was begun by somebody who is gone waits again. */
  releaseAll: (sql: Sql) => run(sql, "UPDATE job SET state = 'waiting', lease = NULL, leaseUntil = NULL WHERE state = 'running'"),

  /** What somebody has begun and leaves to the next one: that it was begun does not count. */
  leaveAll: (sql: Sql, mine: string, now: number) =>
    run(
      sql,
      "UPDATE job SET state = 'waiting', lease = NULL, leaseUntil = NULL, attempts = attempts - 1, dueAt = ? WHERE lease = ? AND state = 'running'",
      [now, mine],
    ),

  byKey: (sql: Sql, kind: string, key: string) => one<JobRow>(sql, 'SELECT * FROM job WHERE kind = ? AND key = ?', [kind, key]),

  byId: (sql: Sql, id: number) => one<JobRow>(sql, 'SELECT * FROM job WHERE id = ?', [id]),

  /** A run is over and the job waits for its next one. @param error why the run did not come to its end, as JSON; null: it did */
  wait: (sql: Sql, id: number, dueAt: number, error: string | null, now: number, attempts: number) =>
    run(
      sql,
      "UPDATE job SET state = 'waiting', lease = NULL, leaseUntil = NULL, again = 0, dueAt = ?, error = ?, finishedAt = ?, attempts = ? WHERE id = ?",
      [dueAt, error, now, attempts, id],
    ),

  fail: (sql: Sql, id: number, error: string, now: number) =>
    run(sql, "UPDATE job SET state = 'failed', lease = NULL, leaseUntil = NULL, again = 0, error = ?, finishedAt = ? WHERE id = ?", [
      error,
      now,
      id,
    ]),

  drop: (sql: Sql, id: number) => run(sql, 'DELETE FROM job WHERE id = ?', [id]),

  dropOf: (sql: Sql, kind: string, key: string) =>
    run(sql, "DELETE FROM job WHERE kind = ? AND key = ? AND state <> 'running'", [kind, key]),

  /** When the next one is due; null: none waits. */
  nextAt: async (sql: Sql) => (await one<{ at: number | null }>(sql, "SELECT MIN(dueAt) AS at FROM job WHERE state = 'waiting'"))!.at,

  /** What runs, what has failed, what waits. */
  list: (sql: Sql, maximum: number) =>
    rows<JobRow>(sql, "SELECT * FROM job ORDER BY CASE state WHEN 'running' THEN 0 WHEN 'failed' THEN 1 ELSE 2 END, dueAt, id LIMIT ?", [
      maximum,
    ]),

  counts: (sql: Sql) => rows<{ state: JobState; count: number }>(sql, 'SELECT state, COUNT(*) AS count FROM job GROUP BY state'),
};
