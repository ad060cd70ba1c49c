import {
  LayoutAidsAnswer,
  LayoutAnswer,
  LayoutChangesAnswer,
  LayoutChangesRequest,
  LayoutUseRequest,
  RevisionSummary,
} from '@mailbag/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Query } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Answers } from '../platform/answers.js';
import { TakesMegabytes } from '../accounts/session.guard.js';
import { LayoutsService } from './layouts.service.js';

/** What is drawn on a template. */
@Controller('api/templates/:id/layout')
@WithoutValues()
export class LayoutsController {
  constructor(private readonly layouts: LayoutsService) {}

  @Answers(LayoutAnswer)
  @Get()
  layout(@Param('id', ParseIntPipe) id: number): Promise<LayoutAnswer> {
    return this.layouts.layout(id);
  }

  @Answers(LayoutAidsAnswer)
  @Get('aids')
  aids(@Param('id', ParseIntPipe) id: number, @Query('revision', ParseIntPipe) revision: number): Promise<LayoutAidsAnswer> {
    return this.layouts.aids(id, revision);
  }

  /** Changes, said over the version in which they were made; made in the one that is there. */
  @Answers(LayoutChangesAnswer)
  @Post('changes')
  @HttpCode(200)
  @TakesMegabytes(16)
  change(@Param('id', ParseIntPipe) id: number, @Body() { changes }: LayoutChangesRequest): Promise<LayoutChangesAnswer> {
    return this.layouts.change(id, changes);
  }

  @Answers(RevisionSummary)
  @Post('use')
  use(@Param('id', ParseIntPipe) id: number, @Body() { version }: LayoutUseRequest): Promise<RevisionSummary> {
    return this.layouts.use(id, version);
  }

  @Answers(LayoutAnswer)
  @Delete()
  discard(@Param('id', ParseIntPipe) id: number): Promise<LayoutAnswer> {
    return this.layouts.discard(id);
  }
}
