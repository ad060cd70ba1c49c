import { Type } from 'class-transformer';
import { IsArray, IsBoolean, IsIn, IsInt, IsNumber, IsObject, IsString, ValidateNested } from 'class-validator';
import type { FillRule, SourceRecord } from '@mailbag/core';
import { Nullable } from './nullable.js';

/** A value that a field takes, and for how many records. */
export class CountedValue {
  @IsString()
  value!: string;

  @IsInt()
  count!: number;

  /** Place of the first record that has it, from 0. */
  @IsInt()
  index!: number;
}

/** What a field takes over all records; see `FieldSurvey` of core. */
export class SurveyedField {
  /** Id of the template. */
  @IsInt()
  template!: number;

  @IsString()
  field!: string;

  @IsInt()
  empty!: number;

  @IsInt()
  stopped!: number;

  @IsInt()
  distinct!: number;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => CountedValue)
  values!: CountedValue[];

  @Nullable()
  @ValidateNested()
  @Type(() => CountedValue)
  longest!: CountedValue | null;
}

/** What the map of a mailing makes of all its records that are not left out. */
export class SurveyAnswer {
  @IsInt()
  records!: number;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => SurveyedField)
  fields!: SurveyedField[];
}

/** Records that a number of a survey counts. */
export class CountedRecordsAnswer {
  @IsInt()
  total!: number;

  /** The first of them. */
  @IsArray()
  @IsObject({ each: true })
  items!: { index: number; record: SourceRecord }[];
}

export const pickReasons = ['first', 'last', 'longest', 'emptiest', 'flagged', 'value', 'random'] as const;
export type PickReason = (typeof pickReasons)[number];

/** A record that is worth looking at, and why. */
export class PickedRecord {
  @IsInt()
  index!: number;

  @IsArray()
  @IsIn(pickReasons, { each: true })
  why!: PickReason[];

  /** The value of the chosen column for which it stands; null: for none. */
  @Nullable()
  @IsString()
  value!: string | null;

  @IsObject()
  record!: SourceRecord;
}

export class PicksAnswer {
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => PickedRecord)
  items!: PickedRecord[];

  /** How many there would be without the limit. */
  @IsNumber()
  total!: number;
}

/** How a field of a template of the packet was filled in an earlier mailing; see `Learned` of core. */
export class LearnedRule {
  /** Id of the template. */
  @IsInt()
  template!: number;

  @IsString()
  field!: string;

  @IsObject()
  rule!: FillRule;

  @IsString()
  mailing!: string;

  @IsBoolean()
  isSameForm!: boolean;
}

export class LearnedAnswer {
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => LearnedRule)
  items!: LearnedRule[];
}

/** A value that is another than it was in the last copy of its record. */
export class ChangedValue {
  @IsString()
  column!: string;

  @IsString()
  was!: string;

  @IsString()
  is!: string;
}

/** The last copy that a record got from a mailing, and what has changed since. */
export class LastCopyAnswer {
  /** Id of the copy; null: it has none yet. */
  @Nullable()
  @IsInt()
  copy!: number | null;

  /** Number of its batch. */
  @IsInt()
  batch!: number;

  @IsString()
  at!: string;

  /** False: what the values were is kept no more. */
  @IsBoolean()
  hasValues!: boolean;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => ChangedValue)
  changed!: ChangedValue[];
}
