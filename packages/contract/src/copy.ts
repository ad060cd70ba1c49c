import type { CopyState, Finish, Trouble, Said } from '@mailbag/core';
import { copyStates, troubles } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';

export const ledgerSorts = ['newest', 'oldest', 'recipient', 'changed'] as const;
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

export interface ManyCopiesAnswer {
  /** Copies that were meant, and those with which it was done; the others were in no state for it. */
  meant: number;
  done: number;
  /** What takes it back, for the ids given; null: it cannot be taken back. */
  undo: { action: BulkAction; ids: number[] } | null;
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

export interface SavedView {
  id: number;
  name: string;
  filter: string;
}

export class SendAgainRequest {
  @IsString()
  @MaxLength(254)
  address!: string;
}

export interface CopyRow {
  id: number;
  code: string;
  recipient: string;
  address: string;
  file: string;
  state: CopyState;
  since: string;
  batchId: number;
  batchNumber: number;
  mailingName: string;
  templateName: string;
  /** When the next try is due, for retrying copies. */
  nextTryAt: string | null;
  /** Where the trouble sits, and the enhanced code that says so (RFC 3463). */
  trouble: Trouble | null;
  troubleCode: string | null;
  /** Whether it waits for a print run although it could be mailed. */
  wantsPaper: boolean;
}

export interface LedgerPage {
  rows: CopyRow[];
  more: boolean;
}

export interface LedgerCounts {
  total: number;
  matching: number;
  byState: Record<string, number>;
  /** True: there are more than were counted; a search that finds very many is not counted to its end. */
  atLeast: boolean;
}

export interface CopyEventLine {
  at: string;
  who: string;
  event: string;
  state: CopyState;
  /** Why, or the server's own words. */
  said: Said | null;
}

export interface CopyDetail extends CopyRow {
  folder: string;
  size: number;
  pages: number;
  sha256: string | null;
  finish: Finish;
  row: number;
  /** Null: this account does not show values. */
  record: { column: string; text: string }[] | null;
  metadata: Record<string, string> | null;
  /** Whether a password opens it. */
  isProtected: boolean;
  printRuns: { id: number; number: number; state: string; sheet: number }[];
  events: CopyEventLine[];
  delivery: { id: number; address: string; state: string; attempts: number; messageId: string; said: Said | null; copies: number } | null;
}
