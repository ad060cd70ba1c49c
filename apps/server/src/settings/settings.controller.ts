import type { MailSettingsAnswer, MailTestAnswer } from '@mailbag/contract';
import { MailSettingsRequest } from '@mailbag/contract';
import { Body, Controller, Get, HttpCode, Post, Put } from '@nestjs/common';
import { testMailServer } from '../delivery/transport.js';
import { SettingsService } from './settings.service.js';

@Controller('api/settings')
export class SettingsController {
  constructor(private readonly settings: SettingsService) {}

  @Get('mail')
  mail(): Promise<MailSettingsAnswer> {
    return this.settings.mailAnswer();
  }

  @Put('mail')
  async saveMail(@Body() body: MailSettingsRequest): Promise<MailSettingsAnswer> {
    await this.settings.saveMail(body);
    return this.settings.mailAnswer();
  }

  /** Tries the settings as they stand on the screen, without saving them. */
  @Post('mail/test')
  @HttpCode(200)
  async test(@Body() body: MailSettingsRequest): Promise<MailTestAnswer> {
    return testMailServer(await this.settings.merged(body));
  }
}
