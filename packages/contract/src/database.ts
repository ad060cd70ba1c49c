import type { Column, SourceNote } from '@mailbag/core';
import { Type } from 'class-transformer';
import { IsArray, IsBoolean, IsIn, IsInt, IsNumber, IsObject, IsOptional, IsString, Max, MaxLength, Min, MinLength } from 'class-validator';
import { Nullable } from './nullable.js';

export const databaseKinds = ['sqlite', 'postgres', 'mysql'] as const;
export type DatabaseKind = (typeof databaseKinds)[number];

/** How a database is reached. */
export class ConnectionRequest {
  @IsString()
  @MinLength(1, { message: 'A connection needs a name.' })
  @MaxLength(200)
  name!: string;

  @IsIn(databaseKinds)
  kind!: DatabaseKind;

  @IsString()
  @MaxLength(253)
  host!: string;

  @IsInt()
  @Min(0)
  @Max(65_535)
  port!: number;

  @IsString()
  @MaxLength(200)
  databaseName!: string;

  @IsString()
  @MaxLength(200)
  user!: string;

  /** Left out: the one that is kept stays. */
  @IsOptional()
  @IsString()
  @MaxLength(500)
  password?: string;

  @IsBoolean()
  tls!: boolean;

  /** An uploaded SQLite file. */
  @IsOptional()
  @IsString()
  @MaxLength(80)
  fileId?: string;
}

/** A connection as it is shown: without its password. */
export class ConnectionAnswer {
  @IsNumber()
  id!: number;

  @IsString()
  name!: string;

  @IsIn(['sqlite', 'postgres', 'mysql'])
  kind!: DatabaseKind;

  @IsString()
  host!: string;

  @IsNumber()
  port!: number;

  @IsString()
  databaseName!: string;

  @IsString()
  user!: string;

  @IsBoolean()
  hasPassword!: boolean;

  @IsBoolean()
  tls!: boolean;

  @IsArray()
  @IsString({ each: true })
  usedBy!: string[];
}

export class DatabaseTable {
  @Nullable()
  @IsString()
  schema!: string | null;

  @IsString()
  name!: string;

  @IsArray()
  @IsObject({ each: true })
  columns!: { name: string; type: string }[];
}

/** One statement that reads, with `:name` for its parameters. */
export class QueryRequest {
  @IsString()
  @MaxLength(20_000)
  sql!: string;

  @IsObject()
  @Type(() => Object)
  parameters!: Record<string, string>;
}

export class QueryExcerpt {
  @IsArray()
  @IsObject({ each: true })
  columns!: Column[];

  @IsArray()
  @IsArray({ each: true })
  rows!: string[][];

  /** All rows; null when counting took too long. */
  @Nullable()
  @IsNumber()
  count!: number | null;

  @IsArray()
  @IsObject({ each: true })
  notes!: SourceNote[];
}
