import { IsEmail, IsString, MaxLength, MinLength } from 'class-validator';

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
}

/** Who is signed in, and what the sign-in page needs to know. */
export interface AccountAnswer {
  account: Account | null;
  /** True until the first administrator is set up. */
  setUpNeeded: boolean;
  /** True where a stand-in post office can be looked at. */
  postOffice: boolean;
}
