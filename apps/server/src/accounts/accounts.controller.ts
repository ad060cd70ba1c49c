import { AccountAnswer, SetUpRequest, SignInRequest } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Body, Controller, Get, HttpCode, Post, Req, Res } from '@nestjs/common';
import type { Request, Response } from 'express';
import { config } from '../platform/config.js';
import { AccountsService } from './accounts.service.js';
import { clearSessionCookie, sessionToken, setSessionCookie } from './session-cookie.js';
import { OpenToEverybody } from './session.guard.js';

@Controller('api/account')
export class AccountsController {
  constructor(private readonly accounts: AccountsService) {}

  @Answers(AccountAnswer)
  @Get()
  @OpenToEverybody()
  async who(@Req() request: Request): Promise<AccountAnswer> {
    const account = await this.accounts.accountOf(sessionToken(request));
    return { account, setUpNeeded: await this.accounts.isSetUpNeeded(), postOffice: account !== null && config.postOffice };
  }

  @Post('set-up')
  @HttpCode(204)
  @OpenToEverybody()
  async setUp(@Body() body: SetUpRequest, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    setSessionCookie(response, await this.accounts.setUp(body, request.ip ?? ''));
  }

  @Post('sign-in')
  @HttpCode(204)
  @OpenToEverybody()
  async signIn(@Body() body: SignInRequest, @Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    setSessionCookie(response, await this.accounts.signIn(body, request.ip ?? ''));
  }

  @Post('sign-out')
  @HttpCode(204)
  @OpenToEverybody()
  async signOut(@Req() request: Request, @Res({ passthrough: true }) response: Response): Promise<void> {
    await this.accounts.signOut(sessionToken(request));
    clearSessionCookie(response);
  }
}
