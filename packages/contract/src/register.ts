import { IsArray, IsBoolean, IsIn, IsInt, IsNumber, IsOptional, IsString, Matches, Max, MaxLength, Min, MinLength } from 'class-validator';
import { Nullable } from './nullable.js';

export const registerKinds = ['postgres', 'mysql', 'sqlite', 'folder', 'webdav'] as const;
export type RegisterKind = (typeof registerKinds)[number];

/** An outside store to which copies are reported. */
export class RegisterFacts {
  @IsString()
  @MinLength(1, { message: 'Give the register a name.' })
  @MaxLength(60)
  name!: string;

  @IsIn(registerKinds)
  kind!: RegisterKind;

  /** Host of a database, or address of a WebDAV folder. */
  @IsString()
  @MaxLength(500)
  host!: string;

  /** 0: the usual one of its kind. */
  @IsInt()
  @Min(0)
  @Max(65_535)
  port!: number;

  @IsString()
  @MaxLength(200)
  databaseName!: string;

  /** Table of a database, or name of a folder. */
  @Matches(/^[A-Za-z][A-Za-z0-9_-]{0,62}$/, {
    message: 'The name of a table or folder has letters, digits, underscores and hyphens, and begins with a letter.',
  })
  table!: string;

  @IsString()
  @MaxLength(200)
  user!: string;

  @IsBoolean()
  tls!: boolean;

  /** Only copies of these mailings; empty: of all. */
  @IsArray()
  @IsInt({ each: true })
  mailings!: number[];

  @IsOptional()
  @IsBoolean()
  paused?: boolean;
}

export class RegisterRequest extends RegisterFacts {
  /** Left out: the stored one stays. */
  @IsOptional()
  @IsString()
  @MaxLength(500)
  password?: string;
}

export class RegisterAnswer extends RegisterFacts {
  @IsNumber()
  id!: number;

  @IsBoolean()
  hasPassword!: boolean;

  /** Changes that are not reported yet. */
  @IsNumber()
  waiting!: number;

  @Nullable()
  @IsString()
  reportedAt!: string | null;

  /** Why the last try failed; null: it did not. */
  @Nullable()
  @IsString()
  failure!: string | null;

  @IsBoolean()
  override paused!: boolean;
}
