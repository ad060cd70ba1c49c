import {
  AcceptRequest,
  AcceptedAnswer,
  ChangedAnswer,
  CorrectionAnswer,
  CorrectionRequest,
  CorrectionsRequest,
  MendRequest,
  ReplaceRequest,
} from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { TakesMegabytes, Who } from '../accounts/session.guard.js';
import { MailingChecks } from '../mailings/mailing-checks.service.js';
import { CorrectionsService } from './corrections.service.js';
import type { Principal } from '../platform/principal.js';

@Controller('api')
export class CorrectionsController {
  constructor(
    private readonly corrections: CorrectionsService,
    private readonly checks: MailingChecks,
  ) {}

  @Answers([CorrectionAnswer])
  @Get('sources/:id/corrections')
  list(@Param('id', ParseIntPipe) id: number): Promise<CorrectionAnswer[]> {
    return this.corrections.list(id);
  }

  @Answers(ChangedAnswer)
  @Post('sources/:id/corrections')
  correct(@Param('id', ParseIntPipe) id: number, @Body() body: CorrectionRequest, @Who() who: Principal): Promise<ChangedAnswer> {
    return this.corrections.correct(id, [body], who);
  }

  @Answers(ChangedAnswer)
  @Post('sources/:id/corrections/many')
  @TakesMegabytes(16)
  correctMany(@Param('id', ParseIntPipe) id: number, @Body() body: CorrectionsRequest, @Who() who: Principal): Promise<ChangedAnswer> {
    return this.corrections.correct(id, body.changes, who);
  }

  @Answers(ChangedAnswer)
  @Post('sources/:id/replacements')
  replace(@Param('id', ParseIntPipe) id: number, @Body() body: ReplaceRequest, @Who() who: Principal): Promise<ChangedAnswer> {
    return this.corrections.replace(id, body, who);
  }

  @Answers(ChangedAnswer)
  @Delete('sources/:id/corrections/:correctionId')
  undo(
    @Param('id', ParseIntPipe) id: number,
    @Param('correctionId', ParseIntPipe) correctionId: number,
    @Who() who: Principal,
  ): Promise<ChangedAnswer> {
    return this.corrections.undo(id, { id: correctionId }, who);
  }

  @Answers(ChangedAnswer)
  @Delete('sources/:id/steps/:step')
  undoStep(@Param('id', ParseIntPipe) id: number, @Param('step') step: string, @Who() who: Principal): Promise<ChangedAnswer> {
    return this.corrections.undo(id, { step }, who);
  }

  @Answers(ChangedAnswer)
  @Post('mailings/:id/mends')
  mend(@Param('id', ParseIntPipe) id: number, @Body() body: MendRequest, @Who() who: Principal): Promise<ChangedAnswer> {
    return this.corrections.mend(id, body, who);
  }

  @Answers(AcceptedAnswer)
  @Post('mailings/:id/acceptances')
  @TakesMegabytes(16)
  accept(@Param('id', ParseIntPipe) id: number, @Body() body: AcceptRequest, @Who() who: Principal): Promise<AcceptedAnswer> {
    return this.checks.accept(id, body, who);
  }

  @Delete('mailings/:id/acceptances/:acceptanceId')
  @HttpCode(204)
  reject(@Param('id', ParseIntPipe) id: number, @Param('acceptanceId', ParseIntPipe) acceptanceId: number): Promise<void> {
    return this.checks.takeBackAcceptance(id, acceptanceId);
  }
}
