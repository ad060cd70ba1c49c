import type { CorrectionAnswer } from '@mailbag/contract';
import { AcceptRequest, CorrectionRequest, MendRequest } from '@mailbag/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { Who } from '../accounts/session.guard.js';
import { MailingChecks } from '../mailings/mailing-checks.service.js';
import { CorrectionsService } from './corrections.service.js';
import type { Principal } from '../platform/principal.js';

@Controller('api')
export class CorrectionsController {
  constructor(
    private readonly corrections: CorrectionsService,
    private readonly checks: MailingChecks,
  ) {}

  @Get('sources/:id/corrections')
  list(@Param('id', ParseIntPipe) id: number): Promise<CorrectionAnswer[]> {
    return this.corrections.list(id);
  }

  @Post('sources/:id/corrections')
  correct(
    @Param('id', ParseIntPipe) id: number,
    @Body() body: CorrectionRequest,
    @Who() who: Principal,
  ): Promise<{ changed: number; step: string }> {
    return this.corrections.correct(id, [body], who);
  }

  @Delete('sources/:id/corrections/:correctionId')
  undo(
    @Param('id', ParseIntPipe) id: number,
    @Param('correctionId', ParseIntPipe) correctionId: number,
    @Who() who: Principal,
  ): Promise<{ changed: number }> {
    return this.corrections.undo(id, { id: correctionId }, who);
  }

  @Delete('sources/:id/steps/:step')
  undoStep(@Param('id', ParseIntPipe) id: number, @Param('step') step: string, @Who() who: Principal): Promise<{ changed: number }> {
    return this.corrections.undo(id, { step }, who);
  }

  @Post('mailings/:id/mends')
  mend(
    @Param('id', ParseIntPipe) id: number,
    @Body() body: MendRequest,
    @Who() who: Principal,
  ): Promise<{ changed: number; step: string }> {
    return this.corrections.mend(id, body, who);
  }

  @Post('mailings/:id/acceptances')
  accept(@Param('id', ParseIntPipe) id: number, @Body() body: AcceptRequest, @Who() who: Principal): Promise<{ accepted: number }> {
    return this.checks.accept(id, body, who);
  }

  @Delete('mailings/:id/acceptances/:acceptanceId')
  @HttpCode(204)
  reject(@Param('id', ParseIntPipe) id: number, @Param('acceptanceId', ParseIntPipe) acceptanceId: number): Promise<void> {
    return this.checks.takeBackAcceptance(id, acceptanceId);
  }
}
