import { existsSync } from 'node:fs';
import type { CopyDetail, CopyEventLine, CopyRow, LedgerCounts, LedgerPage, LedgerQuery } from '@mailbag/contract';
import type { Cell, CopyState } from '@mailbag/core';
import { MailbagError } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { FrozenBatches } from '../batches/frozen-batches.js';
import { Transactions } from '../persistence/transactions.js';
import { dataPath } from '../platform/config.js';

const COLUMNS = `copy.id, copy.code, copy.recipient, copy.address, copy.path AS file, copy.state, copy.since, copy.batchId, copy.batchNumber, copy.mailingName, copy.templateName,
  CASE WHEN copy.state = 'retrying' THEN (SELECT nextTryAt FROM delivery WHERE delivery.id = copy.deliveryId) END AS nextTryAt`;

/** A text as FTS5 asks for it: every word as a beginning, quoted. */
export const searchQuery = (text: string): string =>
  text
    .split(/[^\p{L}\p{N}]+/u)
    .filter(Boolean)
    .map((word) => `"${word}"*`)
    .join(' ');

/** Reads the ledger. */
@Injectable()
export class CopiesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly batches: FrozenBatches,
  ) {}

  private where(query: LedgerQuery, withState: boolean): { sql: string; parameters: unknown[] } {
    const parts: string[] = [];
    const parameters: unknown[] = [];
    const add = (sql: string, value: unknown): void => {
      parts.push(sql);
      parameters.push(value);
    };
    if (withState && query.state) add('copy.state = ?', query.state);
    if (query.batch !== undefined) add('copy.batchId = ?', query.batch);
    if (query.mailing !== undefined) add('copy.mailingId = ?', query.mailing);
    if (query.template !== undefined) add('copy.templateId = ?', query.template);
    const search = query.text ? searchQuery(query.text) : '';
    if (search) add('copy.id IN (SELECT rowid FROM copy_search WHERE copy_search MATCH ?)', search);
    return { sql: parts.length > 0 ? parts.join(' AND ') : '1', parameters };
  }

  /** A page of the ledger, newest first. */
  async page(query: LedgerQuery): Promise<LedgerPage> {
    const count = query.count ?? 100;
    const { sql, parameters } = this.where(query, true);
    const before = query.before !== undefined ? ' AND copy.id < ?' : '';
    const rows = await this.transactions.read<CopyRow>(`SELECT ${COLUMNS} FROM copy WHERE ${sql}${before} ORDER BY copy.id DESC LIMIT ?`, [
      ...parameters,
      ...(query.before !== undefined ? [query.before] : []),
      count + 1,
    ]);
    return { rows: rows.slice(0, count), more: rows.length > count };
  }

  /** How many copies there are, match, and are in each state (the state filter left aside). */
  async counts(query: LedgerQuery): Promise<LedgerCounts> {
    const { sql, parameters } = this.where(query, false);
    const rows = await this.transactions.read<{ state: CopyState; count: number }>(
      `SELECT state, COUNT(*) AS count FROM copy WHERE ${sql} GROUP BY state`,
      parameters,
    );
    const byState = Object.fromEntries(rows.map(({ state, count }) => [state, count]));
    const sum = rows.reduce((total, { count }) => total + count, 0);
    const [all] = await this.transactions.read<{ count: number }>('SELECT COUNT(*) AS count FROM copy');
    return { total: all?.count ?? 0, matching: query.state ? (byState[query.state] ?? 0) : sum, byState };
  }

  async countsOfBatch(batchId: number): Promise<Record<string, number>> {
    const rows = await this.transactions.read<{ state: string; count: number }>(
      'SELECT state, COUNT(*) AS count FROM copy WHERE batchId = ? GROUP BY state',
      [batchId],
    );
    return Object.fromEntries(rows.map(({ state, count }) => [state, count]));
  }

  /** @throws MailbagError not-found */
  async detail(id: number): Promise<CopyDetail> {
    const [row] = await this.transactions.read<
      CopyRow & { size: number; pages: number; sha256: string | null; row: number; recordOrdinal: number; deliveryId: number | null }
    >(`SELECT ${COLUMNS}, copy.size, copy.pages, copy.sha256, copy.row, copy.recordOrdinal, copy.deliveryId FROM copy WHERE copy.id = ?`, [
      id,
    ]);
    if (!row) throw new MailbagError('not-found', { what: 'copy' });
    const { recordOrdinal, deliveryId, ...copy } = row;
    const events = await this.transactions.read<CopyEventLine>(
      'SELECT at, who, event, state, said FROM copy_event WHERE copyId = ? ORDER BY id DESC',
      [id],
    );
    const { mailing } = await this.batches.mailing(row.batchId);
    const record = await this.batches.record(row.batchId, recordOrdinal);
    const [delivery] = await this.transactions.read<NonNullable<CopyDetail['delivery']>>(
      'SELECT id, address, state, attempts, messageId, said, (SELECT COUNT(*) FROM copy WHERE copy.deliveryId = delivery.id) AS copies FROM delivery WHERE id = ?',
      [deliveryId ?? -1],
    );
    const parts = copy.file.split('/');
    return {
      ...copy,
      folder: parts.slice(0, -1).join('/'),
      finish: mailing.plan.output.finish ?? 'flattened',
      record: mailing.columns.map((column, index) => ({
        column: column.name,
        text: (record.cells[index] as Cell | undefined)?.text ?? '',
      })),
      events,
      delivery: delivery ?? null,
    };
  }

  /** Path of a copy's file. @throws MailbagError not-found, batch-file-gone */
  async file(id: number): Promise<{ path: string; name: string }> {
    const [row] = await this.transactions.read<{ path: string }>('SELECT path FROM copy WHERE id = ?', [id]);
    if (!row) throw new MailbagError('not-found', { what: 'copy' });
    const path = dataPath('archive', row.path);
    if (!existsSync(path)) throw new MailbagError('batch-file-gone', { path: row.path });
    return { path, name: row.path.split('/').at(-1)! };
  }

  /** Copies found by any word on them, for Find. */
  async find(text: string, count: number): Promise<CopyRow[]> {
    return searchQuery(text) ? (await this.page({ text, count })).rows : [];
  }
}
