import { DeskAnswer, FindAnswer } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import type { Account } from '@mailbag/contract';
import { Controller, Get, Query } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { SignedIn } from '../accounts/session.guard.js';
import { DeskService } from './desk.service.js';

@Controller('api')
export class DeskController {
  constructor(private readonly desk: DeskService) {}

  @Answers(DeskAnswer)
  @Get('desk')
  @WithoutValues()
  look(): Promise<DeskAnswer> {
    return this.desk.desk();
  }

  @Answers(FindAnswer)
  @Get('find')
  @WithoutValues()
  find(@SignedIn() account: Account, @Query('text') text = ''): Promise<FindAnswer> {
    return this.desk.find(text.slice(0, 200), account);
  }
}
