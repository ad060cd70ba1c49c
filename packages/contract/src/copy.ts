import type { CopyState, Finish, Trouble, Detail } from '@mailbag/core';
import { copyStates, troubles } from '@mailbag/core';
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
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { ChangedValue } from './survey.js';
import { Nullable } from './nullable.js';
import { IsDetail } from './is-detail.js';

export const ledgerSorts = ['newest', 'oldest', 'recipient', 'recipient-down', 'changed', 'changed-up'] as const;
export type LedgerSort = (typeof ledgerSorts)[number];

/** Which copies are meant. */
export class LedgerFilterQuery {
  @IsOptional()
  @IsIn([...copyStates])
  state?: CopyState;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  batch?: number;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  mailing?: number;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  template?: number;

  /** Where the trouble sits. */
  @IsOptional()
  @IsIn([...troubles])
  trouble?: Trouble;

  /** Days on which the copy last changed, from and to, both counted in. */
  @IsOptional()
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'A day is written like 2027-01-15.' })
  from?: string;

  @IsOptional()
  @Matches(/^\d{4}-\d{2}-\d{2}$/, { message: 'A day is written like 2027-01-15.' })
  to?: string;

  /** `yes`: those that wait for a print run. */
  @IsOptional()
  @IsIn(['yes'])
  paper?: 'yes';

  @IsOptional()
  @IsString()
  @MaxLength(200)
  text?: string;
}

export class LedgerQuery extends LedgerFilterQuery {
  @IsOptional()
  @IsIn([...ledgerSorts])
  sort?: LedgerSort;

  /** Id of the last copy of the page before. */
  @IsOptional()
  @Type(() => Number)
  @IsInt()
  before?: number;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(200)
  count?: number;
}

export const bulkActions = ['send-again', 'confirm-sent', 'to-paper', 'off-paper', 'withdraw'] as const;
export type BulkAction = (typeof bulkActions)[number];

/** The same with many copies: those that are named, or all that a filter finds. */
export class ManyCopiesRequest {
  @IsIn([...bulkActions])
  action!: BulkAction;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(100_000)
  @IsInt({ each: true })
  ids?: number[];

  @IsOptional()
  @ValidateNested()
  @Type(() => LedgerFilterQuery)
  filter?: LedgerFilterQuery;
}

export class ManyCopiesAnswer {
  /** Copies that were meant, and those with which it was done; the others were in no state for it. */
  @IsNumber()
  meant!: number;

  @IsNumber()
  done!: number;

  /** What takes it back, for the ids given; null: it cannot be taken back. */
  @Nullable()
  @IsObject()
  undo!: { action: BulkAction; ids: number[] } | null;
}

export class SavedViewRequest {
  @IsString()
  @MinLength(1, { message: 'Give the view a name.' })
  @MaxLength(60)
  name!: string;

  /** The filters as they stand in the address. */
  @IsString()
  @MaxLength(1000)
  filter!: string;
}

export class SavedView {
  @IsNumber()
  id!: number;

  @IsString()
  name!: string;

  @IsString()
  filter!: string;
}

export class SendAgainRequest {
  @IsString()
  @MaxLength(254)
  address!: string;
}

export class CopyRow {
  @IsNumber()
  id!: number;

  @IsString()
  code!: string;

  @IsString()
  recipient!: string;

  @IsString()
  address!: string;

  @IsString()
  file!: string;

  @IsIn(copyStates)
  state!: CopyState;

  @IsString()
  since!: string;

  @IsNumber()
  batchId!: number;

  @IsNumber()
  batchNumber!: number;

  @IsString()
  mailingName!: string;

  @IsString()
  templateName!: string;

  /** When the next try is due, for retrying copies. */
  @Nullable()
  @IsString()
  nextTryAt!: string | null;

  /** Where the trouble sits, and the enhanced code that says so (RFC 3463). */
  @Nullable()
  @IsIn(troubles)
  trouble!: Trouble | null;

  @Nullable()
  @IsString()
  troubleCode!: string | null;

  /** Whether it waits for a print run although it could be mailed. */
  @IsBoolean()
  wantsPaper!: boolean;
}

export class LedgerPage {
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => CopyRow)
  rows!: CopyRow[];

  @IsBoolean()
  more!: boolean;
}

export class LedgerCounts {
  @IsNumber()
  total!: number;

  @IsNumber()
  matching!: number;

  @IsObject()
  byState!: Record<string, number>;

  /** True: there are more than were counted; a search that finds very many is not counted to its end. */
  @IsBoolean()
  atLeast!: boolean;
}

export class CopyEventLine {
  @IsString()
  at!: string;

  @IsString()
  who!: string;

  @IsString()
  event!: string;

  @IsIn(copyStates)
  state!: CopyState;

  /** Why, or the server's own words. */
  @Nullable()
  @IsDetail()
  detail!: Detail | null;
}

/** Another copy of the same template for the same record. */
export class BesideCopyAnswer {
  @IsNumber()
  id!: number;

  @IsString()
  code!: string;

  /** Time at which its batch began. */
  @IsString()
  at!: string;

  /** Values that are others now; null: they are not known any more, or not told. */
  @Nullable()
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => ChangedValue)
  changed!: ChangedValue[] | null;
}

export class CopyDetail extends CopyRow {
  /** The copy before it, which it replaces; null: it is the first. */
  @Nullable()
  @ValidateNested()
  @Type(() => BesideCopyAnswer)
  replaces!: BesideCopyAnswer | null;

  /** The copy that replaces it; null: it is the last. */
  @Nullable()
  @ValidateNested()
  @Type(() => BesideCopyAnswer)
  replacedBy!: BesideCopyAnswer | null;

  @IsString()
  folder!: string;

  @IsNumber()
  size!: number;

  @IsNumber()
  pages!: number;

  @Nullable()
  @IsString()
  sha256!: string | null;

  @IsIn(['flattened', 'locked', 'open'])
  finish!: Finish;

  @IsNumber()
  row!: number;

  /** Null: this account does not show values. */
  @Nullable()
  @IsArray()
  @IsObject({ each: true })
  record!: { column: string; text: string }[] | null;

  @Nullable()
  @IsObject()
  metadata!: Record<string, string> | null;

  /** Whether a password opens it. */
  @IsBoolean()
  isProtected!: boolean;

  @IsArray()
  @IsObject({ each: true })
  printRuns!: { id: number; number: number; state: string; sheet: number }[];

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => CopyEventLine)
  events!: CopyEventLine[];

  @Nullable()
  @IsObject()
  delivery!: {
    id: number;
    address: string;
    state: string;
    attempts: number;
    messageId: string;
    detail: Detail | null;
    copies: number;
  } | null;
}

/** The password that opens a copy. */
export class CopyPassword {
  @IsString()
  password!: string;
}

/** A message as it was or will be handed over. */
export class MessageAnswer {
  @IsString()
  from!: string;

  @IsArray()
  @IsString({ each: true })
  to!: string[];

  @IsString()
  subject!: string;

  @IsString()
  html!: string;

  @IsString()
  text!: string;

  @IsArray()
  @IsString({ each: true })
  attachments!: string[];

  /** Whether it is composed to what was sent; null: that is not known. */
  @Nullable()
  @IsBoolean()
  isAsSent!: boolean | null;
}
