import {
  BatchStartRequest,
  BatchSummary,
  MatchingRecords,
  StartEstimate,
  StartList,
  StartPreview,
  StartPreviewRequest,
  startGroups,
} from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { MailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Query, StreamableFile } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { TakesMegabytes, Who } from '../accounts/session.guard.js';
import { attachment } from '../platform/content-disposition.js';
import { BatchStarts } from './batch-starts.service.js';
import { StartEstimates } from './start-estimates.service.js';
import { BatchSummaries } from './batch-summaries.service.js';
import { BatchesService } from './batches.service.js';
import { streamed } from '../files/download.js';
import type { Principal } from '../platform/principal.js';

@Controller('api')
export class BatchesController {
  constructor(
    private readonly batches: BatchesService,
    private readonly summaries: BatchSummaries,
    private readonly starts: BatchStarts,
    private readonly estimates: StartEstimates,
  ) {}

  /** Who would run with a choice, and what they would get. Changes nothing. */
  @Answers(StartPreview)
  @Post('mailings/:id/start')
  @HttpCode(200)
  @TakesMegabytes(4)
  preview(@Param('id', ParseIntPipe) id: number, @Body() { who = 'new', rows, reread = true }: StartPreviewRequest): Promise<StartPreview> {
    return this.starts.preview(id, { who, ...(rows ? { rows } : {}) }, reread);
  }

  /** The records behind a number of what was shown. */
  @Answers(StartList)
  @Get('mailings/:id/start/:digest/:group')
  startList(
    @Param('digest') digest: string,
    @Param('group') group: string,
    @Query('from', ParseIntPipe) from: number,
    @Query('count', ParseIntPipe) count: number,
  ): Promise<StartList> {
    const known = startGroups.find((one) => one === group);
    if (!known) throw new MailbagError('not-found', { what: t`list` });
    return this.starts.list(digest, known, Math.max(0, from), Math.min(500, Math.max(1, count)));
  }

  /** How long what was shown would take, and what it weighs. */
  @Answers(StartEstimate)
  @Get('mailings/:id/estimate/:digest')
  estimate(@Param('digest') digest: string): Promise<StartEstimate> {
    return this.estimates.of(digest);
  }

  /** Records to choose from. */
  @Answers(MatchingRecords)
  @Get('mailings/:id/records')
  matching(@Param('id', ParseIntPipe) id: number, @Query('text') text = '', @Query('only') only?: string): Promise<MatchingRecords> {
    return this.starts.matching(id, { text: text.slice(0, 200), only: only === 'corrected' || only === 'looked' ? only : null });
  }

  @Answers(BatchSummary)
  @Post('mailings/:id/batches')
  @TakesMegabytes(4)
  start(@Param('id', ParseIntPipe) id: number, @Body() body: BatchStartRequest, @Who() who: Principal): Promise<BatchSummary> {
    return this.batches.start(id, body, who);
  }

  @Answers([BatchSummary])
  @Get('batches')
  @WithoutValues()
  list(): Promise<BatchSummary[]> {
    return this.summaries.list();
  }

  @Answers([BatchSummary])
  @Get('batches/running')
  @WithoutValues()
  running(): Promise<BatchSummary[]> {
    return this.summaries.list('running');
  }

  @Answers(BatchSummary)
  @Get('batches/:id')
  @WithoutValues()
  one(@Param('id', ParseIntPipe) id: number): Promise<BatchSummary> {
    return this.summaries.of(id);
  }

  @Answers(BatchSummary)
  @Post('batches/:id/pause')
  @HttpCode(200)
  @WithoutValues()
  pause(@Param('id', ParseIntPipe) id: number): Promise<BatchSummary> {
    return this.batches.pause(id);
  }

  @Answers(BatchSummary)
  @Post('batches/:id/resume')
  @HttpCode(200)
  @WithoutValues()
  resume(@Param('id', ParseIntPipe) id: number): Promise<BatchSummary> {
    return this.batches.resume(id);
  }

  @Answers(BatchSummary)
  @Post('batches/:id/cancel')
  @HttpCode(200)
  @WithoutValues()
  cancel(@Param('id', ParseIntPipe) id: number, @Who() who: Principal): Promise<BatchSummary> {
    return this.batches.cancel(id, who);
  }

  @Get('batches/:id/combined/:name')
  async combined(@Param('id', ParseIntPipe) id: number, @Param('name') name: string): Promise<StreamableFile> {
    return streamed(await this.summaries.combinedFile(id, name), name, {
      type: 'application/pdf',
      disposition: attachment(name),
    });
  }

  @Get('batches/:id/zip')
  async zip(@Param('id', ParseIntPipe) id: number): Promise<StreamableFile> {
    const { name, stream } = await this.summaries.zip(id);
    return new StreamableFile(stream, { type: 'application/zip', disposition: attachment(name) });
  }
}
