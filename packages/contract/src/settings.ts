import type { Said } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsEmail,
  IsIn,
  IsInt,
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

export class MailServerRequest {
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

  /** Left out: the stored one stays. */
  @IsOptional()
  @IsString()
  @MaxLength(500)
  password?: string;

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

/** One step of a test: connecting, greeting, securing, signing in. */
export interface MailTestStep {
  step: 'connect' | 'greet' | 'secure' | 'sign in';
  ok: boolean;
  said: string;
}

export interface MailTestAnswer {
  ok: boolean;
  steps: MailTestStep[];
  /** The whole in a sentence. */
  said: string;
}

export interface MailServerAnswer extends Omit<MailServerRequest, 'password'> {
  id: number;
  hasPassword: boolean;
  senders: number;
  /** Why it rests, and until when; null: it does not. */
  rest: { said: Said; until: string } | null;
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

export interface SenderAnswer {
  id: number;
  serverId: number;
  serverName: string;
  name: string;
  address: string;
  replyTo: string | null;
  dkimDomain: string;
  dkimSelector: string;
  hasDkimKey: boolean;
  confirmed: boolean;
  /** Until when the code that was mailed holds, and how many tries are left; null: none was mailed. */
  code: { until: string; triesLeft: number } | null;
}

/** Where bounces come in. */
export class BouncesRequest {
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

  @IsOptional()
  @IsString()
  @MaxLength(500)
  password?: string;

  @IsString()
  @MaxLength(100)
  folder!: string;

  /** Port on which bounces are taken by SMTP; 0: none. */
  @IsInt()
  @Min(0)
  @Max(65535)
  smtpPort!: number;
}

export interface BouncesAnswer extends Omit<BouncesRequest, 'password'> {
  hasPassword: boolean;
  /** The last look into the mailbox. */
  lastLook: { at: string; ok: boolean; said: Said } | null;
  /** Port on which bounces are really taken; null: none. */
  listening: number | null;
}

/** A message that came to the bounce mailbox. */
export interface IncomingReport {
  id: number;
  at: string;
  way: 'imap' | 'smtp';
  kind: 'bounce' | 'delay' | 'delivered' | 'answer' | 'other' | 'unreadable';
  sender: string;
  subject: string;
  said: Said | null;
  /** Why a person has to say whether it is true; null: it is beyond doubt. */
  doubt: Said | null;
  settled: 'bounced' | 'dismissed' | null;
  copyId: number | null;
}

/** A person's word about a report in doubt. */
export class ReportDecision {
  @IsBoolean()
  isBounce!: boolean;
}

/** What holds for all mail. */
export interface MailRulesAnswer {
  /** Minutes between tries, as they are at the present pace. */
  retryMinutes: number[];
  timeZone: string;
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

export interface RetentionAnswer extends RetentionRequest {
  lastRun: { at: string; records: number; copies: number; sources: number } | null;
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

export interface PrinterAnswer {
  id: number;
  name: string;
  uri: string;
}
