import type { Column, ColumnReading, SourceChanges, SourceNote, TableExcerpt, TableReading } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
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
import { Nullable } from './nullable.js';
import { QueryRequest } from './database.js';
import { CorrectionAnswer } from './record.js';

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

  /** The column whose value is the same in all rows of one record. Left out: each row is a record. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  onePer?: string;

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
export class SourceFileAnswer {
  @IsString()
  fileId!: string;

  @IsString()
  fileName!: string;

  @IsObject()
  excerpt!: TableExcerpt;
}

export class SourceSummary {
  @IsNumber()
  id!: number;

  @IsString()
  name!: string;

  /** Where its records come from. */
  @IsIn(['file', 'database', 'intake'])
  kind!: 'file' | 'database' | 'intake';

  @IsString()
  fileName!: string;

  @IsNumber()
  files!: number;

  @Nullable()
  @IsObject()
  query!: { connectionId: number; connection: string; sql: string; parameters: Record<string, string> } | null;

  @IsIn(['reading', 'ready', 'failed'])
  state!: 'reading' | 'ready' | 'failed';

  @IsNumber()
  count!: number;

  /** Records read so far, while it is being read. */
  @IsNumber()
  progress!: number;

  @IsArray()
  @IsObject({ each: true })
  columns!: Column[];

  @IsArray()
  @IsObject({ each: true })
  notes!: SourceNote[];

  @IsObject()
  reading!: TableReading;

  @Nullable()
  @IsString()
  keyColumn!: string | null;

  /** What the last reading changed; null: it was the first. */
  @Nullable()
  @IsObject()
  changes!: SourceChanges | null;

  /** Why the last reading failed. Where `state` is ready the records of the reading before are still there. */
  @Nullable()
  @IsObject()
  error!: { code: string; fields: Record<string, unknown>; message: string } | null;

  @IsString()
  createdAt!: string;

  @Nullable()
  @IsString()
  readAt!: string | null;

  @IsNumber()
  corrections!: number;

  @IsArray()
  @IsString({ each: true })
  usedBy!: string[];

  /** Pictures that came with it, for columns that name them. */
  @IsNumber()
  pictures!: number;
}

/** Two columns of a source, as a table in which values are looked up. */
export class LookupRequest {
  @IsString()
  @MaxLength(300)
  key!: string;

  @IsString()
  @MaxLength(300)
  value!: string;
}

export class LookupAnswer {
  @IsArray()
  @IsObject({ each: true })
  table!: { key: string; value: string }[];

  /** Keys that stand there several times with different values; the first is taken. */
  @IsArray()
  @IsString({ each: true })
  unclear!: string[];
}

export class PictureNameRequest {
  /** As a record says it: folders before it and its ending may be missing, capitals do not count. */
  @IsString()
  @MinLength(1)
  @MaxLength(500)
  name!: string;
}

/** A page of the names of pictures, in the order of their names. */
export class PictureNamesAnswer {
  @IsNumber()
  total!: number;

  /** As they are compared: without folders, in small letters. */
  @IsArray()
  @IsString({ each: true })
  names!: string[];
}

/** What became of pictures that were sent. */
export class SourcePicturesAnswer {
  /** How many the source has now. */
  @IsNumber()
  pictures!: number;

  /** How many came in. */
  @IsNumber()
  taken!: number;

  /** Files that were left, each with the reason; the first twenty. */
  @IsArray()
  @IsString({ each: true })
  refused!: string[];

  @IsNumber()
  refusedCount!: number;
}

/** What came in, what was skipped, what has findings. */
export class ImportReport {
  @IsString()
  source!: string;

  @Nullable()
  @IsString()
  readAt!: string | null;

  @IsNumber()
  count!: number;

  @IsArray()
  @IsObject({ each: true })
  columns!: Column[];

  @IsArray()
  @IsString({ each: true })
  notes!: string[];

  @Nullable()
  @IsObject()
  changes!: SourceChanges | null;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => CorrectionAnswer)
  corrections!: CorrectionAnswer[];

  @IsArray()
  @IsObject({ each: true })
  mailings!: {
    id: number;
    name: string;
    clean: number;
    stopped: number;
    looked: number;
    leftOut: number;
    findings: { title: string; severity: string; records: number }[];
  }[];
}
