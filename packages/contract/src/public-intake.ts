import type { AnswerValue, FaultCode, IntakePlan } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
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
  ValidateNested,
} from 'class-validator';
import { Nullable } from './nullable.js';

/** Why a page takes no answers. */
export class PublicClosed {
  @IsIn(['not-yet', 'over', 'full'])
  why!: 'not-yet' | 'over' | 'full';

  /** When it opens, or has closed. ISO 8601; empty: it is full. */
  @IsString()
  at!: string;
}

/** Where an answer stands on a form. */
export class PublicBox {
  /** Id of the question. */
  @IsString()
  question!: string;

  /** Of the forms of the page, from 0. */
  @IsInt()
  form!: number;

  /** 1-based; 0: on no page. */
  @IsInt()
  page!: number;

  /** Left, bottom, right, top in points of the page's own space. */
  @IsArray()
  @IsNumber({}, { each: true })
  rect!: number[];
}

export class PublicBoxesAnswer {
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => PublicBox)
  boxes!: PublicBox[];
}

/** What a visitor's page is made of. */
export class PublicIntake {
  /** Id of the published version. */
  @IsInt()
  edition!: number;

  @IsString()
  office!: string;

  /** Without what was put away. */
  @IsObject()
  plan!: IntakePlan;

  /** Names of the forms that are filled. */
  @IsArray()
  @IsString({ each: true })
  forms!: string[];

  /** Days for which a link to go on later holds; 0: none can be mailed. */
  @IsInt()
  retentionDays!: number;

  /** Why it takes no answers; null: it does. */
  @Nullable()
  @ValidateNested()
  @Type(() => PublicClosed)
  closed!: PublicClosed | null;
}

/** What stands behind the # of a personal link, and what the visitor must know where it is asked. */
export class PublicPersonalRequest {
  @Matches(/^[0-9A-Za-z-]{8,24}\.[\w-]{22}$/)
  token!: string;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  check?: string;
}

/** Answers by the ids of the questions. */
export class PublicAnswersRequest {
  @IsInt()
  edition!: number;

  @IsObject()
  answers!: Record<string, AnswerValue>;

  /** The personal link by which the visitor came. */
  @IsOptional()
  @ValidateNested()
  @Type(() => PublicPersonalRequest)
  personal?: PublicPersonalRequest;
}

/** What a visitor goes on with later, by a link that is mailed to them. */
export class PublicKeepRequest extends PublicAnswersRequest {
  @Matches(/^[\w-]{16,64}$/)
  key!: string;

  /** Where they are: 0 the first page, then the steps. */
  @IsInt()
  @Min(0)
  @Max(1000)
  step!: number;

  @Matches(/^[a-z]{2}(-[A-Z]{2})?$/)
  language!: string;

  @IsString()
  @MaxLength(320)
  email!: string;
}

export class PublicSavedVisitRequest {
  @Matches(/^[\w-]{20,80}$/)
  token!: string;
}

/** Where somebody goes on. */
export class PublicSavedVisitAnswer {
  @IsInt()
  edition!: number;

  @IsObject()
  answers!: Record<string, AnswerValue>;

  @IsInt()
  step!: number;

  @IsString()
  key!: string;
}

export class PublicPersonalAnswer {
  @IsInt()
  edition!: number;

  /** What is known; empty as long as something must be said first. */
  @IsObject()
  answers!: Record<string, AnswerValue>;

  /** What the visitor must say first; null: nothing. */
  @Nullable()
  @IsString()
  asks!: string | null;

  /** Whether what was said is not what the office knows. */
  @IsBoolean()
  isWrong!: boolean;
}

export class PublicSubmitRequest extends PublicAnswersRequest {
  /** One for each submission: the same again is the same submission. */
  @Matches(/^[\w-]{16,64}$/)
  key!: string;

  /** BCP 47. */
  @Matches(/^[a-z]{2}(-[A-Z]{2})?$/)
  language!: string;

  /** A field that people do not see. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  website?: string;
}

export class PublicFault {
  @IsString()
  question!: string;

  @IsString()
  code!: FaultCode;

  @IsString()
  detail!: string;
}

/** What is wrong with answers; nothing: they can be taken. */
export class PublicFaultsAnswer {
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => PublicFault)
  faults!: PublicFault[];
}

/** Whoever has copies mailed shows first that an address is theirs. */
export class PublicMailCodeRequest {
  @IsString()
  @MaxLength(320)
  email!: string;

  @Matches(/^[a-z]{2}(-[A-Z]{2})?$/)
  language!: string;
}
export class PublicMailRequest {
  @IsString()
  @MaxLength(20)
  code!: string;

  @IsString()
  @MaxLength(320)
  to!: string;

  @Matches(/^[a-z]{2}(-[A-Z]{2})?$/)
  language!: string;
}

export class PublicReceipt {
  @IsString()
  number!: string;

  /** Names of the copies that can be fetched, in their order. */
  @IsArray()
  @IsString({ each: true })
  copies!: string[];

  /** Whether copies are still being made. */
  @IsBoolean()
  isMaking!: boolean;

  /** Whether they can be mailed on. */
  @IsBoolean()
  canMail!: boolean;
}

export class PublicSubmitAnswer extends PublicFaultsAnswer {
  /** Of the submission; null: it was not taken. */
  @Nullable()
  @IsString()
  number!: string | null;

  /** By which its copies are fetched; null: it was not taken. */
  @Nullable()
  @IsString()
  receipt!: string | null;
}
