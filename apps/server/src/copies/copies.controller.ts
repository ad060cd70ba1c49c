import { createReadStream } from 'node:fs';
import type { CopyDetail, LedgerCounts, LedgerPage } from '@mailbag/contract';
import { LedgerQuery, SendAgainRequest } from '@mailbag/contract';
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query, StreamableFile } from '@nestjs/common';
import { Who } from '../accounts/session.guard.js';
import { DeliveryService } from '../delivery/delivery.service.js';
import { attachment } from '../platform/content-disposition.js';
import { CopiesService } from './copies.service.js';

@Controller('api/copies')
export class CopiesController {
  constructor(
    private readonly copies: CopiesService,
    private readonly delivery: DeliveryService,
  ) {}

  @Get()
  page(@Query() query: LedgerQuery): Promise<LedgerPage> {
    return this.copies.page(query);
  }

  @Get('counts')
  counts(@Query() query: LedgerQuery): Promise<LedgerCounts> {
    return this.copies.counts(query);
  }

  @Get(':id')
  detail(@Param('id', ParseIntPipe) id: number): Promise<CopyDetail> {
    return this.copies.detail(id);
  }

  @Get(':id/pdf')
  async pdf(@Param('id', ParseIntPipe) id: number, @Query('save') save?: string): Promise<StreamableFile> {
    const { path, name } = await this.copies.file(id);
    return new StreamableFile(createReadStream(path), {
      type: 'application/pdf',
      disposition: attachment(name, save ? 'attachment' : 'inline'),
    });
  }

  @Post(':id/send-again')
  @HttpCode(204)
  sendAgain(@Param('id', ParseIntPipe) id: number, @Body() body: SendAgainRequest, @Who() who: string): Promise<void> {
    return this.delivery.sendAgain(id, body.address, who);
  }

  @Post(':id/confirm-sent')
  @HttpCode(204)
  confirmSent(@Param('id', ParseIntPipe) id: number, @Who() who: string): Promise<void> {
    return this.delivery.confirmSent(id, who);
  }

  @Post(':id/withdraw')
  @HttpCode(204)
  withdraw(@Param('id', ParseIntPipe) id: number, @Who() who: string): Promise<void> {
    return this.delivery.withdraw(id, who);
  }
}
