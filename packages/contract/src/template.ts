import type { Field, PageSize, TemplateNote } from '@mailbag/core';
import { IsString, MaxLength, MinLength } from 'class-validator';

export class RenameRequest {
  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name!: string;
}

export interface TemplateSummary {
  id: number;
  name: string;
  fileName: string;
  revision: number;
  revisionId: number;
  pages: number;
  fields: number;
  /** Bytes. */
  size: number;
  notes: TemplateNote[];
  /** ISO 8601. */
  createdAt: string;
  usedBy: string[];
}

export interface TemplateDetail extends TemplateSummary {
  pageSizes: PageSize[];
  fieldList: Field[];
}

/** Answer to an upload. `known`: the same file was there already. */
export interface TemplateUploadAnswer {
  template: TemplateSummary;
  known: boolean;
}
