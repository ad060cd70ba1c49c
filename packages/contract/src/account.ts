import { IsBoolean, IsEmail, IsIn, IsOptional, IsString, MaxLength, MinLength } from 'class-validator';

/** What an account may do: everything; everything but settings and people; only look. */
export const roles = ['administrator', 'operator', 'viewer'] as const;
export type Role = (typeof roles)[number];

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

export interface Account {
  id: number;
  name: string;
  email: string;
  role: Role;
  /** Whether values of records, and so the copies themselves, are shown. */
  seesValues: boolean;
  /** Whether passwords of copies are shown. */
  seesPasswords: boolean;
}

/** An account as administrators see it. */
export interface PersonAnswer extends Account {
  closed: boolean;
  lastSeenAt: string | null;
  /** Browsers that are signed in. */
  sessions: number;
}

export interface InvitationAnswer {
  id: string;
  name: string;
  email: string;
  role: Role;
  who: string;
  expiresAt: string;
}

export interface PeopleAnswer {
  people: PersonAnswer[];
  invitations: InvitationAnswer[];
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

/** The invitation that was made; `address` is where it leads, for giving it by hand. `said`: why it could not be mailed; null: it was. */
export interface InvitedAnswer {
  address: string;
  said: string | null;
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
export interface HistoryLine {
  id: number;
  at: string;
  who: string;
  action: string;
  subject: string;
  detail: string | null;
}

/** Who is signed in, and what the sign-in page needs to know. */
export interface AccountAnswer {
  account: Account | null;
  /** True until the first administrator is set up. */
  setUpNeeded: boolean;
  /** True where a stand-in post office can be looked at. */
  postOffice: boolean;
}
