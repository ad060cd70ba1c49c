import type { CheckPlan, FieldMap, Finding, FindingCode, Finish, Severity, SourceRecord } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import type { CorrectionAnswer, SourceSummary } from './source.js';
import type { TemplateDetail } from './template.js';

/** Where copies are kept, how they are named, and what becomes of their fields. */
export class OutputPlan {
  @IsString()
  @MaxLength(500)
  folder!: string;

  @IsString()
  @MaxLength(500)
  file!: string;

  /** What becomes of the fields; flattened where nothing is said. */
  @IsOptional()
  @IsIn(['flattened', 'locked', 'open'] satisfies Finish[])
  finish?: Finish;
}

/** What the recipient gets. */
export class MessagePlan {
  /** False: copies are made and kept. */
  @IsBoolean()
  mailed!: boolean;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  addressColumn!: string | null;

  /** Pattern of the recipient's name. */
  @IsString()
  @MaxLength(500)
  recipient!: string;

  @IsString()
  @MaxLength(500)
  subject!: string;

  @IsString()
  @MaxLength(20_000)
  body!: string;
}

/** Everything of a mailing that a person decides. Saved as a whole; the steps of undo are whole plans. */
export class MailingPlan {
  @IsString()
  @MinLength(1, { message: 'A mailing needs a name.' })
  @MaxLength(200)
  name!: string;

  /** Ids of templates in their order. */
  @IsArray()
  @ArrayMaxSize(50)
  @ArrayUnique()
  @IsInt({ each: true })
  packet!: number[];

  @IsOptional()
  @IsInt()
  sourceId!: number | null;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  keyColumn!: string | null;

  /** Rules by template id and field name. */
  @IsObject()
  maps!: Record<string, FieldMap>;

  /** Rows of the sheet that are left out. */
  @IsArray()
  @IsInt({ each: true })
  leftOut!: number[];

  /** Checks that were set otherwise than proposed. */
  @IsOptional()
  @IsObject()
  checks?: CheckPlan;

  @ValidateNested()
  @Type(() => OutputPlan)
  output!: OutputPlan;

  @ValidateNested()
  @Type(() => MessagePlan)
  message!: MessagePlan;
}

export class MailingSaveRequest {
  /** The version that was changed; another one is refused. */
  @IsInt()
  @Min(0)
  version!: number;

  @ValidateNested()
  @Type(() => MailingPlan)
  plan!: MailingPlan;
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
  updatedAt: string;
}

export interface MailingSaveAnswer {
  version: number;
  updatedAt: string;
}

/** Findings of one kind, counted. */
export interface FindingGroup {
  code: FindingCode;
  severity: Severity;
  findings: number;
  records: number;
  /** Findings for which a mend is proposed, and looks that a person has accepted. */
  mends: number;
  accepted: number;
}

/** What the checks say of all records. */
export interface ChecksAnswer {
  /** True when the findings hold for the mailing as it is now. */
  current: boolean;
  /** Records that running checks have seen so far. */
  progress: number;
  /** True when there is something to check: templates and records. */
  possible: boolean;
  records: number;
  stopped: number;
  looked: number;
  leftOut: number;
  /** Looks that a person has accepted. */
  accepted: number;
  groups: FindingGroup[];
  error: string | null;
}

export interface FindingsAnswer {
  total: number;
  items: { finding: Finding; record: SourceRecord; index: number; acceptance: AcceptanceAnswer | null }[];
  corrections: CorrectionAnswer[];
}

/** A look that a person has accepted. */
export interface AcceptanceAnswer {
  id: number;
  reason: string;
  who: string;
  at: string;
}

/** Takes over the proposed mends of one kind, of all columns or of one. */
export class MendRequest {
  @IsString()
  @MaxLength(40)
  code!: string;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  column?: string;

  /** Only this record. */
  @IsOptional()
  @IsInt()
  row?: number;
}

export class AcceptRequest {
  @IsInt()
  row!: number;

  @IsString()
  @MaxLength(40)
  code!: string;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  column?: string | null;

  @IsOptional()
  @IsString()
  @MaxLength(1000)
  field?: string | null;

  @IsString()
  @MinLength(1, { message: 'Say in a word why this is right.' })
  @MaxLength(500)
  reason!: string;
}

/** Places of the records with findings among all records, from 0, in order. */
export interface FlaggedAnswer {
  indexes: number[];
}
