import { printRunStates } from '@mailbag/core';
import type { Detail } from '@mailbag/core';
import { ArrayMaxSize, IsArray, IsBoolean, IsIn, IsInt, IsNumber, IsObject, IsOptional, IsString, MaxLength } from 'class-validator';
import { Nullable } from './nullable.js';
import { IsDetail } from './is-detail.js';

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
export class PaperWaiting {
  @IsObject()
  byReason!: Record<PaperReason, number>;

  @IsNumber()
  copies!: number;

  @IsNumber()
  recipients!: number;

  /** Recipients whose record holds no postal address. */
  @IsNumber()
  withoutPost!: number;

  @IsArray()
  @IsObject({ each: true })
  mailings!: { id: number; name: string; copies: number }[];
}

export class PrintRunSummary {
  @IsNumber()
  id!: number;

  @IsNumber()
  number!: number;

  @IsString()
  name!: string;

  @IsIn(printRunStates)
  state!: PrintRunState;

  @IsNumber()
  copies!: number;

  @IsNumber()
  recipients!: number;

  @IsNumber()
  sheets!: number;

  @IsNumber()
  pages!: number;

  @IsNumber()
  size!: number;

  @IsBoolean()
  duplex!: boolean;

  @IsBoolean()
  addressSheets!: boolean;

  /** Copies that were left out because their record holds no postal address. */
  @IsNumber()
  leftOut!: number;

  @Nullable()
  @IsString()
  printer!: string | null;

  /** The printer's own words, or why it failed. */
  @Nullable()
  @IsDetail()
  detail!: Detail | null;

  @IsString()
  who!: string;

  @IsString()
  createdAt!: string;

  @IsString()
  updatedAt!: string;
}

export class PrintRunDetail extends PrintRunSummary {
  @IsArray()
  @IsObject({ each: true })
  sheetsOf!: { copyId: number; code: string; recipient: string; postalCode: string; sheet: number; state: string; templateName: string }[];
}

export class PrintRequest {
  @IsInt()
  printerId!: number;
}
