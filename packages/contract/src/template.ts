import { Type } from 'class-transformer';
import type { Answer, Comparison, Field, FieldMap, PageSize, PrintChanges, Joining, Stamp, TemplateNote } from '@mailbag/core';
import { joinings } from '@mailbag/core';
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
  MaxLength,
  MinLength,
  ValidateNested,
} from 'class-validator';

export class RenameRequest {
  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name!: string;
}

/** A template is put away, or taken back. */
export class ArchiveRequest {
  @IsBoolean()
  isArchived!: boolean;
}

export class TemplateSummary {
  @IsNumber()
  id!: number;

  @IsString()
  name!: string;

  @IsString()
  fileName!: string;

  @IsNumber()
  revision!: number;

  @IsNumber()
  revisionId!: number;

  @IsNumber()
  pages!: number;

  @IsNumber()
  fields!: number;

  /** Bytes. */
  @IsNumber()
  size!: number;

  @IsArray()
  @IsObject({ each: true })
  notes!: TemplateNote[];

  /** When its latest revision came in. ISO 8601. */
  @IsString()
  createdAt!: string;

  /** It is put away, and not offered any more. */
  @IsBoolean()
  isArchived!: boolean;

  @IsArray()
  @IsString({ each: true })
  usedBy!: string[];
}

export class TemplateDetail extends TemplateSummary {
  @IsArray()
  @IsObject({ each: true })
  pageSizes!: PageSize[];

  @IsArray()
  @IsObject({ each: true })
  fieldList!: Field[];

  /** What its layout stamps on every copy. */
  @IsArray()
  @IsObject({ each: true })
  stamps!: Stamp[];

  /** Which fields are one answer: as proposed, or as people joined them and took them apart. */
  @IsArray()
  @IsObject({ each: true })
  answers!: Answer[];
}

/** Fields that are to be one answer, in the order of their pieces; or, to take one apart, a field of it. */
export class AnswersRequest {
  @IsInt()
  revisionId!: number;

  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(500)
  @IsString({ each: true })
  @MaxLength(2000, { each: true })
  fields!: string[];

  /** As what they are joined; null: their answer is taken apart. */
  @IsOptional()
  @IsIn(joinings)
  as!: Joining | null;
}

/** Answer to an upload. `known`: the same file was there already. */
export class TemplateUploadAnswer {
  @ValidateNested()
  @Type(() => TemplateSummary)
  template!: TemplateSummary;

  @IsBoolean()
  known!: boolean;
}

/** A mailing that fills a revision of a template. */
export class RevisionUse {
  @IsNumber()
  id!: number;

  @IsString()
  name!: string;
}

/** One edition of a form, as it came in. */
export class RevisionSummary {
  @IsNumber()
  id!: number;

  /** Counted from 1 in its template. */
  @IsNumber()
  number!: number;

  @IsString()
  fileName!: string;

  @IsNumber()
  pages!: number;

  @IsNumber()
  fields!: number;

  /** ISO 8601. */
  @IsString()
  createdAt!: string;

  @ValidateNested({ each: true })
  @Type(() => RevisionUse)
  usedBy!: RevisionUse[];
}

/** Answer to a new edition that was uploaded. `known`: the template has that very file already. */
export class RevisionUploadAnswer {
  @ValidateNested()
  @Type(() => RevisionSummary)
  revision!: RevisionSummary;

  @IsBoolean()
  known!: boolean;
}

/** Two revisions of a template, field by field, and what is printed on one of them alone. */
export class EditionsAnswer {
  @IsObject()
  comparison!: Comparison;

  @IsObject()
  print!: PrintChanges;
}

export class FieldPairRequest {
  @IsString()
  @MaxLength(2000)
  old!: string;

  @IsString()
  @MaxLength(2000)
  new!: string;
}

/** A mailing goes over to another revision of a template: with the fields that became which, or with a map as it was, to take that back. */
export class TakeOverRequest {
  @IsInt()
  templateId!: number;

  @IsInt()
  revisionId!: number;

  @IsOptional()
  @IsArray()
  @ArrayMaxSize(20_000)
  @ValidateNested({ each: true })
  @Type(() => FieldPairRequest)
  pairs?: FieldPairRequest[];

  @IsOptional()
  @IsObject()
  map?: FieldMap;
}

export class TakeOverAnswer {
  /** Rules that go on for their field. */
  @IsInt()
  carried!: number;

  /** Fields that had a rule and are gone, by what they were called. */
  @IsArray()
  @IsString({ each: true })
  lost!: string[];

  /** Fields of the new edition that have no rule yet. */
  @IsInt()
  open!: number;

  /** As it was, to take it back. */
  @IsObject()
  before!: { revisionId: number; map: FieldMap };
}
