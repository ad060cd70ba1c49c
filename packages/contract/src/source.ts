import type { Column, ColumnReading, SourceChanges, SourceNote, SourceRecord, TableExcerpt, TableReading } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsIn,
  IsInt,
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
import { QueryRequest } from './database.js';

/** How a file is to be read; what is left out is guessed. */
export class ReadingRequest implements TableReading {
  @IsOptional()
  @IsString()
  @MaxLength(200)
  sheet?: string;

  @IsOptional()
  @Type(() => Number)
  @IsInt()
  @Min(0)
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

  @IsOptional()
  @IsIn(['table', 'pairs'])
  layout?: 'table' | 'pairs';

  /** Of labels and values: what each column is, a letter a column: l labels, n technical names, v values, - none of them. */
  @IsOptional()
  @Matches(/^[lnv-]{1,60}$/)
  roles?: string;

  /** By the name of the column. */
  @IsOptional()
  @IsObject()
  columns?: Record<string, ColumnReading>;
}

/** A query of a connection as a source. */
export class SourceQueryRequest extends QueryRequest {
  @IsInt()
  connectionId!: number;
}

export class SourceRequest {
  /** Uploaded files; none where a database is asked. */
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(2000)
  @IsString({ each: true })
  fileIds?: string[];

  @IsOptional()
  @ValidateNested()
  @Type(() => SourceQueryRequest)
  query?: SourceQueryRequest;

  @IsString()
  @MinLength(1)
  @MaxLength(200)
  name!: string;

  @ValidateNested()
  @Type(() => ReadingRequest)
  reading!: ReadingRequest;
}

/** Reads a source again: the same files or query, or new files, in another way where one is given. */
export class SourceRereadRequest {
  @IsOptional()
  @IsArray()
  @ArrayMaxSize(2000)
  @IsString({ each: true })
  fileIds?: string[];

  @IsOptional()
  @ValidateNested()
  @Type(() => ReadingRequest)
  reading?: ReadingRequest;

  @IsOptional()
  @IsString()
  @MaxLength(300)
  keyColumn?: string | null;
}

/** A column of the new reading takes the place of one that is gone. */
export class RelinkRequest {
  @IsString()
  @MaxLength(300)
  from!: string;

  @IsString()
  @MaxLength(300)
  to!: string;
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
  /** Where its records come from. */
  kind: 'file' | 'database';
  fileName: string;
  files: number;
  query: { connectionId: number; connection: string; sql: string; parameters: Record<string, string> } | null;
  state: 'reading' | 'ready' | 'failed';
  count: number;
  /** Records read so far, while it is being read. */
  progress: number;
  columns: Column[];
  notes: SourceNote[];
  reading: TableReading;
  keyColumn: string | null;
  /** What the last reading changed; null: it was the first. */
  changes: SourceChanges | null;
  /** Why the last reading failed. Where `state` is ready the records of the reading before are still there. */
  error: { code: string; fields: Record<string, unknown>; message: string } | null;
  createdAt: string;
  readAt: string | null;
  corrections: number;
  usedBy: string[];
}

/** A value that was changed in Mailbag. */
export interface CorrectionAnswer {
  id: number;
  row: number;
  recordKey: string;
  column: string;
  /** As the source has it. */
  was: string;
  value: string;
  /** `active`: it holds; `fulfilled`: the source has it by now; `unfit`: the source has another value by now; `undone`. */
  state: 'active' | 'fulfilled' | 'unfit' | 'undone';
  who: string;
  at: string;
  /** Corrections that were made together. */
  step: string;
}

export class CorrectionRequest {
  @IsInt()
  row!: number;

  @IsString()
  @MaxLength(300)
  column!: string;

  @IsString()
  @MaxLength(10_000)
  value!: string;
}

/** A page of records. `index` counts from 0 through all of them. */
export interface RecordsAnswer {
  from: number;
  total: number;
  records: SourceRecord[];
  /** Corrections that hold for these records. */
  corrections: CorrectionAnswer[];
}

/** What came in, what was skipped, what has findings. */
export interface ImportReport {
  source: string;
  readAt: string | null;
  count: number;
  columns: Column[];
  notes: string[];
  changes: SourceChanges | null;
  corrections: CorrectionAnswer[];
  mailings: {
    id: number;
    name: string;
    clean: number;
    stopped: number;
    looked: number;
    leftOut: number;
    findings: { title: string; severity: string; records: number }[];
  }[];
}
