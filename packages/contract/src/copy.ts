import type { CopyState, Finish } from '@mailbag/core';
import { IsIn, IsInt, IsOptional, IsString, Max, MaxLength, Min } from 'class-validator';
import { Type } from 'class-transformer';
import { copyStates } from '@mailbag/core';

/** What the ledger is asked for. */
export class LedgerQuery {
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

  @IsOptional()
  @IsString()
  @MaxLength(200)
  text?: string;

  /** Id of the last copy of the page before; copies come newest first. */
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
}

export interface LedgerPage {
  rows: CopyRow[];
  more: boolean;
}

export interface LedgerCounts {
  total: number;
  matching: number;
  byState: Record<string, number>;
}

export interface CopyEventLine {
  at: string;
  who: string;
  event: string;
  state: CopyState;
  /** Why, or the server's own words. */
  said: string | null;
}

export interface CopyDetail extends CopyRow {
  folder: string;
  size: number;
  pages: number;
  sha256: string | null;
  finish: Finish;
  row: number;
  record: { column: string; text: string }[];
  events: CopyEventLine[];
  delivery: { id: number; address: string; state: string; attempts: number; messageId: string; said: string | null; copies: number } | null;
}
