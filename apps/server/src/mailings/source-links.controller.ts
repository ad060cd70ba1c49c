import { RelinkRequest, RelinkedAnswer } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { MailbagError, slugOf } from '@mailbag/core';
import { Body, Controller, Param, ParseIntPipe, Post } from '@nestjs/common';
import { SourcesService } from '../sources/sources.service.js';
import { MailingsService } from './mailings.service.js';

/** What mailings read of a source. */
@Controller('api/sources')
export class SourceLinksController {
  constructor(
    private readonly sources: SourcesService,
    private readonly mailings: MailingsService,
  ) {}

  /** Mailings that read a column which is gone read another one in its place. */
  @Answers(RelinkedAnswer)
  @Post(':id/links')
  async relink(@Param('id', ParseIntPipe) id: number, @Body() { from, to }: RelinkRequest): Promise<RelinkedAnswer> {
    const { name, columns } = await this.sources.detail(id);
    const column = columns.find((one) => one.name === to);
    if (!column) throw new MailbagError('source-key-missing', { source: name, column: to });
    const mailings = await this.mailings.renameColumn(id, { name: from, slug: slugOf(from) }, column);
    return { mailings };
  }
}
