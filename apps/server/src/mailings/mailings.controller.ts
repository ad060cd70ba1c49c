import {
  ArchiveRequest,
  ChecksAnswer,
  ExtraFile,
  HereAnswer,
  HereRequest,
  MailingChangeLine,
  MailingChangesAnswer,
  MailingChangesRequest,
  MailingCreateRequest,
  MailingDetail,
  MailingSaveAnswer,
  MailingSaveRequest,
  MailingSummary,
  MessageSample,
  MessageSampleRequest,
  TakeOverAnswer,
  TakeOverRequest,
  TestMessageRequest,
  TestedAnswer,
} from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import type { Account } from '@mailbag/contract';
import {
  Body,
  Controller,
  Get,
  HttpCode,
  Param,
  ParseIntPipe,
  Post,
  Put,
  Query,
  Res,
  StreamableFile,
  UploadedFile,
  UseInterceptors,
} from '@nestjs/common';
import { mailingWithoutValues, WithoutValues } from '../accounts/hidden-values.js';
import { Needs, SignedIn, TakesMegabytes } from '../accounts/session.guard.js';
import type { Response } from 'express';
import { attachment } from '../platform/content-disposition.js';
import { config } from '../platform/config.js';
import { send } from '../files/download.js';
import { uploaded, uploadInto } from '../files/upload.js';
import { HereService } from '../live/here.service.js';
import { MailingChecks } from './mailing-checks.service.js';
import { MessageSamples } from './message-samples.service.js';
import { streamed } from '../files/download.js';
import { AttachedFiles } from './attached-files.service.js';
import { MailingCopies } from './mailing-copies.service.js';
import { MailingFiles } from './mailing-files.service.js';
import { MailingHistory } from './mailing-history.service.js';
import { MailingRevisions } from './mailing-revisions.service.js';
import { MailingsService } from './mailings.service.js';
import { toldPlan } from '../frozen/plan-passwords.js';
import { StarterSheets } from './starter-sheet.service.js';

@Controller('api/mailings')
export class MailingsController {
  constructor(
    private readonly past: MailingHistory,
    private readonly zips: MailingFiles,
    private readonly mailings: MailingsService,
    private readonly copies: MailingCopies,
    private readonly checking: MailingChecks,
    private readonly starters: StarterSheets,
    private readonly samples: MessageSamples,
    private readonly attached: AttachedFiles,
    private readonly hereService: HereService,
    private readonly mailingRevisions: MailingRevisions,
  ) {}

  @Answers([MailingSummary])
  @Get()
  @WithoutValues()
  list(): Promise<MailingSummary[]> {
    return this.mailings.list();
  }

  @Answers(MailingDetail)
  @Post()
  create(@Body() body: MailingCreateRequest): Promise<MailingDetail> {
    return body.from === undefined ? this.mailings.create(body.name) : this.copies.begin(body.name, body.from);
  }

  /** Brings a mailing in from a zip. */
  @Answers(MailingDetail)
  @Post('file')
  @UseInterceptors(uploadInto(config.sheetLimit))
  @WithoutValues(mailingWithoutValues)
  bringIn(@UploadedFile() file: Express.Multer.File | undefined): Promise<MailingDetail> {
    return this.zips.take(...uploaded(file));
  }

  /** The mailing with its templates as a zip of JSON and PDFs, without records and passwords. */
  @Get(':id/file.zip')
  @WithoutValues()
  async zip(@Param('id', ParseIntPipe) id: number): Promise<StreamableFile> {
    const { name, zip } = await this.zips.write(id);
    return new StreamableFile(zip, { type: 'application/zip', disposition: attachment(name) });
  }

  /** Keeps a file that is to go along with messages. */
  @Answers(ExtraFile)
  @Post('extra-files')
  @UseInterceptors(uploadInto(config.templateLimit))
  keepFile(@UploadedFile() file: Express.Multer.File | undefined): Promise<ExtraFile> {
    return this.attached.keep(...uploaded(file));
  }

  /** Keeps a picture that is to stand on copies. @throws MailbagError image-unreadable */
  @Answers(ExtraFile)
  @Post('pictures')
  @UseInterceptors(uploadInto(config.templateLimit))
  keepPicture(@UploadedFile() file: Express.Multer.File | undefined): Promise<ExtraFile> {
    return this.attached.keepPicture(...uploaded(file));
  }

  @Get('pictures/:fileId')
  @WithoutValues()
  picture(@Param('fileId') fileId: string): Promise<StreamableFile> {
    return streamed(this.attached.placeOf(fileId), 'The picture', { type: 'application/octet-stream' });
  }

