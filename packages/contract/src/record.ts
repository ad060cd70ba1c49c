import type { SourceRecord } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNotEmpty,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  MaxLength,
  ValidateNested,
} from 'class-validator';

/** A value that was changed in Mailbag. */
export class CorrectionAnswer {
  @IsNumber()
  id!: number;

  @IsNumber()
  row!: number;

  @IsString()
  recordKey!: string;

  @IsString()
  column!: string;

  /** As the source has it. */
  @IsString()
  was!: string;

  @IsString()
  value!: string;

  /** `active`: it holds; `fulfilled`: the source has it by now; `unfit`: the source has another value by now; `undone`. */
  @IsIn(['active', 'fulfilled', 'unfit', 'undone'])
  state!: 'active' | 'fulfilled' | 'unfit' | 'undone';

  @IsString()
  who!: string;

  @IsString()
  at!: string;

  /** Corrections that were made together. */
  @IsString()
  step!: string;
}

export class CorrectionRequest {
  @IsInt()
  row!: number;

  @IsString()
  @MaxLength(300)
  column!: string;

  @IsString()
  @MaxLength(10_000)
  value!: string;
}

/** Values that are changed at once, such as those that were pasted. */
export class CorrectionsRequest {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(10_000)
  @ValidateNested({ each: true })
  @Type(() => CorrectionRequest)
  changes!: CorrectionRequest[];
}

/** What is found in the cells of a source, and what is put in its place. */
export class ReplaceRequest {
  @IsString()
  @IsNotEmpty()
  @MaxLength(300)
  find!: string;

  @IsString()
  @MaxLength(300)
  replace!: string;

  /** The column that is looked through; null: all. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  column!: string | null;

  /** Only where it is all that a cell holds. */
  @IsBoolean()
  isWhole!: boolean;
}

export const recordKinds = ['corrected', 'empty', 'filled'] as const;
export type RecordKind = (typeof recordKinds)[number];

/** In which order records are seen, and which of them. */
export class RecordViewQuery {
  /** The column by which they are ordered; left out: as the source has them. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  order?: string;

  @IsOptional()
  @IsIn(['yes'])
  down?: 'yes';

  /** The column that the other conditions look at; left out: any. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  column?: string;

  /** Cells that hold this text. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  text?: string;

  /** Records with a corrected value, or with an empty one or none in the column. */
  @IsOptional()
  @IsIn([...recordKinds])
  only?: RecordKind;
}

/** Places of records, in the order in which they are seen. */
export class RecordViewAnswer {
  @IsArray()
  @IsInt({ each: true })
  ordinals!: number[];
}

/** Records by their places. */
export class RecordsAtQuery {
  /** Places from 0, with commas. */
  @IsString()
  @MaxLength(4000)
  @Matches(/^\d{1,9}(,\d{1,9})*$/)
  at!: string;
}

/** A page of records. `index` counts from 0 through all of them. */
export class RecordsAnswer {
  @IsNumber()
  from!: number;

  @IsNumber()
  total!: number;

  @IsArray()
  @IsObject({ each: true })
  records!: SourceRecord[];

  /** Corrections that hold for these records. */
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => CorrectionAnswer)
  corrections!: CorrectionAnswer[];
}
