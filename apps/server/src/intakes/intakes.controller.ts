import {
  AskedBackAnswer,
  IntakeBoxRequest,
  IntakeChangesAnswer,
  IntakeChangesRequest,
  IntakeCreateRequest,
  IntakeDetail,
  IntakeSummary,
  IntakeTrialRequest,
  IntakeWordRequest,
  SettleRequest,
  SubmissionCopy,
  SubmissionsAnswer,
  TrialAnswer,
} from '@mailbag/contract';
import type { Account } from '@mailbag/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query, Req } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import type { Request } from 'express';
import { ownAddress } from '../accounts/origin.js';
import { SignedIn, TakesMegabytes, Who } from '../accounts/session.guard.js';
import { Answers } from '../platform/answers.js';
import type { Principal } from '../platform/principal.js';
import { IntakesService } from './intakes.service.js';
import { IntakeTrials } from './intake-trials.service.js';
import { PersonalLinks } from './personal-links.service.js';
import { SignatureBoxes } from './signature-boxes.service.js';
import { Submissions } from './submissions.service.js';

/** Intakes, for those who make them. What strangers reach is in `public/`. */
@Controller('api/intakes')
export class IntakesController {
  constructor(
    private readonly intakes: IntakesService,
    private readonly submissions: Submissions,
    private readonly personal: PersonalLinks,
    private readonly intakeTrials: IntakeTrials,
    private readonly boxes: SignatureBoxes,
  ) {}

  @Answers([IntakeSummary])
  @Get()
  @WithoutValues()
  list(): Promise<IntakeSummary[]> {
    return this.intakes.list();
  }

  @Answers(IntakeDetail)
  @Post()
  @WithoutValues()
  create(@Body() body: IntakeCreateRequest): Promise<IntakeDetail> {
    return this.intakes.create(body);
  }

  @Answers(IntakeDetail)
  @Get(':id')
  @WithoutValues()
  detail(@Param('id', ParseIntPipe) id: number): Promise<IntakeDetail> {
    return this.intakes.detail(id);
  }

  @Answers(IntakeChangesAnswer)
  @Post(':id/changes')
  @HttpCode(200)
  @WithoutValues()
  @TakesMegabytes(4)
  change(@Param('id', ParseIntPipe) id: number, @Body() { changes }: IntakeChangesRequest): Promise<IntakeChangesAnswer> {
    return this.intakes.change(id, changes);
  }

  /** Draws a box on one of its forms, in which the answer of a question stands. */
  @Answers(IntakeDetail)
  @Post(':id/boxes')
  @HttpCode(200)
  @WithoutValues()
  drawBox(@Param('id', ParseIntPipe) id: number, @Body() body: IntakeBoxRequest): Promise<IntakeDetail> {
    return this.boxes.draw(id, body);
  }

  /** Whether a word is free: an error says why it is not. */
  @Get(':id/words/:word')
  @HttpCode(204)
  @WithoutValues()
  word(@Param('id', ParseIntPipe) id: number, @Param('word') word: string): Promise<void> {
    return this.intakes.assertWord(id, word);
  }

  @Answers(IntakeDetail)
  @Put(':id/word')
  @WithoutValues()
  setWord(@Param('id', ParseIntPipe) id: number, @Body() { word }: IntakeWordRequest): Promise<IntakeDetail> {
    return this.intakes.setWord(id, word);
  }

  @Answers(IntakeDetail)
  @Post(':id/publish')
  @HttpCode(200)
  @WithoutValues()
  publish(@Param('id', ParseIntPipe) id: number, @Who() who: Principal): Promise<IntakeDetail> {
    return this.intakes.publish(id, who);
  }

  /** Tries it with answers that nobody has given. */
  @Answers(TrialAnswer)
  @Post(':id/trial')
  @TakesMegabytes(4)
  tryOut(@Param('id', ParseIntPipe) id: number, @Body() body: IntakeTrialRequest, @SignedIn() account: Account): Promise<TrialAnswer> {
    return this.intakeTrials.make(id, body, account);
  }

  @Answers(SubmissionsAnswer)
  @Get(':id/submissions')
  answered(
    @Param('id', ParseIntPipe) id: number,
    @Query('from', ParseIntPipe) from: number,
    @Query('count', ParseIntPipe) count: number,
    @Query('text') text = '',
    @Query('only') only = 'all',
  ): Promise<SubmissionsAnswer> {
    const kind = only === 'without-copies' || only === 'corrects' ? only : 'all';
    return this.submissions.page(id, { text: text.slice(0, 200), only: kind }, from, Math.min(count, 500));
  }

  @Answers([SubmissionCopy])
  @Get(':id/submissions/:submission/copies')
  copies(@Param('id', ParseIntPipe) id: number, @Param('submission', ParseIntPipe) submission: number): Promise<SubmissionCopy[]> {
    return this.submissions.copies(id, submission);
  }

  @Delete(':id/submissions/:submission')
  @HttpCode(204)
  removeAnswer(@Param('id', ParseIntPipe) id: number, @Param('submission', ParseIntPipe) submission: number): Promise<void> {
    return this.submissions.remove(id, submission);
  }

  /** Makes a link at which the visitor mends their answer. */
  @Answers(AskedBackAnswer)
  @Post(':id/submissions/:submission/ask-back')
  @HttpCode(200)
  askBack(
    @Param('id', ParseIntPipe) id: number,
    @Param('submission', ParseIntPipe) submission: number,
    @Req() request: Request,
  ): Promise<AskedBackAnswer> {
    return this.submissions.askBack(id, submission, ownAddress(request));
  }

  /** Takes what a recipient corrected over into the source, or leaves it aside. */
  @Post(':id/submissions/:submission/settle')
  @HttpCode(204)
  settle(
    @Param('id', ParseIntPipe) id: number,
    @Param('submission', ParseIntPipe) submission: number,
    @Body() { accepted }: SettleRequest,
    @Who() who: Principal,
  ): Promise<void> {
    return this.personal.settle(id, submission, accepted, who);
  }
}
