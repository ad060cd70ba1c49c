import type { AnswerValue, Change, SeenBox } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { Nullable } from './nullable.js';

/** A mailing that an intake is put before. */
export class IntakeBeforeMailing {
  @IsInt()
  mailingId!: number;

  /** Where people reach Mailbag, as an origin. */
  @IsString()
  @MaxLength(250)
  site!: string;
}

/** Answers with which an intake is tried, by the ids of its questions. */
export class IntakeTrialRequest {
  @IsObject()
  answers!: Record<string, AnswerValue>;

  /** Whether the visitor's message goes to the person who asks. Nobody else gets any. */
  @IsBoolean()
  mailed!: boolean;
}

/** A box on a page as a person sees it, in points from its left and upper edge. */
export class SeenBoxPlan implements SeenBox {
  @IsNumber()
  left!: number;

  @IsNumber()
  top!: number;

  @IsNumber()
  right!: number;

  @IsNumber()
  bottom!: number;
}

/** A box that is drawn on a form for a signature, initials or a picture. */
export class IntakeBoxRequest {
  /** Id of the question whose answer stands in it; null: a signature is asked for it. */
  @Nullable()
  @IsString()
  question!: string | null;

  /** Id of the template. */
  @IsInt()
  template!: number;

  /** 1-based. */
  @IsInt()
  @Min(1)
  page!: number;

  @ValidateNested()
  @Type(() => SeenBoxPlan)
  box!: SeenBoxPlan;

  /** Whether it stands at the same place of every page. */
  @IsBoolean()
  everyPage!: boolean;

  /** Whether the date stands beside it. */
  @IsBoolean()
  dated!: boolean;
}

export class IntakeCreateRequest {
  @IsString()
  @MinLength(1, { message: 'Give a name.' })
  @MaxLength(200)
  name!: string;

  /** Ids of the templates, in their order; none where it is put before a mailing. */
  @IsArray()
  @ArrayMaxSize(20)
  @ArrayUnique()
  @IsInt({ each: true })
  templates!: number[];

  /** The mailing whose records are known to the page, for personal links. Its packet is answered. */
  @IsOptional()
  @ValidateNested()
  @Type(() => IntakeBeforeMailing)
  before?: IntakeBeforeMailing;
}

/** The word by which an intake is reached: `/in/word`. */
export class IntakeWordRequest {
  @IsString()
  @MaxLength(80)
  word!: string;
}

/** Small changes of an intake, as core's `changesBetween` says them. */
export class IntakeChangesRequest {
  @IsArray()
  @ArrayMaxSize(50_000)
  changes!: Change[];
}
