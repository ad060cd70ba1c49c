import { createReadStream } from 'node:fs';
import type { BatchSummary } from '@mailbag/contract';
import { Controller, Get, HttpCode, Param, ParseIntPipe, Post, StreamableFile } from '@nestjs/common';
import { ShowsValues, Who } from '../accounts/session.guard.js';
import { attachment } from '../platform/content-disposition.js';
import { BatchesService } from './batches.service.js';

@Controller('api')
export class BatchesController {
  constructor(private readonly batches: BatchesService) {}

  @Post('mailings/:id/batches')
  start(@Param('id', ParseIntPipe) id: number, @Who() who: string): Promise<BatchSummary> {
    return this.batches.start(id, who);
  }

  @Get('batches')
  list(): Promise<BatchSummary[]> {
    return this.batches.list();
  }

  @Get('batches/running')
  running(): Promise<BatchSummary[]> {
    return this.batches.list('running');
  }

  @Get('batches/:id')
  one(@Param('id', ParseIntPipe) id: number): Promise<BatchSummary> {
    return this.batches.summary(id);
  }

  @Post('batches/:id/pause')
  @HttpCode(200)
  pause(@Param('id', ParseIntPipe) id: number): Promise<BatchSummary> {
    return this.batches.pause(id);
  }

  @Post('batches/:id/resume')
  @HttpCode(200)
  resume(@Param('id', ParseIntPipe) id: number): Promise<BatchSummary> {
    return this.batches.resume(id);
  }

  @Post('batches/:id/cancel')
  @HttpCode(200)
  cancel(@Param('id', ParseIntPipe) id: number, @Who() who: string): Promise<BatchSummary> {
    return this.batches.cancel(id, who);
  }

  @Get('batches/:id/combined/:name')
  @ShowsValues()
  async combined(@Param('id', ParseIntPipe) id: number, @Param('name') name: string): Promise<StreamableFile> {
    return new StreamableFile(createReadStream(await this.batches.combinedFile(id, name)), {
      type: 'application/pdf',
      disposition: attachment(name),
    });
  }

  @Get('batches/:id/zip')
  @ShowsValues()
  async zip(@Param('id', ParseIntPipe) id: number): Promise<StreamableFile> {
    const { name, stream } = await this.batches.zip(id);
    return new StreamableFile(stream, { type: 'application/zip', disposition: attachment(name) });
  }
}
