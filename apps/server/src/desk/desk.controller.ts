import type { DeskAnswer, FindAnswer } from '@mailbag/contract';
import { Controller, Get, Query } from '@nestjs/common';
import { DeskService } from './desk.service.js';

@Controller('api')
export class DeskController {
  constructor(private readonly desk: DeskService) {}

  @Get('desk')
  look(): Promise<DeskAnswer> {
    return this.desk.desk();
  }

  @Get('find')
  find(@Query('text') text = ''): Promise<FindAnswer> {
    return this.desk.find(text.slice(0, 200));
  }
}
