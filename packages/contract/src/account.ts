import { Type } from 'class-transformer';
import { IsArray, IsBoolean, IsEmail, IsIn, IsNumber, IsOptional, IsString, MaxLength, MinLength, ValidateNested } from 'class-validator';
import { Nullable } from './nullable.js';

/** What an account may do: everything; everything but settings and people; only look. */
export const roles = ['administrator', 'operator', 'viewer'] as const;
export type Role = (typeof roles)[number];

/** Languages that Mailbag speaks (ISO 639-1); empty: that of the browser, where it is one of them. */
export const spokenLanguages = ['', 'en', 'de'] as const;
export type SpokenLanguage = (typeof spokenLanguages)[number];

/** In which language one's own account is spoken to. */
export class LanguageRequest {
  @IsIn(spokenLanguages, { message: 'Mailbag does not speak this language.' })
  language!: SpokenLanguage;
}

/** Of what one is told by mail. */
export class MailWishRequest {
  @IsBoolean()
  mailsBatches!: boolean;
}

/** Setting up the first administrator. */
export class SetUpRequest {
  @IsString()
  @MinLength(1, { message: 'Give your name.' })
  @MaxLength(100)
  name!: string;

  @IsEmail({}, { message: 'That is not an e-mail address.' })
  email!: string;

  @IsString()
  @MinLength(10, { message: 'A password has at least 10 characters.' })
  @MaxLength(200)
  password!: string;
}

export class SignInRequest {
  @IsString()
  @MaxLength(254)
  email!: string;

  @IsString()
  @MaxLength(200)
  password!: string;
}

export class Account {
  @IsNumber()
  id!: number;

  @IsString()
  name!: string;

  @IsString()
  email!: string;

  @IsIn(['administrator', 'operator', 'viewer'])
  role!: Role;

  /** Whether values of records, and so the copies themselves, are shown. */
  @IsBoolean()
  seesValues!: boolean;

  /** Whether passwords of copies are shown. */
  @IsBoolean()
  seesPasswords!: boolean;

  @IsIn(spokenLanguages)
  language!: SpokenLanguage;

  /** Whether they are told by mail when a long batch of theirs ended. */
  @IsBoolean()
  mailsBatches!: boolean;
}

/** An account as administrators see it. */
export class PersonAnswer extends Account {
  @IsBoolean()
  closed!: boolean;

  @Nullable()
  @IsString()
  lastSeenAt!: string | null;

  /** Browsers that are signed in. */
  @IsNumber()
  sessions!: number;
}

export class InvitationAnswer {
  @IsString()
  id!: string;

  @IsString()
  name!: string;

  @IsString()
  email!: string;

  @IsIn(['administrator', 'operator', 'viewer'])
  role!: Role;

  @IsString()
  who!: string;

  @IsString()
  expiresAt!: string;
}

export class PeopleAnswer {
  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => PersonAnswer)
  people!: PersonAnswer[];

  @IsArray()
  @ValidateNested({ each: true })
  @Type(() => InvitationAnswer)
  invitations!: InvitationAnswer[];
}

export class PersonRequest {
  @IsString()
  @MinLength(1, { message: 'Give a name.' })
  @MaxLength(100)
  name!: string;

  @IsIn(roles)
  role!: Role;

  @IsBoolean()
  seesValues!: boolean;

  @IsBoolean()
  seesPasswords!: boolean;

  /** True: cannot sign in any more. */
  @IsOptional()
  @IsBoolean()
  closed?: boolean;
}

export class InvitationRequest extends PersonRequest {
  @IsEmail({}, { message: 'That is not an e-mail address.' })
  email!: string;
}

/** The invitation that was made; `address` is where it leads, for giving it by hand. `failure`: why it could not be mailed; null: it was. */
export class InvitedAnswer {
  @IsString()
  address!: string;

  @Nullable()
  @IsString()
  failure!: string | null;
}

export class AcceptInvitationRequest {
  @IsString()
  @MaxLength(100)
  token!: string;

  @IsString()
  @MinLength(10, { message: 'A password has at least 10 characters.' })
  @MaxLength(200)
  password!: string;
}

export class PasswordRequest {
  @IsString()
  @MaxLength(200)
  before!: string;

  @IsString()
  @MinLength(10, { message: 'A password has at least 10 characters.' })
  @MaxLength(200)
  password!: string;
}

/** One line of who did what. */
export class HistoryLine {
  @IsNumber()
  id!: number;

  @IsString()
  at!: string;

  @IsString()
  who!: string;

  @IsString()
  action!: string;

  @IsString()
  subject!: string;

  @Nullable()
  @IsString()
  detail!: string | null;
}

/** Who is signed in, and what the sign-in page needs to know. */
export class AccountAnswer {
  @Nullable()
  @ValidateNested()
  @Type(() => Account)
  account!: Account | null;

  /** True until the first administrator is set up. */
  @IsBoolean()
  setUpNeeded!: boolean;

  /** True where a stand-in post office can be looked at. */
  @IsBoolean()
  postOffice!: boolean;
}
