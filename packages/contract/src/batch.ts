export type BatchState = 'planning' | 'making' | 'sending' | 'done' | 'paused' | 'cancelled';

export interface BatchSummary {
  id: number;
  number: number;
  mailingId: number;
  mailingName: string;
  state: BatchState;
  /** What it was doing when it was paused. */
  records: number;
  copies: number;
  planned: number;
  mailed: boolean;
  /** Copies by state. */
  counts: Record<string, number>;
  /** Why it is paused; null: nothing went wrong. */
  error: { code: string; message: string; fields?: Record<string, unknown> } | null;
  /** Names of its combined files. */
  combined: string[];
  /** Why what is queued waits, in a sentence; null: it does not. */
  waiting: string | null;
  startedAt: string;
  finishedAt: string | null;
  /** Copies made a second in the last stretch; 0: not running. */
  pace: number;
}
