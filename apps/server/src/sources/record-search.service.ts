import { textFinder } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { recordStore } from '../stores/record.store.js';
import { SourcesService, toRecord } from './sources.service.js';

/** Records that are looked through at a time. */
const FIND_BLOCK = 1000;

/** Finds records by what stands in them. */
@Injectable()
export class RecordSearch {
  constructor(
    private readonly sources: SourcesService,
    private readonly transactions: Transactions,
  ) {}

  /** Place of the first record after `after` that holds the text; -1: none. Goes round once. */
  async findRecord(id: number, text: string, after: number): Promise<number> {
    const inLine = textFinder(JSON.stringify(text).slice(1, -1));
    const inCell = textFinder(text);
    const firstIn = async (from: number, to: number): Promise<number> => {
      for (let next = from; next < to; next += FIND_BLOCK) {
        const rows = await recordStore.stretch(this.transactions, id, next, Math.min(to, next + FIND_BLOCK));
        // Few lines hold the text at all, and only those are taken apart.
        const found = rows.find((one) => inLine(one.cells) && toRecord(one).cells.some((cell) => inCell(cell.text)));
        if (found) return found.ordinal;
      }
      return -1;
    };
    const { count } = await this.sources.detail(id);
    const later = await firstIn(after + 1, count);
    return later >= 0 ? later : firstIn(0, Math.min(count, after + 1));
  }
}
