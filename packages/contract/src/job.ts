import type { ErrorFields } from '@mailbag/core';

/** A job waits for its time, runs, or has failed; one that has come to its end is there no more, or waits for its next time. */
export type JobState = 'waiting' | 'running' | 'failed';

/** Something that Mailbag does by itself. */
export interface JobAnswer {
  id: number;
  kind: string;
  /** What it does. */
  title: string;
  /** What it is about; empty: there is but one. */
  subject: string;
  state: JobState;
  /** Who asked for it. */
  who: string;
  /** How far it is; both 0: it does not say. */
  done: number;
  total: number;
  /** Runs since it last came to its end. */
  attempts: number;
  /** Whether it runs again and again. */
  repeats: boolean;
  dueAt: string;
  startedAt: string | null;
  /** When its last run was over; null: it has had none. */
  finishedAt: string | null;
  /** Why its last run did not come to its end; null: it did. */
  error: { code: string; fields: ErrorFields; message: string } | null;
}

export interface JobsAnswer {
  counts: Record<JobState, number>;
  jobs: JobAnswer[];
}
