import type {
  Clash,
  Condition,
  IntakeAfter,
  IntakeOpening,
  IntakePlan,
  IntakeQuestion,
  IntakeSection,
  OfficeNotice,
  PageLanguage,
  PageTranslations,
  PersonalPlan,
} from '@mailbag/core';
import { pageLanguages } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayUnique,
  IsArray,
  IsBoolean,
  IsISO8601,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsTimeZone,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { IsTranslations } from './is-translations.js';
import { Nullable } from './nullable.js';
import { TemplateDetail } from './template.js';

/** See core's `IntakeSection`. */
export class IntakeSectionPlan implements IntakeSection {
  @Matches(/^[\w-]{1,40}$/)
  id!: string;

  @IsString()
  @MaxLength(300)
  title!: string;

  @Nullable()
  @IsObject()
  when!: Condition | null;

  @IsArray()
  @ArrayUnique()
  @ArrayMaxSize(2000)
  @IsString({ each: true })
  questions!: string[];
}

/** See core's `OfficeNotice`. */
export class OfficeNoticePlan implements OfficeNotice {
  @IsString()
  @MaxLength(1000)
  to!: string;

  @IsString()
  @MaxLength(500)
  subject!: string;

  @IsString()
  @MaxLength(20_000)
  body!: string;

  @IsIn(['none', 'files', 'combined', 'zip'] satisfies OfficeNotice['attach'][])
  attach!: OfficeNotice['attach'];
}

export class IntakeAfterPlan implements IntakeAfter {
  @IsBoolean()
  atOnce!: boolean;

  @IsString()
  @MaxLength(2000)
  thanks!: string;

  @IsOptional()
  @ValidateNested()
  @Type(() => OfficeNoticePlan)
  notice?: OfficeNoticePlan | null;
}

export class IntakeOpeningPlan implements IntakeOpening {
  @Nullable()
  @IsISO8601()
  from!: string | null;

  @Nullable()
  @IsISO8601()
  until!: string | null;

  @IsOptional()
  @IsTimeZone()
  zone?: string;

  @Nullable()
  @IsInt()
  @Min(1)
  @Max(1_000_000)
  maximum!: number | null;

  @IsString()
  @MaxLength(300)
  contact!: string;

  @IsArray()
  @ArrayMaxSize(20)
  @Matches(/^https?:\/\/[a-z0-9.-]{1,200}(?::\d{1,5})?$/, {
    each: true,
    message: 'A site is an address without a path, such as https://www.example.org.',
  })
  sites!: string[];

  @IsOptional()
  @IsString()
  @MaxLength(100)
  passPhrase?: string;

  @IsOptional()
  @IsBoolean()
  oncePerAddress?: boolean;

  @IsInt()
  @Min(0)
  @Max(365)
  retentionDays!: number;
}

/** See core's `PersonalPlan`. */
export class PersonalLinksPlan implements PersonalPlan {
  @IsInt()
  mailingId!: number;

  @Matches(/^https?:\/\/(?:[a-z0-9.-]{1,200}|\[[0-9a-f:]{2,45}\])(?::\d{1,5})?$/, {
    message: 'Where people reach Mailbag is an address without a path, such as https://forms.example.org.',
  })
  site!: string;

  @Nullable()
  @IsISO8601()
  until!: string | null;

  @IsString()
  @MaxLength(300)
  ask!: string;

  @IsIn(['person', 'mailbag'] satisfies PersonalPlan['accept'][])
  accept!: PersonalPlan['accept'];

  @IsInt()
  @Min(1)
  round!: number;

  @IsArray()
  @ArrayMaxSize(2000)
  @IsString({ each: true })
  columns!: string[];

  @IsObject()
  recordWords!: Record<string, Record<string, string>>;
}

/** The first page of a form as a small picture. */
export class FormPicture {
  @Matches(/^data:image\/jpeg;base64,[A-Za-z0-9+/]+={0,2}$/)
  @MaxLength(120_000)
  image!: string;

  @IsInt()
  revision!: number;
}

/** Everything of an intake that a person decides. Its questions are held against `IntakeQuestionPlan` one by one. */
export class IntakePlanBody implements IntakePlan {
  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name!: string;

  @IsString()
  @MaxLength(300)
  title!: string;

  @IsString()
  @MaxLength(5000)
  intro!: string;

  @IsArray()
  @ArrayMaxSize(200)
  @ValidateNested({ each: true })
  @Type(() => IntakeSectionPlan)
  sections!: IntakeSectionPlan[];

  @IsObject()
  questions!: Record<string, IntakeQuestion>;

  @ValidateNested()
  @Type(() => IntakeAfterPlan)
  after!: IntakeAfterPlan;

  @ValidateNested()
  @Type(() => IntakeOpeningPlan)
  opening!: IntakeOpeningPlan;

  @IsOptional()
  @ValidateNested()
  @Type(() => PersonalLinksPlan)
  personal?: PersonalLinksPlan | null;

  @IsOptional()
  @ValidateNested()
  @Type(() => FormPicture)
  picture?: FormPicture | null;

  @IsOptional()
  @IsIn(pageLanguages)
  language?: PageLanguage;

  @IsOptional()
  @IsTranslations()
  translations?: PageTranslations;
}

export class IntakeChangesAnswer {
  @IsNumber()
  version!: number;

  @IsObject()
  plan!: IntakePlan;

  @IsArray()
  @IsObject({ each: true })
  clashes!: Clash[];
}

export class IntakeSummary {
  @IsNumber()
  id!: number;

  @IsString()
  name!: string;

  @IsString()
  word!: string;

  @IsBoolean()
  isPublished!: boolean;

  /** Whether something is changed that is not published. */
  @IsBoolean()
  isAhead!: boolean;

  @IsNumber()
  questions!: number;

  /** Questions to look at. */
  @IsNumber()
  doubts!: number;

  @IsNumber()
  answers!: number;

  @Nullable()
  @IsString()
  lastAnswerAt!: string | null;

  @IsNumber()
  mailingId!: number;

  @IsNumber()
  sourceId!: number;

  @IsString()
  updatedAt!: string;
}

/** Where a field of the packet gets its value: for the marks on the page beside a question. */
export class IntakePlace {
  @IsNumber()
  template!: number;

  @IsString()
  field!: string;
}

export class IntakeDetail extends IntakeSummary {
  @IsNumber()
  version!: number;

  @IsObject()
  plan!: IntakePlan;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => TemplateDetail)
  templates!: TemplateDetail[];

  /** The fields that take each question's answer, by the column of the question. */
  @IsObject()
  places!: Record<string, IntakePlace[]>;

  /** Earlier words, which still lead here. */
  @IsArray()
  @IsString({ each: true })
  earlierWords!: string[];
}
