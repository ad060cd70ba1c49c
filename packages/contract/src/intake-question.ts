import type { AnswerShape, Condition, FilledFrom, IntakeKind, IntakeQuestion, ShapePart } from '@mailbag/core';
import { intakeKinds, shapeLimits } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { IsFilledFrom } from './is-filled-from.js';
import { Nullable } from './nullable.js';

/** An option of a question. */
export class IntakeOptionPlan {
  @IsString()
  @MaxLength(300)
  value!: string;

  @IsString()
  @MaxLength(300)
  say!: string;
}

/** See core's `ShapePart`. */
export class ShapePartPlan implements ShapePart {
  @IsIn(['letters', 'digits', 'either', 'exactly'] satisfies ShapePart['what'][])
  what!: ShapePart['what'];

  @IsString()
  @MaxLength(shapeLimits.run)
  text!: string;

  @IsInt()
  @Min(0)
  @Max(shapeLimits.run)
  minimum!: number;

  @IsInt()
  @Min(1)
  @Max(shapeLimits.run)
  maximum!: number;
}

/** See core's `AnswerShape`. */
export class AnswerShapePlan implements AnswerShape {
  @IsString()
  @MaxLength(300)
  example!: string;

  @IsArray()
  @ArrayMaxSize(shapeLimits.parts, { message: `An answer can have ${shapeLimits.parts} runs of characters at most.` })
  @ValidateNested({ each: true })
  @Type(() => ShapePartPlan)
  parts!: ShapePartPlan[];
}

/** How sure a question is. */
export class QuestionSureness {
  @IsNumber()
  @Min(0)
  @Max(1)
  part!: number;

  @IsString()
  @MaxLength(300)
  why!: string;
}

/** See core's `IntakeQuestion`. */
export class IntakeQuestionPlan implements IntakeQuestion {
  @Matches(/^[\w-]{1,40}$/)
  id!: string;

  @IsString()
  @MinLength(1)
  @MaxLength(120)
  column!: string;

  @IsString()
  @MaxLength(1000)
  words!: string;

  @IsIn(intakeKinds)
  kind!: IntakeKind;

  @IsBoolean()
  required!: boolean;

  @IsString()
  @MaxLength(2000)
  help!: string;

  @IsArray()
  @ArrayMaxSize(500)
  @ValidateNested({ each: true })
  @Type(() => IntakeOptionPlan)
  options!: IntakeOptionPlan[];

  @Nullable()
  @IsInt()
  @Min(1)
  @Max(100_000)
  limit!: number | null;

  @IsString()
  @MaxLength(1000)
  initial!: string;

  @Nullable()
  @IsObject()
  when!: Condition | null;

  @IsBoolean()
  isAway!: boolean;

  @IsString()
  @MaxLength(300)
  doubt!: string;

  @IsOptional()
  @ValidateNested()
  @Type(() => QuestionSureness)
  sure?: QuestionSureness | null;

  @IsOptional()
  @ValidateNested()
  @Type(() => AnswerShapePlan)
  shape?: AnswerShapePlan | null;

  @IsOptional()
  @IsString()
  @MaxLength(40)
  minimum?: string;

  @IsOptional()
  @IsString()
  @MaxLength(40)
  maximum?: string;

  @IsOptional()
  @IsFilledFrom()
  filled?: FilledFrom | null;
}
