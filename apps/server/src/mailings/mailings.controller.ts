import type { ChecksAnswer, FindingsAnswer, FlaggedAnswer, MailingDetail, MailingSaveAnswer, MailingSummary } from '@mailbag/contract';
import { MailingCreateRequest, MailingSaveRequest } from '@mailbag/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query, Res } from '@nestjs/common';
import type { Response } from 'express';
import { send } from '../platform/download.js';
import { MailingChecks } from './mailing-checks.service.js';
import { MailingsService } from './mailings.service.js';
import { StarterSheets } from './starter-sheet.service.js';

@Controller('api/mailings')
export class MailingsController {
  constructor(
    private readonly mailings: MailingsService,
    private readonly checking: MailingChecks,
    private readonly starters: StarterSheets,
  ) {}

  @Get()
  list(): Promise<MailingSummary[]> {
    return this.mailings.list();
  }

  @Post()
  create(@Body() body: MailingCreateRequest): Promise<MailingDetail> {
    return this.mailings.create(body.name);
  }

  @Get(':id')
  detail(@Param('id', ParseIntPipe) id: number): Promise<MailingDetail> {
    return this.mailings.detail(id);
  }

  @Put(':id')
  save(@Param('id', ParseIntPipe) id: number, @Body() body: MailingSaveRequest): Promise<MailingSaveAnswer> {
    return this.mailings.save(id, body);
  }

  /** An empty sheet for the records of the packet. */
  @Get(':id/starter.xlsx')
  async starter(@Param('id', ParseIntPipe) id: number, @Res() response: Response): Promise<void> {
    const { plan, templates } = await this.mailings.detail(id);
    send(response, await this.starters.forPacket(plan.name, templates));
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.mailings.remove(id);
  }

  @Get(':id/checks')
  checks(@Param('id', ParseIntPipe) id: number): Promise<ChecksAnswer> {
    return this.checking.checks(id);
  }

  @Get(':id/findings')
  findings(
    @Param('id', ParseIntPipe) id: number,
    @Query('from', ParseIntPipe) from: number,
    @Query('count', ParseIntPipe) count: number,
    @Query('code') code?: string,
    @Query('severity') severity?: string,
    @Query('accepted') accepted?: string,
  ): Promise<FindingsAnswer> {
    const filter = { ...(code ? { code } : {}), ...(severity ? { severity } : {}), accepted: accepted === 'yes' };
    return this.checking.findings(id, filter, Math.max(0, from), Math.min(500, Math.max(1, count)));
  }

  @Get(':id/flagged')
  flagged(@Param('id', ParseIntPipe) id: number): Promise<FlaggedAnswer> {
    return this.checking.flagged(id);
  }
}
