import type { Column, SourceNote, SourceRecord, TableExcerpt, TableReading } from '@mailbag/core';
import { Type } from 'class-transformer';
import { IsInt, IsOptional, IsString, Max, MaxLength, Min, MinLength, ValidateNested } from 'class-validator';

/** How a file is to be read; what is left out is guessed. */
export class ReadingRequest implements TableReading {
  @IsOptional()
  @IsString()
  @MaxLength(200)
  sheet?: string;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(1)
  @Max(1000)
  headingRow?: number;

  @IsOptional()
  @IsString()
  @MaxLength(40)
  encoding?: string;

  @IsOptional()
  @IsString()
  @MaxLength(1)
  delimiter?: string;
}

export class SourceRequest {
  @IsString()
  @MaxLength(80)
  fileId!: string;

  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name!: string;

  @ValidateNested()
  @Type(() => ReadingRequest)
  reading!: ReadingRequest;
}

/** A file that has arrived and waits for a decision on how to read it. */
export interface SourceFileAnswer {
  fileId: string;
  fileName: string;
  excerpt: TableExcerpt;
}

export interface SourceSummary {
  id: number;
  name: string;
  fileName: string;
  state: 'reading' | 'ready' | 'failed';
  count: number;
  columns: Column[];
  notes: SourceNote[];
  reading: TableReading;
  error: { code: string; fields: Record<string, unknown>; message: string } | null;
  createdAt: string;
  usedBy: string[];
}

/** A page of records. `index` counts from 0 through all of them. */
export interface RecordsAnswer {
  from: number;
  total: number;
  records: SourceRecord[];
}
