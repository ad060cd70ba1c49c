import type { CheckPlan, FieldMap, Finding, FindingCode, Finish, Severity, SourceRecord } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsEmail,
  IsISO8601,
  IsIn,
  IsInt,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  Max,
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

  /** Pattern of the password that opens a copy; empty: it opens without. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  openPassword?: string;

  /** Pattern of the password that lifts the limits of use; empty: none is set. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  permissionsPassword?: string;

  /** Combined files that are made beside the single ones: one a batch, or one a template. */
  @IsOptional()
  @IsIn(['none', 'batch', 'template'])
  combined?: 'none' | 'batch' | 'template';

  /** Combined files for printing on both sides: each copy begins on a sheet of its own. */
  @IsOptional()
  @IsBoolean()
  duplex?: boolean;

  /** Columns whose values are written into the manifest, and can be searched by. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(50)
  @IsString({ each: true })
  metadata?: string[];
}

/** A file that goes along with every message. */
export class ExtraFile {
  /** SHA-256 of its bytes, in hexadecimal. */
  @Matches(/^[0-9a-f]{64}$/)
  fileId!: string;

  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name!: string;

  /** In bytes. */
  @IsInt()
  @Min(0)
  size!: number;
}

/** What is sent to those whose copy has not come back. */
export class ReminderPlan {
  @IsString()
  @MaxLength(500)
  subject!: string;

  @IsString()
  @MaxLength(20_000)
  body!: string;

  /** Days after sending until the first one. */
  @IsInt()
  @Min(1)
  @Max(365)
  afterDays!: number;

  /** How many at most, as far apart as the first. */
  @IsInt()
  @Min(1)
  @Max(10)
  most!: number;

  /** Whether they go out by themselves. */
  @IsBoolean()
  bySchedule!: boolean;

  /** Whether the copies go along again. */
  @IsBoolean()
  attach!: boolean;
}

/** Where the postal address of a record stands, as patterns. */
export class PaperPlan {
  @IsString()
  @MaxLength(500)
  name!: string;

  @IsString()
  @MaxLength(500)
  street!: string;

  @IsString()
  @MaxLength(300)
  postalCode!: string;

  @IsString()
  @MaxLength(300)
  town!: string;

  @IsString()
  @MaxLength(300)
  region!: string;

  /** Two letters (ISO 3166-1) or a pattern that gives them; empty: the office's own country. */
  @IsString()
  @MaxLength(300)
  country!: string;

  /** Who asks for paper: the column, and the values that say so. Null: nobody is asked. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  wantsColumn!: string | null;

  @IsArray()
  @ArrayMaxSize(20)
  @IsString({ each: true })
  wantsValues!: string[];
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

  /** `html`: the body is rich text; `text` where nothing is said. */
  @IsOptional()
  @IsIn(['text', 'html'])
  bodyFormat?: 'text' | 'html';

  /** Who it comes from; the first confirmed sender where nothing is said. */
  @IsOptional()
  @IsInt()
  senderId?: number | null;

  /** Whether a cell may hold several addresses. */
  @IsOptional()
  @IsBoolean()
  several?: boolean;

  /** Patterns of addresses that get it too, openly and blind. */
  @IsOptional()
  @IsString()
  @MaxLength(500)
  copyTo?: string;

  @IsOptional()
  @IsString()
  @MaxLength(500)
  blindCopyTo?: string;

  /** How the packet goes along: its files, one combined PDF, or one zip. */
  @IsOptional()
  @IsIn(['files', 'combined', 'zip'])
  attach?: 'files' | 'combined' | 'zip';

  @IsOptional()
  @ValidateNested({ each: true })
  @Type(() => ExtraFile)
  @ArrayMaxSize(10)
  extraFiles?: ExtraFile[];

  /** The sentence that tells how the attachment is opened, for copies with a password. */
  @IsOptional()
  @IsString()
  @MaxLength(500)
  passwordSentence?: string;

  /** ISO 8601 time before which nothing is sent. */
  @IsOptional()
  @IsISO8601()
  startAt?: string | null;

  @IsOptional()
  @ValidateNested()
  @Type(() => ReminderPlan)
  reminder?: ReminderPlan | null;
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

  /** How copies on paper are addressed; guessed from the columns where nothing is said. */
  @IsOptional()
  @ValidateNested()
  @Type(() => PaperPlan)
  paper?: PaperPlan | null;
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
