import { RemindRequest, RemindedAnswer, ReminderAnswer } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Reminders } from './reminders.service.js';

@Controller('api/mailings')
export class RemindersController {
  constructor(private readonly reminders: Reminders) {}

  @Answers(ReminderAnswer)
  @Get(':id/reminders')
  @WithoutValues()
  answer(@Param('id', ParseIntPipe) id: number): Promise<ReminderAnswer> {
    return this.reminders.answer(id);
  }

  @Answers(RemindedAnswer)
  @Post(':id/remind')
  @HttpCode(200)
  @WithoutValues()
  async remind(@Param('id', ParseIntPipe) id: number, @Body() { all }: RemindRequest): Promise<RemindedAnswer> {
    return { reminded: await this.reminders.remind(id, all) };
  }
}
