import {
  PaperWaiting,
  PrintRequest,
  PrintRunDetail,
  PrintRunRequest,
  PrintRunSummary,
  PrinterAnswer,
  PrinterRequest,
  TestedAnswer,
} from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Body, Controller, Get, HttpCode, Param, ParseIntPipe, Post, Put, Query, StreamableFile } from '@nestjs/common';
import { printRunWithoutValues, WithoutValues } from '../accounts/hidden-values.js';
import { Needs, Who } from '../accounts/session.guard.js';
import { attachment } from '../platform/content-disposition.js';
import { IppPrinter } from './ipp-printer.js';
import { Gathering } from './gathering.service.js';
import { PrintRuns } from './print-runs.service.js';
import { Printers } from './printers.service.js';
import { Printing } from './printing.service.js';
import { streamed } from '../files/download.js';
import type { Principal } from '../platform/principal.js';

@Controller('api')
export class PaperController {
  constructor(
    private readonly gathering: Gathering,
    private readonly runs: PrintRuns,
    private readonly printing: Printing,
    private readonly printers: Printers,
  ) {}

  @Answers([PrinterAnswer])
  @Get('printers')
  @WithoutValues()
  list(): Promise<PrinterAnswer[]> {
    return this.printers.list();
  }
  @Answers([PrinterAnswer])
  @Post('printers')
  @Needs('administrator')
  @WithoutValues()
  add(@Body() body: PrinterRequest): Promise<PrinterAnswer[]> {
    return this.printers.save(null, body);
  }
  @Answers(TestedAnswer)
  @Post('printers/test')
  @HttpCode(200)
  @Needs('administrator')
  @WithoutValues()
  async test(@Body() { uri }: PrinterRequest): Promise<TestedAnswer> {
    return { answer: await new IppPrinter(uri).about() };
  }
  @Answers([PrinterAnswer])
  @Put('printers/:id')
  @Needs('administrator')
  @WithoutValues()
  set(@Param('id', ParseIntPipe) id: number, @Body() body: PrinterRequest): Promise<PrinterAnswer[]> {
    return this.printers.save(id, body);
  }

  /** What a print run would gather. */
  @Answers(PaperWaiting)
  @Get('print-runs/waiting')
  @WithoutValues()
  waiting(@Query('mailing') mailing?: string, @Query('batch') batch?: string): Promise<PaperWaiting> {
    return this.gathering.waiting(mailing ? Number(mailing) : null, batch ? Number(batch) : null);
  }
  @Answers([PrintRunSummary])
  @Get('print-runs')
  @WithoutValues()
  runList(): Promise<PrintRunSummary[]> {
    return this.runs.list();
  }
  @Answers(PrintRunDetail)
  @Post('print-runs')
  @WithoutValues(printRunWithoutValues)
  make(@Body() body: PrintRunRequest, @Who() who: Principal): Promise<PrintRunDetail> {
    return this.runs.make(body, who);
  }
  @Answers(PrintRunDetail)
  @Get('print-runs/:id')
  @WithoutValues(printRunWithoutValues)
  detail(@Param('id', ParseIntPipe) id: number): Promise<PrintRunDetail> {
    return this.runs.detail(id);
  }
  @Get('print-runs/:id/pdf')
  async pdf(@Param('id', ParseIntPipe) id: number, @Query('save') save?: string): Promise<StreamableFile> {
    const { key, name } = await this.runs.file(id);
    return streamed(key, name, {
      type: 'application/pdf',
      disposition: attachment(name, save ? 'attachment' : 'inline'),
    });
  }
  @Answers(PrintRunDetail)
  @Post('print-runs/:id/print')
  @HttpCode(200)
  @WithoutValues(printRunWithoutValues)
  print(@Param('id', ParseIntPipe) id: number, @Body() { printerId }: PrintRequest): Promise<PrintRunDetail> {
    return this.printing.print(id, printerId);
  }
  @Answers(PrintRunDetail)
  @Post('print-runs/:id/printed')
  @HttpCode(200)
  @WithoutValues(printRunWithoutValues)
  printed(@Param('id', ParseIntPipe) id: number, @Who() who: Principal): Promise<PrintRunDetail> {
    return this.runs.printed(id, who);
  }
  @Answers(PrintRunDetail)
  @Post('print-runs/:id/cancel')
  @HttpCode(200)
  @WithoutValues(printRunWithoutValues)
  cancel(@Param('id', ParseIntPipe) id: number): Promise<PrintRunDetail> {
    return this.runs.cancel(id);
  }
}
