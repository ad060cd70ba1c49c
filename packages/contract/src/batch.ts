import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsInt, IsOptional, Matches, Min } from 'class-validator';

/**
 * Who a batch is for: those who have no copy yet, those whose values changed since theirs, records that are named, or everybody, also those who have one.
 */
export const startChoices = ['new', 'changed', 'selection', 'everybody'] as const;
export type StartWho = (typeof startChoices)[number];

export class StartChoice {
  @IsIn([...startChoices])
  who!: StartWho;

  /** Rows of the records that are named. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(500_000)
  @IsInt({ each: true })
  rows?: number[];
}

/** Asks who would run. Without a choice: those who have none yet. */
export class StartPreviewRequest {
  /** False: a database was read a moment ago and need not be read again. */
  @IsOptional()
  @IsBoolean()
  reread?: boolean;

  @IsOptional()
  @IsIn([...startChoices])
  who?: StartWho;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(500_000)
  @IsInt({ each: true })
  rows?: number[];
}

/** Begins a batch over those who were shown. */
export class BatchStartRequest extends StartChoice {
  /** Of what was shown; another one means that something has changed since. */
  @Matches(/^[0-9a-f]{64}$/)
  digest!: string;

  /** Of the plan that was shown. */
  @IsInt()
  @Min(0)
  version!: number;

  /** One for each wish to start: the same request again begins nothing more. */
  @Matches(/^[\w-]{16,64}$/)
  startKey!: string;

  /** The number of recipients, typed by whoever mails some of them again. */
  @IsOptional()
  @IsInt()
  confirmation?: number;
}

/**
 * Records by what becomes of them. `mailed`, `paper` and `no-address` are parts of `runs`; `again`: those among them who have a copy already.
 */
export const startGroups = [
  'runs',
  'mailed',
  'paper',
  'no-address',
  'again',
  'stop',
  'left-out',
  'has-one',
  'none-yet',
  'unchanged',
  'not-selected',
] as const;
export type StartGroup = (typeof startGroups)[number];

/** What a batch would do, before it begins. */
export interface StartPreview {
  who: StartWho;
  digest: string;
  version: number;
  mailed: boolean;
  records: number;
  copies: number;
  counts: Record<StartGroup, number>;
  /** How many each choice means. */
  sizes: { new: number; changed: number; everybody: number };
  /** Numbers of batches of which it is not known any more who they were for. */
  unknownBatches: number[];
  /** Null: records are known again by their rows only. */
  keyColumn: string | null;
  /** Fields without a rule, which stay as the form has them. */
  unmapped: { template: string; field: string; label: string }[];
  /** Place of the first record that is mailed, for its message; null: none is. */
  firstMailed: number | null;
  /** ISO 8601 time before which nothing is sent; null: at once. */
  startAt: string | null;
}

/** A record as it is listed: its place, its row in the source, and what tells it from others. */
export interface ListedRecord {
  index: number;
  row: number;
  key: string;
  address: string;
  about: string;
}

/** Records behind one of the numbers. */
export interface StartList {
  total: number;
  rows: ListedRecord[];
}

/** Records that a search or a filter finds. */
export interface MatchingRecords {
  /** Rows of all of them. */
  rows: number[];
  /** The first of them. */
  shown: ListedRecord[];
}

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