  /** The message for one record; with what is being changed on the screen, saved or not. */
  @Answers(MessageSample)
  @Post(':id/message-sample')
  @TakesMegabytes(1)
  @HttpCode(200)
  @Needs('viewer')
  messageSample(
    @Param('id', ParseIntPipe) id: number,
    @Body() { index, message, output }: MessageSampleRequest,
    @SignedIn() account: Account,
  ): Promise<MessageSample> {
    // Whoever only looks sees the message as it was saved, and lets nothing else be rendered.
    const draft = message && output && account.role !== 'viewer' ? { message, output } : null;
    return this.samples.sample(id, index, draft, account.seesPasswords);
  }

  @Get(':id/message-sample.eml')
  async rawSample(@Param('id', ParseIntPipe) id: number, @Query('index', ParseIntPipe) index: number): Promise<StreamableFile> {
    return new StreamableFile(await this.samples.raw(id, index), { type: 'message/rfc822', disposition: attachment('Sample.eml') });
  }

  @Answers(TestedAnswer)
  @Post(':id/test-message')
  @HttpCode(200)
  async testMessage(@Param('id', ParseIntPipe) id: number, @Body() { index, address }: TestMessageRequest): Promise<TestedAnswer> {
    return { answer: await this.samples.test(id, index, address) };
  }

  @Answers(MailingDetail)
  @Get(':id')
  @WithoutValues(mailingWithoutValues)
  async detail(@Param('id', ParseIntPipe) id: number, @SignedIn() { seesPasswords }: Account): Promise<MailingDetail> {
    const detail = await this.mailings.detail(id);
    return { ...detail, plan: toldPlan(detail.plan, seesPasswords) };
  }

  /** The mailing goes over to another revision of a template of its packet, or back. */
  @Answers(TakeOverAnswer)
  @Post(':id/revision')
  @HttpCode(200)
  @TakesMegabytes(16)
  takeOver(@Param('id', ParseIntPipe) id: number, @Body() body: TakeOverRequest): Promise<TakeOverAnswer> {
    return this.mailingRevisions.takeOver(id, body);
  }

  /** Changes, said over the version in which they were made; made in the one that is there. */
  @Answers(MailingChangesAnswer)
  @Post(':id/changes')
  @HttpCode(200)
  @TakesMegabytes(16)
  change(
    @Param('id', ParseIntPipe) id: number,
    @Body() { changes }: MailingChangesRequest,
    @SignedIn() { seesPasswords }: Account,
  ): Promise<MailingChangesAnswer> {
    return this.mailings.change(id, changes, seesPasswords);
  }

  /** A window has it open. */
  @Answers(HereAnswer)
  @Post(':id/here')
  @HttpCode(200)
  @Needs('viewer')
  @WithoutValues()
  here(@Param('id', ParseIntPipe) id: number, @Body() { window, leaves }: HereRequest, @SignedIn() account: Account): HereAnswer {
    return this.hereService.say(id, window, account, leaves ?? false);
  }

  @Answers(MailingSaveAnswer)
  @Put(':id')
  @TakesMegabytes(16)
  save(@Param('id', ParseIntPipe) id: number, @Body() body: MailingSaveRequest): Promise<MailingSaveAnswer> {
    return this.mailings.save(id, body);
  }

  /** An empty sheet for the records of the packet. */
  @Get(':id/starter.xlsx')
  @WithoutValues()
  async starter(@Param('id', ParseIntPipe) id: number, @Res() response: Response): Promise<void> {
    const { plan, templates } = await this.mailings.detail(id);
    send(response, await this.starters.forPacket(plan.name, templates));
  }

  /** What was changed of it, by whom. */
  @Answers([MailingChangeLine])
  @Get(':id/changes')
  @WithoutValues()
  changesOf(@Param('id', ParseIntPipe) id: number): Promise<MailingChangeLine[]> {
    return this.past.changes(id);
  }

  /** Makes it what it was before a change. */
  @Answers(MailingSaveAnswer)
  @Post(':id/changes/:change/back')
  @HttpCode(200)
  goBack(@Param('id', ParseIntPipe) id: number, @Param('change', ParseIntPipe) change: number): Promise<MailingSaveAnswer> {
    return this.past.goBack(id, change);
  }

  @Answers(MailingSummary)
  @Post(':id/archive')
  @HttpCode(200)
  archive(@Param('id', ParseIntPipe) id: number, @Body() { isArchived }: ArchiveRequest): Promise<MailingSummary> {
    return this.mailings.archive(id, isArchived);
  }

  @Answers(ChecksAnswer)
  @Get(':id/checks')
  @WithoutValues()
  checks(@Param('id', ParseIntPipe) id: number): Promise<ChecksAnswer> {
    return this.checking.checks(id);
  }
}
