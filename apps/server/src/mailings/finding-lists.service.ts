import { Readable } from 'node:stream';
import type { FindingsAnswer, FindingsFilterQuery, FlaggedAnswer } from '@mailbag/contract';
import type { Column, Finding, SourceRecord } from '@mailbag/core';
import { csvLine, findingSentence, findingTitle, savedName } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { sheetStream } from '../files/sheet-stream.js';
import { Transactions } from '../persistence/transactions.js';
import { SettingsService } from '../settings/settings.service.js';
import { SourcesService } from '../sources/sources.service.js';
import type { FindingOrder, WhichFindings } from '../stores/finding.store.js';
import { findingStore } from '../stores/finding.store.js';
import { Pool } from '../work/pool.js';
import { MailingsService } from './mailings.service.js';

/** Findings that are read from the database at once while a file is written. */
const BLOCK = 500;

type Item = FindingsAnswer['items'][number];

/** What the checks of a mailing have found, as lists: filtered, in an order, page by page and as files. */
@Injectable()
export class FindingLists {
  constructor(
    private readonly mailings: MailingsService,
    private readonly transactions: Transactions,
    private readonly sources: SourcesService,
    private readonly pool: Pool,
    private readonly settings: SettingsService,
  ) {}

  /** What a file of what a filter leaves is called. @throws MailbagError not-found */
  async nameOf(id: number, { code, text, accepted }: FindingsFilterQuery, extension: string): Promise<string> {
    const { plan } = await this.mailings.entity(id);
    const what = accepted ? 'Accepted looks' : 'Findings';
    return savedName([what, plan.name, code && findingTitle(code), text], this.settings.today(), extension);
  }

  /** @throws MailbagError not-found */
  async page(id: number, filter: FindingsFilterQuery, from: number, count: number): Promise<FindingsAnswer> {
    const { plan } = await this.mailings.entity(id);
    const which = await this.which(id, plan.sourceId, filter);
    const sum = await findingStore.count(this.transactions, which);
    const items = await this.items(which, plan.sourceId, filter, from, count);
    return {
      total: sum?.total ?? 0,
      items,
      corrections: plan.sourceId
        ? await this.sources.correctionsOf(plan.sourceId, [...new Set(items.map(({ finding }) => finding.row))])
        : [],
    };
  }

  async flagged(id: number): Promise<FlaggedAnswer> {
    const rows = await findingStore.flagged(this.transactions, id);
    return { indexes: rows.map(({ ordinal }) => ordinal) };
  }

  /** All that a filter leaves, as a sheet. @throws MailbagError not-found */
  async xlsx(id: number, filter: FindingsFilterQuery): Promise<Readable> {
    const { headings, lines } = await this.lines(id, filter);
    const widths = headings.map((heading) => ({ heading, width: heading === 'Problem' ? 80 : 22 }));
    return sheetStream('Findings', widths, lines());
  }

  /** @throws MailbagError not-found */
  async csv(id: number, filter: FindingsFilterQuery): Promise<Readable> {
    const { headings, lines } = await this.lines(id, filter);
    const texts = async function* (): AsyncGenerator<string> {
      yield `\ufeff${csvLine(headings)}`;
      for await (const block of lines()) yield block.map((line) => csvLine(line)).join('');
    };
    return Readable.from(texts());
  }

  private async lines(id: number, filter: FindingsFilterQuery): Promise<{ headings: string[]; lines: () => AsyncGenerator<string[][]> }> {
    const { plan } = await this.mailings.entity(id);
    const which = await this.which(id, plan.sourceId, filter);
    const total = (await findingStore.count(this.transactions, which))?.total ?? 0;
    const columns: readonly Column[] = plan.sourceId ? (await this.sources.detail(plan.sourceId)).columns : [];
    const keyAt = columns.findIndex(({ name }) => name === plan.keyColumn);
    const line = ({ finding, record, acceptance }: Item): string[] => [
      String(finding.row),
      record.cells[keyAt]?.text ?? '',
      finding.severity,
      findingTitle(finding.code),
      finding.column ?? '',
      finding.label ?? '',
      finding.value,
      findingSentence(finding),
      finding.mend ?? '',
      acceptance ? `${acceptance.who}: ${acceptance.reason}` : '',
    ];
    const items = (from: number): Promise<Item[]> => this.items(which, plan.sourceId, filter, from, BLOCK);
    return {
      headings: ['Row', plan.keyColumn ?? 'Record', 'Weight', 'Kind', 'Column', 'Field', 'Value', 'Problem', 'Proposed', 'Accepted'],
      async *lines() {
        for (let from = 0; from < total; from += BLOCK) yield (await items(from)).map(line);
      },
    };
  }

  private async which(mailingId: number, sourceId: number | null | undefined, filter: FindingsFilterQuery): Promise<WhichFindings> {
    const text = filter.text?.trim() ?? '';
    return {
      mailingId,
      code: filter.code,
      severity: filter.severity,
      accepted: filter.accepted === 'yes',
      among:
        text !== '' && sourceId
          ? (await this.pool.run('matchRecords', { mailingId, sourceId, text, only: null })).map(({ ordinal }) => ordinal)
          : undefined,
    };
  }

  private async items(
    which: WhichFindings,
    sourceId: number | null | undefined,
    { sort = 'row', down }: FindingsFilterQuery,
    from: number,
    count: number,
  ): Promise<Item[]> {
    const order: FindingOrder = { sort, isDown: down === 'yes' };
    const rows = await findingStore.page(this.transactions, which, order, from, count);
    const records = sourceId
      ? await this.sources.recordsAt(sourceId, [...new Set(rows.map(({ ordinal }) => ordinal))])
      : new Map<number, SourceRecord>();
    return rows.flatMap(({ ordinal, body, acceptanceId, reason, who, at }) => {
      const record = records.get(ordinal);
      const acceptance = acceptanceId === null ? null : { id: acceptanceId, reason, who, at };
      return record ? [{ finding: JSON.parse(body) as Finding, record, index: ordinal, acceptance }] : [];
    });
  }
}
