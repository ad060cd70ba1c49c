import type { Column, ColumnReading, SourceChanges, SourceNote, SourceRecord, TableExcerpt, TableReading } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  ArrayMinSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNotEmpty,
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

/** A value that was changed in Mailbag. */
export class CorrectionAnswer {
  @IsNumber()
  id!: number;

  @IsNumber()
  row!: number;

  @IsString()
  recordKey!: string;

  @IsString()
  column!: string;

  /** As the source has it. */
  @IsString()
  was!: string;

  @IsString()
  value!: string;

  /** `active`: it holds; `fulfilled`: the source has it by now; `unfit`: the source has another value by now; `undone`. */
  @IsIn(['active', 'fulfilled', 'unfit', 'undone'])
  state!: 'active' | 'fulfilled' | 'unfit' | 'undone';

  @IsString()
  who!: string;

  @IsString()
  at!: string;

  /** Corrections that were made together. */
  @IsString()
  step!: string;
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

/** Values that are changed at once, such as those that were pasted. */
export class CorrectionsRequest {
  @IsArray()
  @ArrayMinSize(1)
  @ArrayMaxSize(10_000)
  @ValidateNested({ each: true })
  @Type(() => CorrectionRequest)
  changes!: CorrectionRequest[];
}

/** What is found in the cells of a source, and what is put in its place. */
export class ReplaceRequest {
  @IsString()
  @IsNotEmpty()
  @MaxLength(300)
  find!: string;

  @IsString()
  @MaxLength(300)
  replace!: string;

  /** The column that is looked through; null: all. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  column!: string | null;

  /** Only where it is all that a cell holds. */
  @IsBoolean()
  isWhole!: boolean;
}

export const recordKinds = ['corrected', 'empty', 'filled'] as const;
export type RecordKind = (typeof recordKinds)[number];

/** In which order records are seen, and which of them. */
export class RecordViewQuery {
  /** The column by which they are ordered; left out: as the source has them. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  order?: string;

  @IsOptional()
  @IsIn(['yes'])
  down?: 'yes';

  /** The column that the other conditions look at; left out: any. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  column?: string;

  /** Cells that hold this text. */
  @IsOptional()
  @IsString()
  @MaxLength(300)
  text?: string;

  /** Records with a corrected value, or with an empty one or none in the column. */
  @IsOptional()
  @IsIn([...recordKinds])
  only?: RecordKind;
}

/** Places of records, in the order in which they are seen. */
export class RecordViewAnswer {
  @IsArray()
  @IsInt({ each: true })
  ordinals!: number[];
}

/** Records by their places. */
export class RecordsAtQuery {
  /** Places from 0, with commas. */
  @IsString()
  @MaxLength(4000)
  @Matches(/^\d{1,9}(,\d{1,9})*$/)
  at!: string;
}

/** A page of records. `index` counts from 0 through all of them. */
export class RecordsAnswer {
  @IsNumber()
  from!: number;

  @IsNumber()
  total!: number;

  @IsArray()
  @IsObject({ each: true })
  records!: SourceRecord[];

  /** Corrections that hold for these records. */
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => CorrectionAnswer)
  corrections!: CorrectionAnswer[];
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
