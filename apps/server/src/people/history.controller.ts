import { HistoryLine } from '@mailbag/contract';
import { Answers } from '../platform/answers.js';
import { Controller, Get, Query } from '@nestjs/common';
import { WithoutValues } from '../accounts/hidden-values.js';
import { Needs } from '../accounts/session.guard.js';
import { Transactions } from '../persistence/transactions.js';
import { historyStore } from '../stores/history.store.js';

@Controller('api/history')
@WithoutValues()
@Needs('administrator')
export class HistoryController {
  constructor(private readonly transactions: Transactions) {}

  /** Who did what, newest first. @param before id of the last line of the page before */
  @Answers([HistoryLine])
  @Get()
  page(@Query('before') before?: string, @Query('text') text = ''): Promise<HistoryLine[]> {
    const like = `%${text.trim().replace(/[%_\\]/g, '\\$&')}%`;
    return historyStore.page(this.transactions, before ? Number(before) : Number.MAX_SAFE_INTEGER, like);
  }
}
