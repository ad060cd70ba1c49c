import { Type } from 'class-transformer';
import type { Field, PageSize, TemplateNote } from '@mailbag/core';
import { IsArray, IsBoolean, IsNumber, IsObject, IsString, MaxLength, MinLength, ValidateNested } from 'class-validator';

export class RenameRequest {
  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name!: string;
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

  /** ISO 8601. */
  @IsString()
  createdAt!: string;

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
}

/** Answer to an upload. `known`: the same file was there already. */
export class TemplateUploadAnswer {
  @ValidateNested()
  @Type(() => TemplateSummary)
  template!: TemplateSummary;

  @IsBoolean()
  known!: boolean;
}
