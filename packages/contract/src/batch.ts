import { batchStates } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  Min,
  ValidateNested,
} from 'class-validator';
import { Nullable } from './nullable.js';
import { IsDetail } from './is-detail.js';
import type { Detail } from '@mailbag/core';

/**
 * Who a batch is for: those who have no copy yet, those whose values changed since theirs, records that are named, or everybody, also those who have one.
 */
export const startChoices = ['new', 'changed', 'selection', 'everybody'] as const;
export type StartWho = (typeof startChoices)[number];

export class StartChoice {
  @IsIn(startChoices)
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
export class StartPreview {
  @IsIn(startChoices)
  who!: StartWho;

  @IsString()
  digest!: string;

  @IsNumber()
  version!: number;

  @IsBoolean()
  mailed!: boolean;

  @IsNumber()
  records!: number;

  @IsNumber()
  copies!: number;

  @IsObject()
  counts!: Record<StartGroup, number>;

  /** How many each choice means. */
  @IsObject()
  sizes!: { new: number; changed: number; everybody: number };

  /** Numbers of batches of which it is not known any more who they were for. */
  @IsArray()
  @IsNumber({}, { each: true })
  unknownBatches!: number[];

  /** Null: records are known again by their rows only. */
  @Nullable()
  @IsString()
  keyColumn!: string | null;

  /** Fields without a rule, which stay as the form has them. */
  @IsArray()
  @IsObject({ each: true })
  unmapped!: { template: string; field: string; label: string }[];

  /** Place of the first record that is mailed, for its message; null: none is. */
  @Nullable()
  @IsNumber()
  firstMailed!: number | null;

  /** ISO 8601 time before which nothing is sent; null: at once. */
  @Nullable()
  @IsString()
  startAt!: string | null;
}

/** How long a batch would take and what it weighs, told from a few of its copies. */
export class StartEstimate {
  /** Of all copies. */
  @IsNumber()
  bytes!: number;

  /** Until all copies are made. */
  @IsNumber()
  makingSeconds!: number;

  /** Until all messages have left at the limits of the server; null: there is no limit, or nothing is mailed. -1: its hours never begin. */
  @Nullable()
  @IsNumber()
  sendingSeconds!: number | null;

  /** Name of the mail server; null: nothing is mailed. */
  @Nullable()
  @IsString()
  server!: string | null;
}

/** A record as it is listed: its place, its row in the source, and what tells it from others. */
export class ListedRecord {
  @IsNumber()
  index!: number;

  @IsNumber()
  row!: number;

  @IsString()
  key!: string;

  @IsString()
  address!: string;

  @IsString()
  about!: string;
}

/** Records behind one of the numbers. */
export class StartList {
  @IsNumber()
  total!: number;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => ListedRecord)
  rows!: ListedRecord[];
}

/** Records that a search or a filter finds. */
export class MatchingRecords {
  /** Rows of all of them. */
  @IsArray()
  @IsNumber({}, { each: true })
  rows!: number[];

  /** The first of them. */
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => ListedRecord)
  shown!: ListedRecord[];
}

export type BatchState = 'planning' | 'making' | 'sending' | 'done' | 'paused' | 'cancelled';

export class BatchSummary {
  @IsNumber()
  id!: number;

  @IsNumber()
  number!: number;

  @IsNumber()
  mailingId!: number;

  @IsString()
  mailingName!: string;

  @IsIn(batchStates)
  state!: BatchState;

  /** What it was doing when it was paused. */
  @IsNumber()
  records!: number;

  @IsNumber()
  copies!: number;

  @IsNumber()
  planned!: number;

  @IsBoolean()
  mailed!: boolean;

  /** Copies by state. */
  @IsObject()
  counts!: Record<string, number>;

  /** Why it is paused; null: nothing went wrong. */
  @Nullable()
  @IsObject()
  error!: { code: string; message: string; fields?: Record<string, unknown> } | null;

  /** Names of its combined files. */
  @IsArray()
  @IsString({ each: true })
  combined!: string[];

  /** Why what is queued waits; null: it does not. */
  @Nullable()
  @IsDetail()
  waiting!: Detail | null;

  @IsString()
  startedAt!: string;

  @Nullable()
  @IsString()
  finishedAt!: string | null;

  /** Copies made a second in the last stretch; 0: not running. */
  @IsNumber()
  pace!: number;
}
