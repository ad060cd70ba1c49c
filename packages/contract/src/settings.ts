import { IsBoolean, IsInt, IsOptional, IsString, Max, MaxLength, Min, MinLength, IsEmail } from 'class-validator';

/** The mail server and the sender. */
export class MailSettingsRequest {
  @IsString()
  @MinLength(1, { message: 'Give the name of the mail server.' })
  @MaxLength(253)
  host!: string;

  @IsInt()
  @Min(1)
  @Max(65535)
  port!: number;

  /** TLS from the first byte on; otherwise STARTTLS where the server offers it. */
  @IsBoolean()
  tls!: boolean;

  @IsString()
  @MaxLength(254)
  user!: string;

  /** Left out: the stored one stays. */
  @IsOptional()
  @IsString()
  @MaxLength(500)
  password?: string;

  @IsString()
  @MaxLength(50, { message: 'The display name has at most 50 characters.' })
  senderName!: string;

  @IsEmail({}, { message: 'The sender needs an e-mail address.' })
  senderAddress!: string;
}

export interface MailSettingsAnswer {
  host: string;
  port: number;
  tls: boolean;
  user: string;
  hasPassword: boolean;
  senderName: string;
  senderAddress: string;
  configured: boolean;
  /** Minutes between tries, as they are at the present pace. */
  retryMinutes: number[];
}

export interface MailTestAnswer {
  ok: boolean;
  said: string;
}
