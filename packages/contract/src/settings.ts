import type { Said } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  IsTimeZone,
  Matches,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateIf,
  ValidateNested,
} from 'class-validator';
import { Nullable } from './nullable.js';
import { IsSaid } from './is-said.js';

export type MailSecurity = 'tls' | 'starttls' | 'none';

/** Hours in which mail may leave, in the time zone of the server. */
export class SendHours {
  /** Minutes of the day. */
  @IsInt()
  @Min(0)
  @Max(1439)
  from!: number;

  @IsInt()
  @Min(0)
  @Max(1440)
  until!: number;

  /** 1 Monday to 7 Sunday. */
  @IsArray()
  @ArrayMaxSize(7)
  @IsInt({ each: true })
  days!: number[];
}

export class MailServerFacts {
  @IsString()
  @MinLength(1, { message: 'Give the server a name by which you know it.' })
  @MaxLength(60)
  name!: string;

  @IsString()
  @MinLength(1, { message: 'Give the name of the mail server.' })
  @MaxLength(253)
  host!: string;

  @IsInt()
  @Min(1)
  @Max(65535)
  port!: number;

  /** `tls`: from the first byte on. `starttls`: after the greeting, refused without it. `none`: only where the server offers it. */
  @IsIn(['tls', 'starttls', 'none'])
  security!: MailSecurity;

  /** False: certificates that nobody vouches for are taken too. */
  @IsBoolean()
  checkCertificate!: boolean;

  @IsString()
  @MaxLength(254)
  user!: string;

  /** 0: as many as can. */
  @IsInt()
  @Min(0)
  @Max(100_000)
  perMinute!: number;

  @IsInt()
  @Min(0)
  @Max(1_000_000)
  perHour!: number;

  @IsInt()
  @Min(0)
  @Max(100_000)
  perDomainMinute!: number;

  /** Connections at the same time. */
  @IsInt()
  @Min(1)
  @Max(20)
  connections!: number;

  /** Largest message, in megabytes. */
  @IsInt()
  @Min(1)
  @Max(200)
  limitMb!: number;

  @IsOptional()
  @ValidateNested()
  @Type(() => SendHours)
  hours!: SendHours | null;
}

export class MailServerRequest extends MailServerFacts {
  /** Left out: the stored one stays. */
  @IsOptional()
  @IsString()
  @MaxLength(500)
  password?: string;
}

/** One step of a test: connecting, greeting, securing, signing in. */
export class MailTestStep {
  @IsIn(['connect', 'greet', 'secure', 'sign in'])
  step!: 'connect' | 'greet' | 'secure' | 'sign in';

  @IsBoolean()
  ok!: boolean;

  @IsString()
  said!: string;
}

export class MailTestAnswer {
  @IsBoolean()
  ok!: boolean;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => MailTestStep)
  steps!: MailTestStep[];

  /** The whole in a sentence. */
  @IsString()
  said!: string;
}

export class MailServerAnswer extends MailServerFacts {
  @IsNumber()
  id!: number;

  @IsBoolean()
  hasPassword!: boolean;

  @IsNumber()
  senders!: number;

  /** Why it rests, and until when; null: it does not. */
  @Nullable()
  @IsObject()
  rest!: { said: Said; until: string } | null;
}

export class SenderRequest {
  @IsInt()
  serverId!: number;

  @IsString()
  @MinLength(1, { message: 'Give the name that recipients see.' })
  @MaxLength(50, { message: 'The display name has at most 50 characters.' })
  name!: string;

  @IsEmail({}, { message: 'The sender needs an e-mail address.' })
  address!: string;

  @IsOptional()
  @IsEmail({}, { message: 'The address for answers is not an e-mail address.' })
  replyTo?: string | null;

  /** Domain and selector under which the public key stands (RFC 6376); empty: nothing is signed. */
  @IsOptional()
  @Matches(/^$|^([a-z0-9-]+\.)+[a-z]{2,}$/i, { message: 'The DKIM domain is written like example.org.' })
  dkimDomain?: string;

  @IsOptional()
  @Matches(/^$|^[a-z0-9._-]+$/i, { message: 'The DKIM selector has letters, digits, dots and dashes.' })
  @MaxLength(63)
  dkimSelector?: string;

  /** PEM; left out: the stored one stays. */
  @IsOptional()
  @IsString()
  @MaxLength(10_000)
  dkimKey?: string;
}

export class SenderCodeRequest {
  @Matches(/^\s*\d{3}\s?\d{3}\s*$/, { message: 'The code has six digits.' })
  code!: string;
}

export class SenderAnswer {
  @IsNumber()
  id!: number;

  @IsNumber()
  serverId!: number;

  @IsString()
  serverName!: string;

  @IsString()
  name!: string;

  @IsString()
  address!: string;

  @Nullable()
  @IsString()
  replyTo!: string | null;

  @IsString()
  dkimDomain!: string;

  @IsString()
  dkimSelector!: string;

  @IsBoolean()
  hasDkimKey!: boolean;

  @IsBoolean()
  confirmed!: boolean;

  /** Until when the code that was mailed holds, and how many tries are left; null: none was mailed. */
  @Nullable()
  @IsObject()
  code!: { until: string; triesLeft: number } | null;
}

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
  lastLook!: { at: string; ok: boolean; said: Said } | null;

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
  @IsSaid()
  said!: Said | null;

  /** Why a person has to say whether it is true; null: it is beyond doubt. */
  @Nullable()
  @IsSaid()
  doubt!: Said | null;

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

/** What holds for all mail. */
export class MailRulesAnswer {
  /** Minutes between tries, as they are at the present pace. */
  @IsArray()
  @IsNumber({}, { each: true })
  retryMinutes!: number[];

  @IsString()
  timeZone!: string;
}

export class OfficeRequest {
  /** One line above the address window (DIN 5008). */
  @IsString()
  @MaxLength(120)
  returnLine!: string;

  /** Two letters of ISO 3166-1. */
  @Matches(/^[A-Z]{2}$/, { message: 'The country has two letters, such as DE.' })
  country!: string;

  /** Where days begin and end, as the IANA time zone database names it; empty: where the server is. */
  @ValidateIf(({ timeZone }: OfficeRequest) => timeZone !== undefined && timeZone !== '')
  @IsTimeZone({ message: 'There is no such time zone.' })
  timeZone?: string;
}

export class RetentionRequest {
  /** Days after a batch has ended; 0: for ever. */
  @IsInt()
  @Min(0)
  @Max(36_500)
  recordDays!: number;

  @IsInt()
  @Min(0)
  @Max(36_500)
  copyDays!: number;

  /** Days after a source was read and its last batch has ended; 0: for ever. */
  @IsInt()
  @Min(0)
  @Max(36_500)
  sourceDays!: number;
}

export class RetentionAnswer extends RetentionRequest {
  @Nullable()
  @IsObject()
  lastRun!: { at: string; records: number; copies: number; sources: number } | null;
}

export class PrinterRequest {
  @IsString()
  @MinLength(1, { message: 'Give the printer a name.' })
  @MaxLength(60)
  name!: string;

  @Matches(/^ipps?:\/\/[^\s]+$/, { message: 'The address of a printer begins with ipp:// or ipps://.' })
  @MaxLength(300)
  uri!: string;
}

export class PrinterAnswer {
  @IsNumber()
  id!: number;

  @IsString()
  name!: string;

  @IsString()
  uri!: string;
}
