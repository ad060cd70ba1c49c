import type { Said } from '@mailbag/core';
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsInt, IsOptional, IsString, MaxLength } from 'class-validator';

/** Why a copy goes on paper. */
export const paperReasons = ['no-address', 'bounced', 'asked'] as const;
export type PaperReason = (typeof paperReasons)[number];
export type PrintRunState = 'making' | 'ready' | 'sending' | 'printing' | 'printed' | 'failed' | 'cancelled' | 'unconfirmed';

/** Which copies are gathered. */
export class PrintRunRequest {
  @IsOptional()
  @IsInt()
  mailing?: number | null;

  @IsOptional()
  @IsInt()
  batch?: number | null;

  /** Those and no others, whatever became of them: single sheets again. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(10_000)
  @IsInt({ each: true })
  ids?: number[];

  @IsArray()
  @IsIn(paperReasons, { each: true })
  reasons!: PaperReason[];

  /** Both sides of a sheet: each copy begins on a sheet of its own. */
  @IsBoolean()
  duplex!: boolean;

  /** A sheet with the address for the window of an envelope in front of each recipient's copies. */
  @IsBoolean()
  addressSheets!: boolean;

  @IsOptional()
  @IsString()
  @MaxLength(80)
  name?: string;
}

/** What a print run would gather. */
export interface PaperWaiting {
  byReason: Record<PaperReason, number>;
  copies: number;
  recipients: number;
  /** Recipients whose record holds no postal address. */
  withoutPost: number;
  mailings: { id: number; name: string; copies: number }[];
}

export interface PrintRunSummary {
  id: number;
  number: number;
  name: string;
  state: PrintRunState;
  copies: number;
  recipients: number;
  sheets: number;
  pages: number;
  size: number;
  duplex: boolean;
  addressSheets: boolean;
  /** Copies that were left out because their record holds no postal address. */
  leftOut: number;
  printer: string | null;
  /** The printer's own words, or why it failed. */
  said: Said | null;
  who: string;
  createdAt: string;
  updatedAt: string;
}

export interface PrintRunDetail extends PrintRunSummary {
  sheetsOf: { copyId: number; code: string; recipient: string; postalCode: string; sheet: number; state: string; templateName: string }[];
}

export class PrintRequest {
  @IsInt()
  printerId!: number;
}
