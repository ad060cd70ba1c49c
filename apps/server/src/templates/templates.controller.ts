import {
  AnswersRequest,
  ArchiveRequest,
  EditionsAnswer,
  RenameRequest,
  RevisionSummary,
  RevisionUploadAnswer,
  TemplateDetail,
  TemplateSummary,
  TemplateUploadAnswer,
} from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import {
  Body,
  Controller,
  Get,
  HttpCode,
  Param,
  ParseIntPipe,
  Patch,
  Post,
  Query,
  Res,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { config } from '../platform/config.js';
import { uploaded, uploadInto } from '../files/upload.js';
import { LayoutsService } from './layouts.service.js';
import { TemplatesService, toldTemplate } from './templates.service.js';
import { send, streamed } from '../files/download.js';
import { FieldLists } from './field-lists.service.js';
import type { Response } from 'express';

/** A number that may be left out. */
const OPTIONAL = new ParseIntPipe({ optional: true });

@Controller('api/templates')
@WithoutValues()
export class TemplatesController {
  constructor(
    private readonly templates: TemplatesService,
    private readonly layouts: LayoutsService,
    private readonly fieldLists: FieldLists,
  ) {}

  @Answers([TemplateSummary])
  @Get()
  list(): Promise<TemplateSummary[]> {
    return this.templates.list();
  }

  @Answers(TemplateUploadAnswer)
  @Post()
  @UseInterceptors(uploadInto(config.templateLimit))
  async upload(@UploadedFile() file: Express.Multer.File | undefined, @Query('blanks') blanks?: string): Promise<TemplateUploadAnswer> {
    const taken = await this.templates.take(...uploaded(file), blanks !== undefined);
    if (blanks === 'take' && !taken.known) await this.layouts.takeBlanks(taken.template.id);
    return { ...taken, template: await this.templates.summary(taken.template.id) };
  }

  @Answers(TemplateDetail)
  @Get(':id')
  async detail(@Param('id', ParseIntPipe) id: number, @Query('revision', OPTIONAL) revision?: number): Promise<TemplateDetail> {
    return toldTemplate(await this.templates.detail(id, revision));
  }

  @Answers([RevisionSummary])
  @Get(':id/revisions')
  revisions(@Param('id', ParseIntPipe) id: number): Promise<RevisionSummary[]> {
    return this.templates.revisionsOf(id);
  }

  @Answers(RevisionUploadAnswer)
  @Post(':id/revisions')
  @UseInterceptors(uploadInto(config.templateLimit))
  async takeEdition(
    @Param('id', ParseIntPipe) id: number,
    @UploadedFile() file: Express.Multer.File | undefined,
  ): Promise<RevisionUploadAnswer> {
    return this.templates.takeEdition(id, ...uploaded(file));
  }

  @Answers(EditionsAnswer)
  @Get(':id/revisions/:before/compared-with/:after')
  compare(
    @Param('id', ParseIntPipe) id: number,
    @Param('before', ParseIntPipe) before: number,
    @Param('after', ParseIntPipe) after: number,
  ): Promise<EditionsAnswer> {
    return this.templates.compare(id, before, after);
  }

  @Get(':id/pdf')
  async pdf(@Param('id', ParseIntPipe) id: number, @Query('revision', OPTIONAL) revision?: number): Promise<StreamableFile> {
    return streamed(await this.templates.file(id, revision), 'The template', { type: 'application/pdf', disposition: 'inline' });
  }

  /** Fields are joined to one answer, or one is taken apart. */
  @Answers(TemplateDetail)
  @Post(':id/answers')
  @HttpCode(200)
  async answers(@Param('id', ParseIntPipe) id: number, @Body() body: AnswersRequest): Promise<TemplateDetail> {
    return toldTemplate(await this.templates.changeAnswers(id, body));
  }

  /** The fields to be taken elsewhere. */
  @Get(':id/fields/:format')
  async fields(
    @Param('id', ParseIntPipe) id: number,
    @Param('format') format: string,
    @Query('revision', OPTIONAL) revision: number | undefined,
    @Res() response: Response,
  ): Promise<void> {
    send(response, await this.fieldLists.of(id, format, revision));
  }

  @Answers(TemplateSummary)
  @Patch(':id')
  rename(@Param('id', ParseIntPipe) id: number, @Body() body: RenameRequest): Promise<TemplateSummary> {
    return this.templates.rename(id, body.name);
  }

  @Answers(TemplateSummary)
  @Post(':id/archive')
  @HttpCode(200)
  archive(@Param('id', ParseIntPipe) id: number, @Body() { isArchived }: ArchiveRequest): Promise<TemplateSummary> {
    return this.templates.archive(id, isArchived);
  }

  /** An earlier revision is the latest again. */
  @Answers(RevisionSummary)
  @Post(':id/revisions/:revision/latest')
  goBack(@Param('id', ParseIntPipe) id: number, @Param('revision', ParseIntPipe) revision: number): Promise<RevisionSummary> {
    return this.templates.goBack(id, revision);
  }
}
