import type { MailServerAnswer, MailTestAnswer, SenderAnswer } from '@mailbag/contract';
import { MailServerRequest, SenderCodeRequest, SenderRequest } from '@mailbag/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Needs } from '../accounts/session.guard.js';
import { SenderCodes } from './sender-codes.service.js';
import { SendersService } from './senders.service.js';

@Controller('api')
@WithoutValues()
export class SendersController {
  constructor(
    private readonly senders: SendersService,
    private readonly codes: SenderCodes,
  ) {}

  @Get('mail-servers')
  servers(): Promise<MailServerAnswer[]> {
    return this.senders.serverAnswers();
  }
  @Post('mail-servers')
  @Needs('administrator')
  addServer(@Body() body: MailServerRequest): Promise<MailServerAnswer[]> {
    return this.senders.saveServer(null, body);
  }
  /** Tries the settings as they stand on the screen, without keeping them. */
  @Post('mail-servers/test')
  @Needs('administrator')
  @HttpCode(200)
  test(@Body() body: MailServerRequest, @Query('id') id?: string): Promise<MailTestAnswer> {
    return this.senders.test(id ? Number(id) : null, body);
  }
  @Put('mail-servers/:id')
  @Needs('administrator')
  saveServer(@Param('id', ParseIntPipe) id: number, @Body() body: MailServerRequest): Promise<MailServerAnswer[]> {
    return this.senders.saveServer(id, body);
  }
  @Delete('mail-servers/:id')
  @Needs('administrator')
  @HttpCode(204)
  removeServer(@Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.senders.removeServer(id);
  }

  @Get('senders')
  list(): Promise<SenderAnswer[]> {
    return this.senders.senderAnswers();
  }
  @Post('senders')
  @Needs('administrator')
  add(@Body() body: SenderRequest): Promise<SenderAnswer[]> {
    return this.senders.saveSender(null, body);
  }
  @Put('senders/:id')
  @Needs('administrator')
  save(@Param('id', ParseIntPipe) id: number, @Body() body: SenderRequest): Promise<SenderAnswer[]> {
    return this.senders.saveSender(id, body);
  }
  @Delete('senders/:id')
  @Needs('administrator')
  @HttpCode(204)
  remove(@Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.senders.removeSender(id);
  }
  @Post('senders/:id/code')
  @Needs('administrator')
  @HttpCode(200)
  mailCode(@Param('id', ParseIntPipe) id: number): Promise<SenderAnswer[]> {
    return this.codes.mailCode(id);
  }
  @Post('senders/:id/confirm')
  @Needs('administrator')
  @HttpCode(200)
  confirm(@Param('id', ParseIntPipe) id: number, @Body() body: SenderCodeRequest): Promise<SenderAnswer[]> {
    return this.codes.confirm(id, body.code);
  }
}
