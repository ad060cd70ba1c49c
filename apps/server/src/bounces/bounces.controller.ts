import type { BouncesAnswer } from '@mailbag/contract';
import { BouncesRequest } from '@mailbag/contract';
import { Body, Controller, Get, HttpCode, Post, Put } from '@nestjs/common';
import { Needs } from '../accounts/session.guard.js';
import { Transactions } from '../persistence/transactions.js';
import { BounceSettings } from './bounce-settings.service.js';
import { MailboxReader } from './mailbox-reader.service.js';

@Controller('api/bounces')
export class BouncesController {
  constructor(
    private readonly settings: BounceSettings,
    private readonly reader: MailboxReader,
    private readonly transactions: Transactions,
  ) {}

  @Get()
  answer(): Promise<BouncesAnswer> {
    return this.settings.answer();
  }

  @Put()
  @Needs('administrator')
  async save(@Body() body: BouncesRequest): Promise<BouncesAnswer> {
    await this.settings.save(body);
    await this.reader.look();
    return this.settings.answer();
  }

  /** Looks into the mailbox now. */
  @Post('look')
  @HttpCode(200)
  async look(): Promise<BouncesAnswer> {
    await this.reader.look();
    return this.settings.answer();
  }

  /** What came in last, understood or not. */
  @Get('reports')
  reports(): Promise<
    {
      at: string;
      way: string;
      kind: string;
      sender: string;
      subject: string;
      said: string | null;
      deliveryId: number | null;
      copyId: number | null;
    }[]
  > {
    return this.transactions.read(
      'SELECT at, way, kind, sender, subject, said, deliveryId, (SELECT id FROM copy WHERE copy.deliveryId = incoming_report.deliveryId LIMIT 1) AS copyId FROM incoming_report ORDER BY id DESC LIMIT 100',
    );
  }
}
