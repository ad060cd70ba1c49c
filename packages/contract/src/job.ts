import { Type } from 'class-transformer';
import { IsArray, IsBoolean, IsIn, IsNumber, IsObject, IsString, ValidateNested } from 'class-validator';
import { Nullable } from './nullable.js';
import type { ErrorFields } from '@mailbag/core';

/** A job waits for its time, runs, or has failed; one that has come to its end is there no more, or waits for its next time. */
export type JobState = 'waiting' | 'running' | 'failed';

/** Something that Mailbag does by itself. */
export class JobAnswer {
  @IsNumber()
  id!: number;

  @IsString()
  kind!: string;

  /** What it does. */
  @IsString()
  title!: string;

  /** What it is about; empty: there is but one. */
  @IsString()
  subject!: string;

  @IsIn(['failed', 'waiting', 'running'])
  state!: JobState;

  /** Who asked for it. */
  @IsString()
  who!: string;

  /** How far it is; both 0: it does not say. */
  @IsNumber()
  done!: number;

  @IsNumber()
  total!: number;

  /** Runs since it last came to its end. */
  @IsNumber()
  attempts!: number;

  /** Whether it runs again and again. */
  @IsBoolean()
  repeats!: boolean;

  @IsString()
  dueAt!: string;

  @Nullable()
  @IsString()
  startedAt!: string | null;

  /** When its last run was over; null: it has had none. */
  @Nullable()
  @IsString()
  finishedAt!: string | null;

  /** Why its last run did not come to its end; null: it did. */
  @Nullable()
  @IsObject()
  error!: { code: string; fields: ErrorFields; message: string } | null;
}

export class JobsAnswer {
  @IsObject()
  counts!: Record<JobState, number>;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => JobAnswer)
  jobs!: JobAnswer[];
}
