import {
  AcceptInvitationRequest,
  InvitationRequest,
  InvitedAnswer,
  InvitedPerson,
  LanguageRequest,
  MailWishRequest,
  PasswordRequest,
  PeopleAnswer,
  PersonRequest,
} from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import type { Account } from '@mailbag/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query, Req, Res } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import type { Request, Response } from 'express';
import { AccountsService } from '../accounts/accounts.service.js';
import { sessionToken, setSessionCookie } from '../accounts/session-cookie.js';
import { ownAddress } from '../accounts/origin.js';
import { Needs, OpenToEverybody, SignedIn, Who } from '../accounts/session.guard.js';
import { Invitations } from './invitations.service.js';
import type { Principal } from '../platform/principal.js';

@Controller('api/people')
@WithoutValues()
@Needs('administrator')
export class PeopleController {
  constructor(
    private readonly accounts: AccountsService,
    private readonly invitations: Invitations,
  ) {}

  @Answers(PeopleAnswer)
  @Get()
  people(): Promise<PeopleAnswer> {
    return this.accounts.peopleAnswer();
  }

  @Answers(PeopleAnswer)
  @Put(':id')
  save(@Param('id', ParseIntPipe) id: number, @Body() body: PersonRequest): Promise<PeopleAnswer> {
    return this.accounts.savePerson(id, body);
  }

  @Answers(PeopleAnswer)
  @Post(':id/sign-out')
  @HttpCode(200)
  async signOut(@Param('id', ParseIntPipe) id: number): Promise<PeopleAnswer> {
    await this.accounts.signOutEverywhere(id);
    return this.accounts.peopleAnswer();
  }

  @Answers(InvitedAnswer)
  @Post('invitations')
  invite(@Body() body: InvitationRequest, @Who() who: Principal, @Req() request: Request): Promise<InvitedAnswer> {
    return this.invitations.invite(body, who, ownAddress(request));
  }

  @Answers(PeopleAnswer)
  @Delete('invitations/:id')
  takeBack(@Param('id') id: string): Promise<PeopleAnswer> {
    return this.accounts.takeBack(id);
  }

  /** Who an invitation is for. */
  @Answers(InvitedPerson)
  @Get('invitation')
  @OpenToEverybody()
  invitation(@Req() request: Request, @Query('token') token = ''): Promise<InvitedPerson> {
    return this.accounts.invitation(token, request.ip ?? '');
  }

  @Post('invitation')
  @HttpCode(204)
  @OpenToEverybody()
  async accept(
    @Body() body: AcceptInvitationRequest,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<void> {
    setSessionCookie(response, await this.accounts.accept(body, request.ip ?? ''));
  }

  /** Ends all other sessions of one's own account. */
  @Post('me/sign-out-elsewhere')
  @HttpCode(204)
  @Needs('viewer')
  signOutElsewhere(@SignedIn() { id }: Account, @Req() request: Request): Promise<void> {
    return this.accounts.signOutEverywhere(id, sessionToken(request));
  }

  /** In which language one is spoken to. */
  @Put('me/language')
  @HttpCode(204)
  @Needs('viewer')
  language(@SignedIn() { id }: Account, @Body() body: LanguageRequest): Promise<void> {
    return this.accounts.speakTo(id, body);
  }

  /** Of what one is told by mail. */
  @Put('me/mails')
  @HttpCode(204)
  @Needs('viewer')
  mails(@SignedIn() { id }: Account, @Body() body: MailWishRequest): Promise<void> {
    return this.accounts.tellByMail(id, body);
  }

  @Post('me/password')
  @HttpCode(204)
  @Needs('viewer')
  password(@SignedIn() { id }: Account, @Body() body: PasswordRequest, @Req() request: Request): Promise<void> {
    return this.accounts.changePassword(id, body, sessionToken(request), request.ip ?? '');
  }
}
