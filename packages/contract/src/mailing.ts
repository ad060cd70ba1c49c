import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsInt,
  IsOptional,
  IsString,
  Matches,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import type { BatchContext, Change, Clash } from '@mailbag/core';
import { OutputPlan, MessagePlan, MailingPlan } from './plan.js';
import type { SourceSummary } from './source.js';
import type { TemplateDetail } from './template.js';

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

/** What became of changes: the plan that is there now, and what could not be made. */
export interface MailingChangesAnswer extends MailingSaveAnswer {
  plan: MailingPlan;
  clashes: Clash[];
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

/** Who else has it open, each once; the same person in another window too. */
export interface HereAnswer {
  others: string[];
}

export class MailingCreateRequest {
  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name!: string;
}

export interface MailingSummary {
  id: number;
  name: string;
  templates: number;
  sourceId: number | null;
  sourceName: string | null;
  records: number;
  batches: number;
  updatedAt: string;
}

export interface MailingDetail {
  id: number;
  version: number;
  plan: MailingPlan;
  templates: TemplateDetail[];
  source: SourceSummary | null;
  batches: { id: number; number: number; state: string }[];
  /** What a batch that began now would be told. */
  next: BatchContext;
  updatedAt: string;
}

export interface MailingSaveAnswer {
  version: number;
  updatedAt: string;
}

/** The message of a mailing for one record, as it will go out. */
export interface MessageSample {
  from: string;
  to: string[];
  copyTo: string[];
  blindCopyTo: string[];
  subject: string;
  html: string;
  text: string;
  attachments: { name: string; size: number }[];
  /** Bytes of the whole message as it travels, and the most that the mail server is sent. */
  size: number;
  limit: number;
  /** Null: the record has none, or the person may not see it. */
  openPassword: string | null;
  /** Why this record is not mailed; null: it is. */
  fault: string | null;
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
export interface ReminderAnswer {
  out: number;
  due: number;
  reminded: number;
}
