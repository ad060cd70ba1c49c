import type { Account, CopyDetail, LedgerCounts, LedgerPage, ManyCopiesAnswer, SavedView } from '@mailbag/contract';
import { LedgerFilterQuery, LedgerQuery, ManyCopiesRequest, SavedViewRequest, SendAgainRequest } from '@mailbag/contract';
import { Body, Controller, Delete, Get, HttpCode, Param, ParseIntPipe, Post, Query, StreamableFile } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { MailbagError } from '@mailbag/core';
import { Needs, SignedIn, TakesMegabytes, Who } from '../accounts/session.guard.js';
import { Letters } from '../delivery/letters.service.js';
import { rawMessage } from '../delivery/outgoing-message.js';
import { Settling } from '../delivery/settling.service.js';
import { attachment } from '../platform/content-disposition.js';
import { XLSX_TYPE, streamed } from '../platform/download.js';
import { CopiesService } from './copies.service.js';
import { Ledger, askedBy } from './ledger.service.js';
import { LedgerExports } from './ledger-exports.service.js';
import { SavedViews } from './saved-views.service.js';

@Controller('api/copies')
export class CopiesController {
  constructor(
    private readonly copies: CopiesService,
    private readonly ledger: Ledger,
    private readonly settling: Settling,
    private readonly letters: Letters,
    private readonly exports: LedgerExports,
    private readonly views: SavedViews,
  ) {}

  @Get()
  @WithoutValues()
  page(@Query() query: LedgerQuery, @SignedIn() account: Account): Promise<LedgerPage> {
    return this.ledger.page(askedBy(query, account));
  }

  @Get('counts')
  @WithoutValues()
  counts(@Query() query: LedgerFilterQuery, @SignedIn() account: Account): Promise<LedgerCounts> {
    return this.ledger.counts(askedBy(query, account));
  }

  @Get('ledger.csv')
  @WithoutValues()
  csv(@Query() query: LedgerFilterQuery, @SignedIn() account: Account): StreamableFile {
    return new StreamableFile(this.exports.csv(askedBy(query, account)), {
      type: 'text/csv; charset=utf-8',
      disposition: attachment('Ledger.csv'),
    });
  }
  @Get('ledger.xlsx')
  @WithoutValues()
  xlsx(@Query() query: LedgerFilterQuery, @SignedIn() account: Account): StreamableFile {
    return new StreamableFile(this.exports.xlsx(askedBy(query, account)), { type: XLSX_TYPE, disposition: attachment('Ledger.xlsx') });
  }
  @Get('copies.zip')
  zip(@Query() query: LedgerFilterQuery): StreamableFile {
    return new StreamableFile(this.exports.zip(query), { type: 'application/zip', disposition: attachment('Copies.zip') });
  }

  @Get('views')
  @WithoutValues()
  savedViews(@SignedIn() { id }: Account): Promise<SavedView[]> {
    return this.views.list(id);
  }
  @Post('views')
  @Needs('viewer')
  @WithoutValues()
  saveView(@SignedIn() { id }: Account, @Body() body: SavedViewRequest): Promise<SavedView[]> {
    return this.views.save(id, body);
  }
  @Delete('views/:viewId')
  @Needs('viewer')
  @WithoutValues()
  removeView(@SignedIn() { id }: Account, @Param('viewId', ParseIntPipe) viewId: number): Promise<SavedView[]> {
    return this.views.remove(id, viewId);
  }

  /** The same with many copies. */
  @Post('many')
  @TakesMegabytes(2)
  @HttpCode(200)
  @WithoutValues()
  async many(
    @Body() { action, ids, filter }: ManyCopiesRequest,
    @SignedIn() account: Account,
    @Who() who: string,
  ): Promise<ManyCopiesAnswer> {
    const meant = ids ?? (filter ? await this.ledger.ids(askedBy(filter, account)) : []);
    const done = await this.settling.many(action, meant, who);
    const back = action === 'to-paper' ? 'off-paper' : action === 'off-paper' ? 'to-paper' : null;
    return { meant: meant.length, done: done.length, undo: back && done.length > 0 ? { action: back, ids: done } : null };
  }

  @Get(':id')
  @WithoutValues()
  detail(@Param('id', ParseIntPipe) id: number, @SignedIn() account: Account): Promise<CopyDetail> {
    return this.copies.detail(id, account);
  }

  @Get(':id/pdf')
  async pdf(@Param('id', ParseIntPipe) id: number, @Query('save') save?: string): Promise<StreamableFile> {
    const { path, name } = await this.copies.file(id);
    return streamed(path, name, {
      type: 'application/pdf',
      disposition: attachment(name, save ? 'attachment' : 'inline'),
    });
  }

  /** The message of its delivery, as it went out. */
  @Get(':id/message')
  async message(
    @Param('id', ParseIntPipe) id: number,
  ): Promise<{ from: string; to: string[]; subject: string; html: string; text: string; attachments: string[]; isAsSent: boolean | null }> {
    const { from, to, subject, html, text, attachments, isAsSent } = await this.letters.ofCopy(id);
    return {
      from: `${from.name} <${from.address}>`,
      to: to.map(({ name, address }) => (name ? `${name} <${address}>` : address)),
      subject,
      html,
      text,
      attachments: attachments.map(({ filename }) => filename),
      isAsSent,
    };
  }
  @Get(':id/message.eml')
  async rawMessage(@Param('id', ParseIntPipe) id: number): Promise<StreamableFile> {
    return new StreamableFile(await rawMessage(await this.letters.ofCopy(id)), {
      type: 'message/rfc822',
      disposition: attachment('Message.eml'),
    });
  }

  /** The password that opens it, for those who may see it; looking is written into the history. */
  @Post(':id/password')
  @HttpCode(200)
  @Needs('viewer')
  @WithoutValues()
  async password(@Param('id', ParseIntPipe) id: number, @SignedIn() { seesPasswords, seesValues }: Account): Promise<{ password: string }> {
    if (!seesPasswords) throw new MailbagError('account-passwords-hidden');
    // Passwords are made of values.
    if (!seesValues) throw new MailbagError('account-values-hidden');
    return { password: await this.copies.openPassword(id) };
  }

  @Post(':id/send-again')
  @HttpCode(204)
  @WithoutValues()
  async sendAgain(
    @Param('id', ParseIntPipe) id: number,
    @Body() { address }: SendAgainRequest,
    @SignedIn() account: Account,
    @Who() who: string,
  ): Promise<void> {
    // Whoever may not look into a copy must not have it sent to another address and look into it there.
    if (!account.seesValues && (await this.copies.detail(id, account)).address.trim() !== address.trim())
      throw new MailbagError('account-values-hidden');
    return this.settling.sendAgain(id, address, who);
  }

  @Post(':id/confirm-sent')
  @HttpCode(204)
  @WithoutValues()
  confirmSent(@Param('id', ParseIntPipe) id: number, @Who() who: string): Promise<void> {
    return this.settling.confirmSent(id, who);
  }

  @Post(':id/withdraw')
  @HttpCode(204)
  @WithoutValues()
  withdraw(@Param('id', ParseIntPipe) id: number, @Who() who: string): Promise<void> {
    return this.settling.withdraw(id, who);
  }
}
