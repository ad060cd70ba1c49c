import type { AnswerChange } from '@mailbag/core';
import { Type } from 'class-transformer';
import { ArrayMaxSize, IsArray, IsIn, IsNumber, IsObject, IsString, ValidateNested } from 'class-validator';
import { Nullable } from './nullable.js';

/** What became of changes that a recipient made. */
export class SettleRequest {
  /** Columns whose change is taken over; the others are left aside. */
  @IsArray()
  @ArrayMaxSize(2000)
  @IsString({ each: true })
  accepted!: string[];
}

/** `none`: nobody wants one. `unknown`: the server was ended while it was sent, and it is not sent again. */
export const noticeStates = ['none', 'waiting', 'sending', 'sent', 'failed', 'unknown'] as const;
export type NoticeState = (typeof noticeStates)[number];

/** One submission, as it is listed. */
export class SubmissionLine {
  @IsNumber()
  id!: number;

  @IsString()
  number!: string;

  @IsString()
  receivedAt!: string;

  @IsString()
  language!: string;

  /** What it answered, by the columns of the source. */
  @IsObject()
  values!: Record<string, string>;

  /** Copies that were made of it. */
  @IsNumber()
  copies!: number;

  /** The copy whose personal link was answered; null: none. */
  @Nullable()
  @IsString()
  copyCode!: string | null;

  /** What it changes in the record of that copy. */
  @IsArray()
  @IsObject({ each: true })
  changes!: AnswerChange[];

  @IsIn(['none', 'open', 'accepted', 'refused'])
  settled!: 'none' | 'open' | 'accepted' | 'refused';

  /** Number of the answer that came in its place; null: none did. */
  @Nullable()
  @IsString()
  mendedBy!: string | null;

  /** What became of the office's notice of it; see `NoticeState`. */
  @IsIn(noticeStates)
  notice!: NoticeState;
}

/** A copy that was made of an answer. */
export class SubmissionCopy {
  @IsNumber()
  id!: number;

  @IsString()
  template!: string;

  @IsNumber()
  pages!: number;
}

/** The link at which a visitor mends their answer. */
export class AskedBackAnswer {
  @IsString()
  number!: string;

  @IsString()
  link!: string;

  /** For which it holds. */
  @IsNumber()
  days!: number;
}

export class SubmissionsAnswer {
  @IsNumber()
  total!: number;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => SubmissionLine)
  lines!: SubmissionLine[];
}
