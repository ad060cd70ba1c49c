import type { Detail } from '@mailbag/core';
import { IsBoolean, IsIn, IsInt, IsNumber, IsObject, IsOptional, IsString, Matches, Max, MaxLength, Min } from 'class-validator';
import { IsDetail } from './is-detail.js';
import { Nullable } from './nullable.js';

/** Where bounces come in. */
export class BouncesFacts {
  /** The address that bounces are led back to, with a token behind a plus; empty: to the sender's own. */
  @IsString()
  @MaxLength(254)
  @Matches(/^$|^[^@\s+]+@[^@\s]+$/, { message: 'The bounce address is an e-mail address without a plus.' })
  address!: string;

  /** Mailbox that is read by IMAP; host empty: none. */
  @IsString()
  @MaxLength(253)
  host!: string;

  @IsInt()
  @Min(0)
  @Max(65535)
  port!: number;

  @IsBoolean()
  tls!: boolean;

  @IsBoolean()
  checkCertificate!: boolean;

  @IsString()
  @MaxLength(254)
  user!: string;

  @IsString()
  @MaxLength(100)
  folder!: string;

  /** Port on which bounces are taken by SMTP; 0: none. */
  @IsInt()
  @Min(0)
  @Max(65535)
  smtpPort!: number;
}

export class BouncesRequest extends BouncesFacts {
  @IsOptional()
  @IsString()
  @MaxLength(500)
  password?: string;
}

export class BouncesAnswer extends BouncesFacts {
  @IsBoolean()
  hasPassword!: boolean;

  /** The last look into the mailbox. */
  @Nullable()
  @IsObject()
  lastLook!: { at: string; ok: boolean; detail: Detail } | null;

  /** Port on which bounces are really taken; null: none. */
  @Nullable()
  @IsNumber()
  listening!: number | null;
}

/** A message that came to the bounce mailbox. */
export class IncomingReport {
  @IsNumber()
  id!: number;

  @IsString()
  at!: string;

  @IsIn(['imap', 'smtp'])
  way!: 'imap' | 'smtp';

  @IsIn(['bounce', 'delay', 'delivered', 'answer', 'other', 'unreadable'])
  kind!: 'bounce' | 'delay' | 'delivered' | 'answer' | 'other' | 'unreadable';

  @IsString()
  sender!: string;

  @IsString()
  subject!: string;

  @Nullable()
  @IsDetail()
  detail!: Detail | null;

  /** Why a person has to say whether it is true; null: it is beyond doubt. */
  @Nullable()
  @IsDetail()
  doubt!: Detail | null;

  @Nullable()
  @IsIn(['bounced', 'dismissed'])
  settled!: 'bounced' | 'dismissed' | null;

  @Nullable()
  @IsNumber()
  copyId!: number | null;
}

/** A person's word about a report in doubt. */
export class ReportDecision {
  @IsBoolean()
  isBounce!: boolean;
}
