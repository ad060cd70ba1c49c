import { FindingsAnswer, FindingsFilterQuery, FindingsQuery, FlaggedAnswer } from '@mailbag/contract';
import { Controller, Get, Param, ParseIntPipe, Query, StreamableFile } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { XLSX_TYPE } from '../files/download.js';
import { Answers } from '../platform/answers.js';
import { attachment } from '../platform/content-disposition.js';
import { FindingLists } from './finding-lists.service.js';

/** What the checks of a mailing have found. */
@Controller('api/mailings/:id')
export class FindingsController {
  constructor(private readonly lists: FindingLists) {}

  @Answers(FindingsAnswer)
  @Get('findings')
  page(@Param('id', ParseIntPipe) id: number, @Query() { from, count, ...filter }: FindingsQuery): Promise<FindingsAnswer> {
    return this.lists.page(id, filter, from, count);
  }

  @Get('findings.csv')
  async csv(@Param('id', ParseIntPipe) id: number, @Query() filter: FindingsFilterQuery): Promise<StreamableFile> {
    const file = await this.lists.csv(id, filter);
    return new StreamableFile(file, {
      type: 'text/csv; charset=utf-8',
      disposition: attachment(await this.lists.nameOf(id, filter, 'csv')),
    });
  }

  @Get('findings.xlsx')
  async xlsx(@Param('id', ParseIntPipe) id: number, @Query() filter: FindingsFilterQuery): Promise<StreamableFile> {
    return new StreamableFile(await this.lists.xlsx(id, filter), {
      type: XLSX_TYPE,
      disposition: attachment(await this.lists.nameOf(id, filter, 'xlsx')),
    });
  }

  @Answers(FlaggedAnswer)
  @Get('flagged')
  @WithoutValues()
  flagged(@Param('id', ParseIntPipe) id: number): Promise<FlaggedAnswer> {
    return this.lists.flagged(id);
  }
}
