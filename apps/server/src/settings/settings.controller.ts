import { MailRulesAnswer, OfficeRequest } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Body, Controller, Get, Put } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Needs } from '../accounts/session.guard.js';
import { OFFICE, SettingsService } from './settings.service.js';

/** As long as nobody has said where the office is. */
export const noOffice: OfficeRequest = { returnLine: '', country: 'DE' };

@Controller('api/settings')
@WithoutValues()
export class SettingsController {
  constructor(private readonly settings: SettingsService) {}

  @Answers(MailRulesAnswer)
  @Get('mail-rules')
  rules(): MailRulesAnswer {
    return this.settings.mailRules();
  }

  @Answers(OfficeRequest)
  @Get('office')
  async office(): Promise<OfficeRequest> {
    return (await this.settings.get<OfficeRequest>(OFFICE)) ?? noOffice;
  }

  @Answers(OfficeRequest)
  @Put('office')
  @Needs('administrator')
  async saveOffice(@Body() body: OfficeRequest): Promise<OfficeRequest> {
    await this.settings.set(OFFICE, {
      returnLine: body.returnLine.trim(),
      country: body.country,
      timeZone: body.timeZone ?? '',
    } satisfies OfficeRequest);
    return this.office();
  }
}
