import type { Column, SourceNote } from '@mailbag/core';
import { Type } from 'class-transformer';
import { IsBoolean, IsIn, IsInt, IsObject, IsOptional, IsString, Max, MaxLength, Min, MinLength } from 'class-validator';

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
export interface ConnectionAnswer {
  id: number;
  name: string;
  kind: DatabaseKind;
  host: string;
  port: number;
  databaseName: string;
  user: string;
  hasPassword: boolean;
  tls: boolean;
  usedBy: string[];
}

export interface DatabaseTable {
  schema: string | null;
  name: string;
  columns: { name: string; type: string }[];
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

export interface QueryExcerpt {
  columns: Column[];
  rows: string[][];
  /** All rows; null when counting took too long. */
  count: number | null;
  notes: SourceNote[];
}
