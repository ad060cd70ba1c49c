import { IsDetail } from './is-detail.js';
import type { Detail } from '@mailbag/core';
import { Type } from 'class-transformer';
import {
  ArrayMaxSize,
  IsArray,
  IsBoolean,
  IsIn,
  IsInt,
  IsNumber,
  IsObject,
  IsOptional,
  IsString,
  Max,
  MaxLength,
  Min,
  MinLength,
  ValidateNested,
} from 'class-validator';
import { Nullable } from './nullable.js';

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

  /** Why it failed; empty: it did not. */
  @IsDetail()
  answer!: Detail;
}

export class MailTestAnswer {
  @IsBoolean()
  ok!: boolean;

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => MailTestStep)
  steps!: MailTestStep[];

  /** The whole in a sentence. */
  @IsDetail()
  answer!: Detail;
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
  rest!: { detail: Detail; until: string } | null;
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
