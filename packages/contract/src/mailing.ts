import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { Nullable } from './nullable.js';
import type { BatchContext, Change, Clash } from '@mailbag/core';
import { OutputPlan, MessagePlan, MailingPlan } from './plan.js';
import { SourceSummary } from './source.js';
import { TemplateDetail } from './template.js';

export class MailingSaveRequest {
  /** The version that was changed; another one is refused. */
  @IsInt()
  @Min(0)
  version!: number;

  @ValidateNested()
  @Type(() => MailingPlan)
  plan!: MailingPlan;
}

/** Small changes of a plan, as core's `changesBetween` says them; made in whatever version is there. */
export class MailingChangesRequest {
  @IsArray()
  @ArrayMaxSize(50_000)
  changes!: Change[];
}

export class MailingSaveAnswer {
  @IsNumber()
  version!: number;

  @IsString()
  updatedAt!: string;
}

/** What became of changes: the plan that is there now, and what could not be made. */
export class MailingChangesAnswer extends MailingSaveAnswer {
  @ValidateNested()
  @Type(() => MailingPlan)
  plan!: MailingPlan;

  @IsArray()
  @IsObject({ each: true })
  clashes!: Clash[];
}

/** A window in which a mailing is open. */
export class HereRequest {
  @Matches(/^[\w-]{8,64}$/)
  window!: string;

  /** The window is being closed. */
  @IsOptional()
  @IsBoolean()
  leaves?: boolean;
}

/** Who else has it open. */
export class HereAnswer {
  /** Names of other people, each once. */
  @IsArray()
  @IsString({ each: true })
  others!: string[];

  /** The same person has it open in another window too. */
  @IsBoolean()
  elsewhere!: boolean;
}

export class MailingCreateRequest {
  @IsString()
  @MinLength(1, { message: 'Give a name.' })
  @MaxLength(200)
  name!: string;

  /** Id of an earlier mailing, whose packet, map, checks, output, message and accepted looks come along. Left out: it begins empty. */
  @IsOptional()
  @IsInt()
  from?: number;
}

export class MailingSummary {
  @IsNumber()
  id!: number;

  @IsString()
  name!: string;

  @IsNumber()
  templates!: number;

  @Nullable()
  @IsNumber()
  sourceId!: number | null;

  @Nullable()
  @IsString()
  sourceName!: string | null;

  @IsNumber()
  records!: number;

  @IsNumber()
  batches!: number;

  @IsString()
  updatedAt!: string;

  @IsBoolean()
  isArchived!: boolean;
}

/** What somebody changed of a mailing in one go. */
export class MailingChangeLine {
  @IsNumber()
  id!: number;

  @IsString()
  at!: string;

  /** Time of the last change of it. */
  @IsString()
  until!: string;

  @IsString()
  who!: string;

  /** Names of the parts. */
  @IsArray()
  @IsString({ each: true })
  parts!: string[];
}

export class MailingDetail {
  @IsNumber()
  id!: number;

  @IsNumber()
  version!: number;

  @ValidateNested()
  @Type(() => MailingPlan)
  plan!: MailingPlan;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => TemplateDetail)
  templates!: TemplateDetail[];

  @Nullable()
  @ValidateNested()
  @Type(() => SourceSummary)
  source!: SourceSummary | null;

  @IsArray()
  @IsObject({ each: true })
  batches!: { id: number; number: number; state: string }[];

  /** What a batch that began now would be told. */
  @IsObject()
  next!: BatchContext;

  @IsString()
  updatedAt!: string;
}

/** The message of a mailing for one record, as it will go out. */
export class MessageSample {
  @IsString()
  from!: string;

  @IsArray()
  @IsString({ each: true })
  to!: string[];

  @IsArray()
  @IsString({ each: true })
  copyTo!: string[];

  @IsArray()
  @IsString({ each: true })
  blindCopyTo!: string[];

  @IsString()
  subject!: string;

  @IsString()
  html!: string;

  @IsString()
  text!: string;

  @IsArray()
  @IsObject({ each: true })
  attachments!: { name: string; size: number }[];

  /** Bytes of the whole message as it travels, and the most that the mail server is sent. */
  @IsNumber()
  size!: number;

  @IsNumber()
  limit!: number;

  /** Null: the record has none, or the person may not see it. */
  @Nullable()
  @IsString()
  openPassword!: string | null;

  /** Why this record is not mailed; null: it is. */
  @Nullable()
  @IsString()
  fault!: string | null;
}

export class MessageSampleRequest {
  /** Place of the record among all, from 0. */
  @IsInt()
  @Min(0)
  index!: number;

  @IsOptional()
  @ValidateNested()
  @Type(() => MessagePlan)
  message?: MessagePlan;

  @IsOptional()
  @ValidateNested()
  @Type(() => OutputPlan)
  output?: OutputPlan;
}

export class TestMessageRequest {
  /** Place of the record among all, from 0. */
  @IsInt()
  @Min(0)
  index!: number;

  @IsEmail({}, { message: 'That is not an e-mail address.' })
  address!: string;
}

export class RemindRequest {
  /** Whether those are reminded too whose time has not come. */
  @IsBoolean()
  all!: boolean;
}

/** Recipients whose copies are out, those who are due for a reminder, those who had one. */
export class ReminderAnswer {
  @IsNumber()
  out!: number;

  @IsNumber()
  due!: number;

  @IsNumber()
  reminded!: number;
}
