import {
  PublicAnswersRequest,
  PublicBoxesAnswer,
  PublicFaultsAnswer,
  PublicIntake,
  PublicKeepRequest,
  PublicSavedVisitAnswer,
  PublicSavedVisitRequest,
  PublicMailCodeRequest,
  PublicMailRequest,
  PublicPersonalAnswer,
  PublicPersonalRequest,
  PublicReceipt,
  PublicSubmitAnswer,
  PublicSubmitRequest,
} from '@mailbag/contract';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query, Req, Res, StreamableFile, UseGuards } from '@nestjs/common';
import type { Request, Response } from 'express';
import { trustedAddress } from '../accounts/origin.js';
import { OpenToEverybody, TakesMegabytes } from '../accounts/session.guard.js';
import { Answers } from '../platform/answers.js';
import { config } from '../platform/config.js';
import { attachment } from '../platform/content-disposition.js';
import { PersonalLinks } from '../intakes/personal-links.service.js';
import { CopyMail } from './copy-mail.service.js';
import { SavedVisits } from './saved-visits.service.js';
import { PhraseGuard } from './phrase.guard.js';
import { PublicIntakes } from './public-intakes.service.js';
import { Puzzles } from './puzzles.js';
import type { Asking } from './visitor-limits.js';
import { VisitorLimits } from './visitor-limits.js';

/** Megabytes that a visitor may send: answers with a signature and a photo. */
const MEGABYTES = 4;
const PDF = { type: 'application/pdf' };

/** What strangers reach: the pages of intakes. Nothing else of Mailbag is to be had here, and no session counts. */
@Controller('api/public')
@UseGuards(PhraseGuard)
export class PublicIntakesController {
  private readonly limits = new VisitorLimits(config.visitorLimits);
  private readonly puzzles = new Puzzles();
  constructor(
    private readonly intakes: PublicIntakes,
    private readonly visits: SavedVisits,
    private readonly links: PersonalLinks,
    private readonly copyMail: CopyMail,
  ) {}

  private take(what: Asking, { ip = '' }: Request, word: string): void {
    this.limits.take(what, ip, word);
  }

  @Answers(PublicIntake)
  @Get('intakes/:word')
  @OpenToEverybody()
  page(@Param('word') word: string, @Req() request: Request, @Query('edition') begun?: string): Promise<PublicIntake> {
    this.take('look', request, word);
    return this.intakes.page(word, trustedAddress(request), begun !== undefined && /^\d{1,9}$/.test(begun) ? Number(begun) : null);
  }

  /** Mails a link by which the visitor goes on later. */
  @Post('intakes/:word/visits')
  @HttpCode(204)
  @OpenToEverybody()
  @TakesMegabytes(MEGABYTES)
  async keep(@Param('word') word: string, @Body() body: PublicKeepRequest, @Req() request: Request): Promise<void> {
    this.take('mail', request, word);
    this.limits.takeRecipient(body.email);
    await this.visits.keep(word, body, trustedAddress(request));
  }

  /** Where the visitor goes on. The token stands in no address. */
  @Answers(PublicSavedVisitAnswer)
  @Post('intakes/:word/visits/saved')
  @HttpCode(200)
  @OpenToEverybody()
  goOn(@Param('word') word: string, @Body() { token }: PublicSavedVisitRequest, @Req() request: Request): Promise<PublicSavedVisitAnswer> {
    this.take('look', request, word);
    return this.visits.goOn(word, token);
  }

  /** What a personal link shows. The token stands in no address. */
  @Answers(PublicPersonalAnswer)
  @Post('intakes/:word/personal')
  @HttpCode(200)
  @OpenToEverybody()
  personal(
    @Param('word') word: string,
    @Body() { token, check }: PublicPersonalRequest,
    @Req() request: Request,
  ): Promise<PublicPersonalAnswer> {
    this.take('look', request, word);
    if (check !== undefined) this.limits.takeCheck(token);
    return this.links.open(word, token, check ?? null);
  }

  /** What is wrong with answers so far. */
  @Answers(PublicFaultsAnswer)
  @Post('intakes/:word/check')
  @HttpCode(200)
  @OpenToEverybody()
  @TakesMegabytes(MEGABYTES)
  async check(@Param('word') word: string, @Body() body: PublicAnswersRequest, @Req() request: Request): Promise<PublicFaultsAnswer> {
    this.take('look', request, word);
    return { faults: await this.intakes.faults(word, body) };
  }

