import type { ChecksAnswer, FindingsAnswer, FlaggedAnswer, MailingDetail, MailingSaveAnswer, MailingSummary } from '@mailbag/contract';
import { MailingCreateRequest, MailingSaveRequest } from '@mailbag/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
import { MailingsService } from './mailings.service.js';

@Controller('api/mailings')
export class MailingsController {
  constructor(private readonly mailings: MailingsService) {}

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

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.mailings.remove(id);
  }

  @Get(':id/checks')
  checks(@Param('id', ParseIntPipe) id: number): Promise<ChecksAnswer> {
    return this.mailings.checks(id);
  }

  @Get(':id/findings')
  findings(
    @Param('id', ParseIntPipe) id: number,
    @Query('from', ParseIntPipe) from: number,
    @Query('count', ParseIntPipe) count: number,
    @Query('code') code?: string,
    @Query('severity') severity?: string,
  ): Promise<FindingsAnswer> {
    return this.mailings.findings(id, code, severity, Math.max(0, from), Math.min(500, Math.max(1, count)));
  }

  @Get(':id/flagged')
  flagged(@Param('id', ParseIntPipe) id: number): Promise<FlaggedAnswer> {
    return this.mailings.flagged(id);
  }
}
