import { IsBoolean, IsEmail, IsInt, IsNumber, IsObject, IsOptional, IsString, Matches, MaxLength, MinLength } from 'class-validator';
import { Nullable } from './nullable.js';

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
