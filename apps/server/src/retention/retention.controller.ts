import { RetentionAnswer, RetentionRequest } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Body, Controller, Get, HttpCode, Post, Put } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Needs } from '../accounts/session.guard.js';
import { Retention } from './retention.service.js';

@Controller('api/retention')
@WithoutValues()
@Needs('administrator')
export class RetentionController {
  constructor(private readonly retention: Retention) {}

  @Answers(RetentionAnswer)
  @Get()
  answer(): Promise<RetentionAnswer> {
    return this.retention.answer();
  }
  @Answers(RetentionAnswer)
  @Put()
  save(@Body() body: RetentionRequest): Promise<RetentionAnswer> {
    return this.retention.save(body);
  }
  /** Deletes now what is over its time. */
  @Answers(RetentionAnswer)
  @Post('run')
  @HttpCode(200)
  run(): Promise<RetentionAnswer> {
    return this.retention.run();
  }
}
