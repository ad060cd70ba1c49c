import { BouncesAnswer, BouncesRequest, IncomingReport, ReportDecision } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Needs, Who } from '../accounts/session.guard.js';
import { Transactions } from '../persistence/transactions.js';
import { BounceSettings } from '../settings/bounce-settings.service.js';
import { BouncesService } from './bounces.service.js';
import { MailboxReader } from '../incoming/mailbox-reader.service.js';
import { reportStore } from '../stores/report.store.js';
import type { Principal } from '../platform/principal.js';

@Controller('api/bounces')
export class BouncesController {
  constructor(
    private readonly settings: BounceSettings,
    private readonly reader: MailboxReader,
    private readonly bounces: BouncesService,
    private readonly transactions: Transactions,
  ) {}

  @Answers(BouncesAnswer)
  @Get()
  @WithoutValues()
  answer(): Promise<BouncesAnswer> {
    return this.settings.answer();
  }

  @Answers(BouncesAnswer)
  @Put()
  @Needs('administrator')
  @WithoutValues()
  async save(@Body() body: BouncesRequest): Promise<BouncesAnswer> {
    await this.settings.save(body);
    await this.reader.look();
    return this.settings.answer();
  }

  /** Looks into the mailbox now. */
  @Answers(BouncesAnswer)
  @Post('look')
  @HttpCode(200)
  @WithoutValues()
  async look(): Promise<BouncesAnswer> {
    await this.reader.look();
    return this.settings.answer();
  }

  /** What came in last, understood or not; what waits for a person's word first. */
  @Answers([IncomingReport])
  @Get('reports')
  reports(): Promise<IncomingReport[]> {
    return reportStore.latest(this.transactions);
  }

  /** It did bounce, or it did not. */
  @Post('reports/:id')
  @HttpCode(204)
  settle(@Param('id', ParseIntPipe) id: number, @Body() { isBounce }: ReportDecision, @Who() who: Principal): Promise<void> {
    return this.bounces.settle(id, isBounce, who);
  }
}
