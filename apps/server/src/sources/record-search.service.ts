import type { RecordViewQuery } from '@mailbag/contract';
import { MailbagError, textFinder } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { recordStore } from '../stores/record.store.js';
import { Pool } from '../work/pool.js';
import { SourcesService, toRecord } from './sources.service.js';

/** Records that are looked through at a time. */
const FIND_BLOCK = 1000;

/** Finds records by what stands in them. */
@Injectable()
export class RecordSearch {
  constructor(
    private readonly sources: SourcesService,
    private readonly transactions: Transactions,
    private readonly pool: Pool,
  ) {}

  /** Places of records in the order in which they are to be seen. @throws MailbagError source-key-missing: no such column */
  async view(id: number, { order, down, column, text = '', only }: RecordViewQuery): Promise<number[]> {
    const { columns, name: source } = await this.sources.detail(id);
    const indexOf = (name: string): number => {
      const index = columns.findIndex((one) => one.name === name);
      if (index < 0) throw new MailbagError('source-key-missing', { source, column: name });
      return index;
    };
    const orderOf = (index: number) => ({
      column: index,
      isDown: down === 'yes',
      hasValues: ['number', 'date'].includes(columns[index]!.kind),
    });
    return this.pool.run('viewRecords', {
      sourceId: id,
      order: order === undefined ? null : orderOf(indexOf(order)),
      column: column === undefined ? null : indexOf(column),
      text,
      only: only ?? null,
    });
  }

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
