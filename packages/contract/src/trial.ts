import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsInt,
  IsNumber,
  IsString,
  Min,
  ValidateNested,
} from 'class-validator';
import { Nullable } from './nullable.js';

/** Records that are picked to be looked at, on the contact sheet or in a trial, at most. */
export const MOST_PICKED = 48;

/** Copies of some records, made to be looked at. */
export class TrialRequest {
  /** Places of the records among all, from 0. */
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(MOST_PICKED)
  @ArrayUnique()
  @IsInt({ each: true })
  @Min(0, { each: true })
  indexes!: number[];

  /** Whether their messages go to the person who asks. Nobody else gets any. */
  @IsBoolean()
  mailed!: boolean;
}

export class TrialCopy {
  /** Place in the trial, from 0. */
  @IsInt()
  number!: number;

  /** Of its record. */
  @IsInt()
  index!: number;

  @IsString()
  template!: string;

  @IsString()
  file!: string;

  /** Bytes. */
  @IsNumber()
  size!: number;

  /** What opens it; null: nothing is needed, or the account may not see it. */
  @Nullable()
  @IsString()
  openPassword!: string | null;
}

/** A record for which something could not be made or mailed. */
export class TrialFault {
  @IsInt()
  index!: number;

  @IsString()
  why!: string;
}

export class TrialMail {
  @IsString()
  address!: string;

  @IsInt()
  sent!: number;
}

/** What a trial made. It is no batch: neither the ledger nor any number counts it. */
export class TrialAnswer {
  @IsString()
  at!: string;

  @IsArray()
  @IsInt({ each: true })
  indexes!: number[];

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => TrialCopy)
  copies!: TrialCopy[];

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => TrialFault)
  faults!: TrialFault[];

  /** Null: it was not mailed. */
  @Nullable()
  @ValidateNested()
  @Type(() => TrialMail)
  mail!: TrialMail | null;
}

/** The trial of a mailing that the account has; null: none. */
export class CurrentTrialAnswer {
  @Nullable()
  @ValidateNested()
  @Type(() => TrialAnswer)
  trial!: TrialAnswer | null;
}
