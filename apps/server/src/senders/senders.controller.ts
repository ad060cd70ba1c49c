import { MailServerAnswer, MailServerRequest, MailTestAnswer, SenderAnswer, SenderCodeRequest, SenderRequest } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query } from '@nestjs/common';
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

  @Answers([MailServerAnswer])
  @Get('mail-servers')
  servers(): Promise<MailServerAnswer[]> {
    return this.senders.serverAnswers();
  }
  @Answers([MailServerAnswer])
  @Post('mail-servers')
  @Needs('administrator')
  addServer(@Body() body: MailServerRequest): Promise<MailServerAnswer[]> {
    return this.senders.saveServer(null, body);
  }
  /** Tries the settings as they stand on the screen, without keeping them. */
  @Answers(MailTestAnswer)
  @Post('mail-servers/test')
  @Needs('administrator')
  @HttpCode(200)
  test(@Body() body: MailServerRequest, @Query('id') id?: string): Promise<MailTestAnswer> {
    return this.senders.test(id ? Number(id) : null, body);
  }
  @Answers([MailServerAnswer])
  @Put('mail-servers/:id')
  @Needs('administrator')
  saveServer(@Param('id', ParseIntPipe) id: number, @Body() body: MailServerRequest): Promise<MailServerAnswer[]> {
    return this.senders.saveServer(id, body);
  }

  @Answers([SenderAnswer])
  @Get('senders')
  list(): Promise<SenderAnswer[]> {
    return this.senders.senderAnswers();
  }
  @Answers([SenderAnswer])
  @Post('senders')
  @Needs('administrator')
  add(@Body() body: SenderRequest): Promise<SenderAnswer[]> {
    return this.senders.saveSender(null, body);
  }
  @Answers([SenderAnswer])
  @Put('senders/:id')
  @Needs('administrator')
  save(@Param('id', ParseIntPipe) id: number, @Body() body: SenderRequest): Promise<SenderAnswer[]> {
    return this.senders.saveSender(id, body);
  }
  @Answers([SenderAnswer])
  @Post('senders/:id/code')
  @Needs('administrator')
  @HttpCode(200)
  mailCode(@Param('id', ParseIntPipe) id: number): Promise<SenderAnswer[]> {
    return this.codes.mailCode(id);
  }
  @Answers([SenderAnswer])
  @Post('senders/:id/confirm')
  @Needs('administrator')
  @HttpCode(200)
  confirm(@Param('id', ParseIntPipe) id: number, @Body() body: SenderCodeRequest): Promise<SenderAnswer[]> {
    return this.codes.confirm(id, body.code);
  }
}
