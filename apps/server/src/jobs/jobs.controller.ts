import { JobsAnswer } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Needs } from '../accounts/session.guard.js';
import { Jobs } from './jobs.service.js';

@Controller('api/jobs')
@WithoutValues()
@Needs('administrator')
export class JobsController {
  constructor(private readonly jobs: Jobs) {}

  @Answers(JobsAnswer)
  @Get()
  list(): Promise<JobsAnswer> {
    return this.jobs.answer();
  }

  @Answers(JobsAnswer)
  @Post(':id/again')
  @HttpCode(200)
  again(@Param('id', ParseIntPipe) id: number): Promise<JobsAnswer> {
    return this.jobs.tryAgain(id);
  }
}
