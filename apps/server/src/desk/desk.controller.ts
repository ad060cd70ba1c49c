import { CourseAnswer, CourseQuery, DeskAnswer, FindAnswer } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import type { Account } from '@mailbag/contract';
import { Controller, Get, Query } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { SignedIn } from '../accounts/session.guard.js';
import { Course } from './course.service.js';
import { DeskService } from './desk.service.js';

@Controller('api')
export class DeskController {
  constructor(
    private readonly desk: DeskService,
    private readonly course: Course,
  ) {}

  @Answers(DeskAnswer)
  @Get('desk')
  @WithoutValues()
  look(): Promise<DeskAnswer> {
    return this.desk.desk();
  }

  @Answers(CourseAnswer)
  @Get('desk/course')
  @WithoutValues()
  over(@Query() { span }: CourseQuery): Promise<CourseAnswer> {
    return this.course.over(span);
  }

  @Answers(FindAnswer)
  @Get('find')
  @WithoutValues()
  find(@SignedIn() account: Account, @Query('text') text = ''): Promise<FindAnswer> {
    return this.desk.find(text.slice(0, 200), account);
  }
}