  /** Where the answers stand on the forms, for whoever taps a box. */
  @Answers(PublicBoxesAnswer)
  @Get('intakes/:word/boxes')
  @OpenToEverybody()
  async boxes(
    @Param('word') word: string,
    @Query('edition', ParseIntPipe) edition: number,
    @Req() request: Request,
  ): Promise<PublicBoxesAnswer> {
    this.take('look', request, word);
    return { boxes: await this.intakes.boxes(word, edition) };
  }

  /** The first copy as it would be made, or the one that is asked for. Which forms they are of, and that of this one, stand in headers. */
  @Post('intakes/:word/preview/:index')
  @HttpCode(200)
  @OpenToEverybody()
  @TakesMegabytes(MEGABYTES)
  async preview(
    @Param('word') word: string,
    @Param('index', ParseIntPipe) index: number,
    @Body() body: PublicAnswersRequest,
    @Req() request: Request,
    @Res({ passthrough: true }) response: Response,
  ): Promise<StreamableFile> {
    this.take('preview', request, word);
    const copies = await this.intakes.preview(word, body);
    const copy = copies[Math.min(Math.max(0, index), copies.length - 1)];
    if (!copy) throw new MailbagError('not-found', { what: t`form for these answers` });
    response.setHeader('X-Copies', copies.map(({ form }) => form).join(','));
    response.setHeader('X-Form', String(copy.form));
    return new StreamableFile(copy.bytes, PDF);
  }

  /** A puzzle whose answer a submission brings along in the header `X-Mailbag-Proof` where it was refused without. */
  @Get('intakes/:word/puzzle')
  @OpenToEverybody()
  puzzle(@Param('word') word: string, @Req() request: Request): Promise<object> {
    this.take('look', request, word);
    return this.puzzles.make(word);
  }

  @Answers(PublicSubmitAnswer)
  @Post('intakes/:word/submissions')
  @HttpCode(200)
  @OpenToEverybody()
  @TakesMegabytes(MEGABYTES)
  async submit(@Param('word') word: string, @Body() body: PublicSubmitRequest, @Req() request: Request): Promise<PublicSubmitAnswer> {
    const needsWork = this.limits.needsWork(request.ip ?? '', word);
    if (needsWork) await this.puzzles.take(word, request.header('X-Mailbag-Proof'));
    this.take('submit', request, word);
    if (body.personal?.check !== undefined) this.limits.takeCheck(body.personal.token);
    return this.intakes.submit(word, body);
  }

  @Answers(PublicReceipt)
  @Get('receipts/:key')
  @OpenToEverybody()
  async receipt(@Param('key') key: string, @Req() request: Request): Promise<PublicReceipt> {
    this.take('look', request, '');
    const { number, copies, isMaking, canMail } = await this.intakes.receipt(key);
    return { number, copies, isMaking, canMail };
  }

  /** Mails a code to whoever wants copies mailed, so that nobody uses the page to send what they like. */
  @Post('receipts/:key/mail-code')
  @HttpCode(204)
  @OpenToEverybody()
  async mailCode(@Param('key') key: string, @Body() body: PublicMailCodeRequest, @Req() request: Request): Promise<void> {
    this.take('mail', request, '');
    this.limits.takeRecipient(body.email);
    await this.copyMail.mailCode(key, body);
  }

  @Post('receipts/:key/mail')
  @HttpCode(204)
  @OpenToEverybody()
  async mail(@Param('key') key: string, @Body() body: PublicMailRequest, @Req() request: Request): Promise<void> {
    this.take('submit', request, '');
    this.limits.takeRecipient(body.to);
    await this.copyMail.send(key, body);
  }

  @Get('receipts/:key/copies/:index')
  @OpenToEverybody()
  async copy(@Param('key') key: string, @Param('index', ParseIntPipe) index: number, @Req() request: Request): Promise<StreamableFile> {
    this.take('look', request, '');
    const { name, bytes } = await this.intakes.copy(key, index);
    return new StreamableFile(bytes, { ...PDF, disposition: attachment(name) });
  }

  /** All copies of a submission. */
  @Get('receipts/:key/copies.zip')
  @OpenToEverybody()
  async zip(@Param('key') key: string, @Req() request: Request): Promise<StreamableFile> {
    this.take('look', request, '');
    const { number, stream } = await this.intakes.zip(key);
    return new StreamableFile(stream, { type: 'application/zip', disposition: attachment(`${number}.zip`) });
  }
}
