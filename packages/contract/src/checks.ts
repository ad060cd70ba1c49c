import { Type } from 'class-transformer';
import type { Finding, Severity, SourceRecord } from '@mailbag/core';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { Nullable } from './nullable.js';
import { CorrectionAnswer } from './record.js';

/** Looks that are accepted in one go: as many as a list that somebody has gone through may hold. */
const MOST_ACCEPTED = 50_000;

/** Findings of one kind, counted. */
export class FindingGroup {
  @IsString()
  code!: string;

  @IsIn(['stop', 'look'])
  severity!: Severity;

  @IsNumber()
  findings!: number;

  @IsNumber()
  records!: number;

  /** Findings for which a mend is proposed, and looks that a person has accepted. */
  @IsNumber()
  mends!: number;

  @IsNumber()
  accepted!: number;
}

/** What the checks say of all records. */
export class ChecksAnswer {
  /** True when the findings hold for the mailing as it is now. */
  @IsBoolean()
  current!: boolean;

  /** Records that running checks have seen so far. */
  @IsNumber()
  progress!: number;

  /** True when there is something to check: templates and records. */
  @IsBoolean()
  possible!: boolean;

  @IsNumber()
  records!: number;

  @IsNumber()
  stopped!: number;

  @IsNumber()
  looked!: number;

  @IsNumber()
  leftOut!: number;

  /** Looks that a person has accepted. */
  @IsNumber()
  accepted!: number;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => FindingGroup)
  groups!: FindingGroup[];

  @Nullable()
  @IsString()
  error!: string | null;
}

/** What findings can be ordered by. */
export const findingSorts = ['row', 'kind', 'column', 'value'] as const;
export type FindingSort = (typeof findingSorts)[number];

/** Which findings are wanted, and in which order. */
export class FindingsFilterQuery {
  @IsOptional()
  @IsString()
  @MaxLength(40)
  code?: string;

  @IsOptional()
  @IsIn(['stop', 'look'])
  severity?: Severity;

  /** Looks that were accepted, in place of what is open. */
  @IsOptional()
  @IsIn(['yes'])
  accepted?: 'yes';

  /** Only those of records that hold this text. */
  @IsOptional()
  @IsString()
  @MaxLength(200)
  text?: string;

  @IsOptional()
  @IsIn([...findingSorts])
  sort?: FindingSort;

  /** From the last to the first. */
  @IsOptional()
  @IsIn(['yes'])
  down?: 'yes';
}

export class FindingsQuery extends FindingsFilterQuery {
  @Type(() => Number)
  @IsInt()
  @Min(0)
  from!: number;

  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(500)
  count!: number;
}

export class FindingsAnswer {
  @IsNumber()
  total!: number;

  @IsArray()
  @IsObject({ each: true })
  items!: { finding: Finding; record: SourceRecord; index: number; acceptance: AcceptanceAnswer | null }[];

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => CorrectionAnswer)
  corrections!: CorrectionAnswer[];
}

/** A look that a person has accepted. */
export class AcceptanceAnswer {
  @IsNumber()
  id!: number;

  @IsString()
  reason!: string;

  @IsString()
  who!: string;

  @IsString()
  at!: string;
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

/** What a check wants a person to look at: the finding of a record, by its row. */
export class LookRequest {
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
}

/** Looks that are right as they are, with one reason. */
export class AcceptRequest {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_ACCEPTED)
  @ValidateNested({ each: true })
  @Type(() => LookRequest)
  looks!: LookRequest[];

  @IsString()
  @MinLength(1, { message: 'Say in a word why this is right.' })
  @MaxLength(500)
  reason!: string;
}

/** Places of the records with findings among all records, from 0, in order. */
export class FlaggedAnswer {
  @IsArray()
  @IsNumber({}, { each: true })
  indexes!: number[];
}
