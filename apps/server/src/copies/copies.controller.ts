import {
  CopyDetail,
  CopyPassword,
  LedgerCounts,
  LedgerFilterQuery,
  LedgerPage,
  LedgerQuery,
  RenameRequest,
  SavedView,
  SavedViewRequest,
} from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import type { Account } from '@mailbag/contract';
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query, StreamableFile } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { MailbagError } from '@mailbag/core';
import { Needs, SignedIn } from '../accounts/session.guard.js';
import { attachment } from '../platform/content-disposition.js';
import { XLSX_TYPE, streamed } from '../files/download.js';
import { CopiesService } from './copies.service.js';
import { Ledger, askedBy } from './ledger.service.js';
import { LedgerExports } from './ledger-exports.service.js';
import { SavedViews } from './saved-views.service.js';

@Controller('api/copies')
export class CopiesController {
  constructor(
    private readonly copies: CopiesService,
    private readonly ledger: Ledger,
    private readonly exports: LedgerExports,
    private readonly views: SavedViews,
  ) {}

  @Answers(LedgerPage)
  @Get()
  @WithoutValues()
  page(@Query() query: LedgerQuery, @SignedIn() account: Account): Promise<LedgerPage> {
    return this.ledger.page(askedBy(query, account));
  }

  @Answers(LedgerCounts)
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
      disposition: attachment(this.exports.nameOf('Ledger', query, 'csv')),
    });
  }
  @Get('ledger.xlsx')
  @WithoutValues()
  xlsx(@Query() query: LedgerFilterQuery, @SignedIn() account: Account): StreamableFile {
    return new StreamableFile(this.exports.xlsx(askedBy(query, account)), {
      type: XLSX_TYPE,
      disposition: attachment(this.exports.nameOf('Ledger', query, 'xlsx')),
    });
  }
  @Get('copies.zip')
  zip(@Query() query: LedgerFilterQuery): StreamableFile {
    return new StreamableFile(this.exports.zip(query), {
      type: 'application/zip',
      disposition: attachment(this.exports.nameOf('Copies', query, 'zip')),
    });
  }

  @Answers([SavedView])
  @Get('views')
  @WithoutValues()
  savedViews(@SignedIn() { id }: Account): Promise<SavedView[]> {
    return this.views.list(id);
  }
  @Answers([SavedView])
  @Post('views')
  @Needs('viewer')
  @WithoutValues()
  saveView(@SignedIn() { id }: Account, @Body() body: SavedViewRequest): Promise<SavedView[]> {
    return this.views.save(id, body);
  }
  @Answers([SavedView])
  @Put('views/:viewId')
  @Needs('viewer')
  @WithoutValues()
  renameView(
    @SignedIn() { id }: Account,
    @Param('viewId', ParseIntPipe) viewId: number,
    @Body() body: RenameRequest,
  ): Promise<SavedView[]> {
    return this.views.rename(id, viewId, body.name);
  }

  @Answers(CopyDetail)
  @Get(':id')
  @WithoutValues()
  detail(@Param('id', ParseIntPipe) id: number, @SignedIn() account: Account): Promise<CopyDetail> {
    return this.copies.detail(id, account);
  }

  @Get(':id/pdf')
  async pdf(@Param('id', ParseIntPipe) id: number, @Query('save') save?: string): Promise<StreamableFile> {
    const { key, name } = await this.copies.file(id);
    return streamed(key, name, {
      type: 'application/pdf',
      disposition: attachment(name, save ? 'attachment' : 'inline'),
    });
  }

  /** The password that opens it, for those who may see it; looking is written into the history. */
  @Answers(CopyPassword)
  @Post(':id/password')
  @HttpCode(200)
  @Needs('viewer')
  @WithoutValues()
  async password(@Param('id', ParseIntPipe) id: number, @SignedIn() { seesPasswords, seesValues }: Account): Promise<CopyPassword> {
    if (!seesPasswords) throw new MailbagError('account-passwords-hidden');
    // Passwords are made of values.
    if (!seesValues) throw new MailbagError('account-values-hidden');
    return { password: await this.copies.openPassword(id) };
  }
}
