import type { Detail } from '@mailbag/core';
import { IsDetail } from './is-detail.js';
import { IsBoolean, IsInt, IsNumber, IsOptional, IsString } from 'class-validator';

/** What a change came to. */
export class ChangedAnswer {
  /** Values that are another now. */
  @IsInt()
  changed!: number;

  /** The step by which it can be taken back. */
  @IsOptional()
  @IsString()
  step?: string;
}

export class AcceptedAnswer {
  @IsInt()
  accepted!: number;
}

export class RemindedAnswer {
  @IsInt()
  reminded!: number;
}

export class RelinkedAnswer {
  @IsInt()
  mailings!: number;
}

/** What somebody else's server said. */
export class TestedAnswer {
  @IsDetail()
  answer!: Detail;
}

/** A file that was taken in, by the number under which it is kept. */
export class StoredFileAnswer {
  @IsString()
  fileId!: string;

  @IsString()
  fileName!: string;
}

/** Place of a record; -1: there is none. */
export class RecordPlace {
  @IsNumber()
  index!: number;
}

export class HealthAnswer {
  @IsBoolean()
  ok!: boolean;
}

/** Whom an invitation is for. */
export class InvitedPerson {
  @IsString()
  name!: string;

  @IsString()
  email!: string;
}
