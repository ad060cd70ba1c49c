import type { Finding, Severity, SourceRecord } from '@mailbag/core';
import { IsInt, IsOptional, IsString, MaxLength, MinLength } from 'class-validator';
import type { CorrectionAnswer } from './source.js';

/** Findings of one kind, counted. */
export interface FindingGroup {
  code: string;
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
