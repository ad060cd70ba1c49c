import { ArrayMaxSize, IsArray, IsBoolean, IsInt, IsNumber, IsObject, IsString, Max, Min } from 'class-validator';
import { Nullable } from './nullable.js';

/** Whether deliveries are held because the data folder may not be the one that mailed last, and what waits in it. */
export class HoldAnswer {
  @Nullable()
  @IsObject()
  held!: {
    why: 'restored' | 'copied' | 'older database';
    /** ISO 8601, when that was noticed. */
    at: string;
    /** When the backup was taken, and its name; null: it was no backup. */
    takenAt: string | null;
    from: string | null;
  } | null;

  /** Batches with messages that wait. */
  @IsArray()
  @IsObject({ each: true })
  batches!: { id: number; number: number; mailingName: string; messages: number; copies: number }[];

  /** Print runs that are not marked as printed. */
  @IsNumber()
  printRuns!: number;

  /** The last thing that this folder knows of any message; null: there is none. */
  @Nullable()
  @IsString()
  lastAt!: string | null;
}

/** Batches whose waiting messages may have gone out. */
export class DoubtRequest {
  @IsArray()
  @ArrayMaxSize(10_000)
  @IsInt({ each: true })
  batchIds!: number[];
}

/** When backups are taken by themselves. */
export class BackupRequest {
  @IsBoolean()
  isOn!: boolean;

  @IsInt()
  @Min(1)
  @Max(24 * 31)
  everyHours!: number;

  /** How many are kept; older ones are removed. */
  @IsInt()
  @Min(1)
  @Max(1000)
  keep!: number;
}

export class BackupsAnswer extends BackupRequest {
  /** Where they lie, on the machine of the server. */
  @IsString()
  folder!: string;

  @IsBoolean()
  running!: boolean;

  @IsArray()
  @IsObject({ each: true })
  backups!: { name: string; size: number; takenAt: string }[];

  /** Why the last one could not be taken; null: it could. */
  @Nullable()
  @IsObject()
  failed!: { at: string; code: string; message: string } | null;
}

export class SelfCheckAnswer {
  @IsBoolean()
  running!: boolean;

  /** Null: none has ended yet. */
  @Nullable()
  @IsObject()
  last!: {
    at: string;
    thorough: boolean;
    copies: number;
    faults: {
      kind:
        'database' | 'copies-missing' | 'copies-changed' | 'templates-missing' | 'sources-missing' | 'attachments-missing' | 'key-missing';
      count: number;
      names: string[];
    }[];
  } | null;
}
