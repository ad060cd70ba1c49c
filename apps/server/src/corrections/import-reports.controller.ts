import { ImportReport } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Controller, Get, Param, ParseIntPipe, Res } from '@nestjs/common';
import type { Response } from 'express';
import { send } from '../files/download.js';
import { ImportReports } from './import-report.service.js';

/** What reading a source has shown. */
@Controller('api/sources')
export class ImportReportsController {
  constructor(private readonly reports: ImportReports) {}

  @Answers(ImportReport)
  @Get(':id/report')
  report(@Param('id', ParseIntPipe) id: number): Promise<ImportReport> {
    return this.reports.of(id);
  }

  @Get(':id/report.xlsx')
  async reportSheet(@Param('id', ParseIntPipe) id: number, @Res() response: Response): Promise<void> {
    send(response, await this.reports.workbook(id));
  }
}
