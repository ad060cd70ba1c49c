import { RenameRequest, TemplateDetail, TemplateSummary, TemplateUploadAnswer } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { MailbagError } from '@mailbag/core';
import {
  Body,
  Controller,
  Delete,
  Get,
  HttpCode,
  Param,
  ParseIntPipe,
  Patch,
  Post,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { config } from '../platform/config.js';
import { spooled, uploadInto, uploadedName } from '../files/upload.js';
import { TemplatesService, toldTemplate } from './templates.service.js';
import { streamed } from '../files/download.js';

@Controller('api/templates')
@WithoutValues()
export class TemplatesController {
  constructor(private readonly templates: TemplatesService) {}

  @Answers([TemplateSummary])
  @Get()
  list(): Promise<TemplateSummary[]> {
    return this.templates.list();
  }

  @Answers(TemplateUploadAnswer)
  @Post()
  @UseInterceptors(uploadInto(config.templateLimit))
  async upload(@UploadedFile() file: Express.Multer.File | undefined): Promise<TemplateUploadAnswer> {
    if (!file) throw new MailbagError('request-wrong', { why: 'no file came with it' });
    return this.templates.take(spooled(file), uploadedName(file));
  }

  @Answers(TemplateDetail)
  @Get(':id')
  async detail(@Param('id', ParseIntPipe) id: number): Promise<TemplateDetail> {
    return toldTemplate(await this.templates.detail(id));
  }

  @Get(':id/pdf')
  async pdf(@Param('id', ParseIntPipe) id: number): Promise<StreamableFile> {
    return streamed(await this.templates.file(id), 'The template', { type: 'application/pdf', disposition: 'inline' });
  }

  @Answers(TemplateSummary)
  @Patch(':id')
  rename(@Param('id', ParseIntPipe) id: number, @Body() body: RenameRequest): Promise<TemplateSummary> {
    return this.templates.rename(id, body.name);
  }

  @Delete(':id')
  @HttpCode(204)
  remove(@Param('id', ParseIntPipe) id: number): Promise<void> {
    return this.templates.remove(id);
  }
}
