import { existsSync } from 'node:fs';
import type {
  Account,
  CopyDetail,
  CopyEventLine,
  CopyRow,
  LedgerCounts,
  LedgerFilterQuery,
  LedgerPage,
  LedgerQuery,
  LedgerSort,
} from '@mailbag/contract';
import type { Cell, CopyState } from '@mailbag/core';
import { MailbagError, searchText, searchWords, usualSort } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { SettingsService } from '../settings/settings.service.js';
import { Pool } from '../work/pool.js';
import { Transactions } from '../persistence/transactions.js';
import { dataPath } from '../platform/config.js';

const COLUMNS = `copy.id, copy.code, copy.recipient, copy.address, copy.path AS file, copy.state, copy.since, copy.batchId, copy.batchNumber, copy.mailingName, copy.templateName,
  copy.trouble, copy.troubleCode, copy.wantsPaper, CASE WHEN copy.state = 'retrying' THEN (SELECT nextTryAt FROM delivery WHERE delivery.id = copy.deliveryId) END AS nextTryAt`;

/** Copies that a search is counted to. */
const COUNTED = 10_000;
/** Copies that a list, an export or an action goes over at once. */
export const MOST_COPIES = 1_000_000;

/** Copies that a search goes through at most for who may not see values: the words it finds may stand in what they do not see. */
const LOOKED_THROUGH = 20_000;
/** `shownOnly`: a search finds only what the ledger itself shows of a copy, and not by the values of its record. */
type Filter = LedgerFilterQuery & { shownOnly?: boolean };
type Asked = LedgerQuery & { shownOnly?: boolean };

/** A filter as an account may ask it. */
export const askedBy = <T extends LedgerFilterQuery>(query: T, { seesValues }: Account): T & { shownOnly: boolean } => ({
  ...query,
  shownOnly: !seesValues,
});

/** Whether words are found in what the ledger shows of a copy. */
function showsWords({ code, recipient, address, file, mailingName, templateName }: CopyRow, words: readonly string[]): boolean {
  const shown = searchWords(searchText([code, code.replace(/-/g, ''), recipient, address, file, mailingName, templateName].join(' ')));
  return words.every((word) => shown.some((one) => one.startsWith(word)));
}

/** Rows of a filter up to which each is looked up in the search, in place of looking up each of what the search finds. */
const FEW = 3000;

const orders: Record<LedgerSort, { by: string; after: string }> = {
  newest: { by: 'copy.id DESC', after: 'copy.id < ?1' },
  oldest: { by: 'copy.id', after: 'copy.id > ?1' },
  recipient: {
    by: 'copy.recipient COLLATE NOCASE, copy.id',
    after: '(copy.recipient COLLATE NOCASE, copy.id) > (SELECT recipient, id FROM copy WHERE id = ?1)',
  },
  changed: { by: 'copy.since DESC, copy.id DESC', after: '(copy.since, copy.id) < (SELECT since, id FROM copy WHERE id = ?1)' },
};

/** Reads the ledger. */
@Injectable()
export class CopiesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly batches: FrozenBatches,
    private readonly pool: Pool,
    private readonly settings: SettingsService,
  ) {}

  /**
   * A text as FTS5 asks for it: every word as a beginning, quoted. A word that nothing else begins with is asked for as it is, which is much quicker
   * when very many copies have it; single letters and digits too, since too much begins with them. Empty: there is nothing to look for.
   */
  private async searchQuery(text: string | undefined): Promise<string> {
    const parts = await Promise.all(
      searchWords(text ?? '').map(async (word) => {
        if ([...word].length === 1) return `"${word}"`;
        const [whole] = await this.transactions.read('SELECT 1 FROM copy_terms WHERE term = ? LIMIT 1', [word]);
        // No token goes on with less than a digit; to begin there spares going through all places of the word itself.
        const [longer] = whole
          ? await this.transactions.read('SELECT 1 FROM copy_terms WHERE term >= ? AND term < ? LIMIT 1', [`${word}0`, `${word}\u{10ffff}`])
          : [1];
        return longer ? `"${word}"*` : `"${word}"`;
      }),
    );
    return parts.join(' ');
  }

  /** Whether a filter leaves few copies by state, batch, mailing and template alone. */
  private async leavesFew({ state, batch, mailing, template }: LedgerFilterQuery): Promise<boolean> {
    if (state === undefined && batch === undefined && mailing === undefined && template === undefined) return false;
    const { sql, parameters } = this.where(
      {
        ...(state && { state }),
        ...(batch !== undefined && { batch }),
        ...(mailing !== undefined && { mailing }),
        ...(template !== undefined && { template }),
      },
      true,
    );
    const [row] = await this.transactions.read<{ count: number | null }>(
      `SELECT SUM(count) AS count FROM copy_count AS copy WHERE ${sql}`,
      parameters,
    );
    return (row?.count ?? 0) <= FEW;
  }

  /** Conditions on rows of `copy`, the search left aside. */
  private where(query: LedgerFilterQuery, withState: boolean): { sql: string; parameters: unknown[] } {
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
    if (query.trouble !== undefined) add('copy.trouble = ?', query.trouble);
    if (query.from !== undefined) add('copy.since >= ?', this.settings.startOfDay(query.from));
    if (query.to !== undefined) add('copy.since < ?', this.settings.startOfDay(query.to, 1));
    if (query.paper) add('copy.wantsPaper = ?', 1);
    return { sql: parts.length > 0 ? parts.join(' AND ') : '1', parameters };
  }

  /** A page of the ledger. */
  async page(query: Asked): Promise<LedgerPage> {
    const count = query.count ?? 100;
    const rows = await this.rows(query, count + 1);
    return { rows: rows.slice(0, count), more: rows.length > count };
  }

  /** @param most rows at most */
  private async rows(query: Asked, most: number): Promise<CopyRow[]> {
    if (query.shownOnly && query.text) return this.shownRows(query, most, LOOKED_THROUGH);
    const { sql, parameters } = this.where(query, true);
    const search = await this.searchQuery(query.text);
    const sort = query.sort ?? usualSort(query);
    const order = orders[sort];
    const after = query.before === undefined ? '' : ` AND ${order.after.replaceAll('?1', '?')}`;
    const last = query.before === undefined ? [] : [query.before];
    let found: CopyRow[];
    if (search && sort === 'newest' && !(await this.leavesFew(query))) {
      // The search itself runs from the newest on and ends when the page is full.
      const from = query.before === undefined ? '' : ' AND copy_words.rowid < ?';
      found = await this.transactions.read<CopyRow>(
        `SELECT ${COLUMNS} FROM copy_words CROSS JOIN copy ON copy.id = copy_words.rowid WHERE copy_words MATCH ?${from} AND ${sql} ORDER BY copy_words.rowid DESC LIMIT ?`,
        [search, ...last, ...parameters, most],
      );
    } else {
      const matching = search ? ' AND EXISTS (SELECT 1 FROM copy_words WHERE copy_words MATCH ? AND copy_words.rowid = copy.id)' : '';
      found = await this.transactions.read<CopyRow>(
        `SELECT ${COLUMNS} FROM copy WHERE ${sql}${matching}${after} ORDER BY ${order.by} LIMIT ?`,
        [...parameters, ...(search ? [search] : []), ...last, most],
      );
    }
    return found.map((row) => ({ ...row, wantsPaper: Boolean(row.wantsPaper) }));
  }

  /** Rows whose words stand in what the ledger shows. @param looked how many of those that the search finds are gone through */
  private async shownRows(query: Asked, most: number, looked: number): Promise<CopyRow[]> {
    const BLOCK = 1000;
    const words = searchWords(query.text ?? '');
    const found: CopyRow[] = [];
    let { before } = query;
    for (let seen = 0; seen < looked; seen += BLOCK) {
      const rows = await this.rows({ ...query, shownOnly: false, ...(before === undefined ? {} : { before }) }, BLOCK);
      for (const row of rows) {
        if (showsWords(row, words)) found.push(row);
        if (found.length === most) return found;
      }
      if (rows.length < BLOCK) break;
      before = rows.at(-1)!.id;
    }
    return found;
  }

  /** Every row of a filter, block by block, newest first. */
  async *all(query: Filter): AsyncGenerator<CopyRow[]> {
    const BLOCK = 1000;
    for (let before: number | undefined; ;) {
      const rows = await this.rows({ ...query, sort: 'newest', ...(before === undefined ? {} : { before }) }, BLOCK);
      if (rows.length > 0) yield rows;
      if (rows.length < BLOCK) return;
      before = rows.at(-1)!.id;
    }
  }

  /** How many copies there are, match, and are in each state (the state filter left aside). */
  async counts(query: Filter): Promise<LedgerCounts> {
    if (query.shownOnly && query.text) return this.shownCounts(query);
    const { sql, parameters } = this.where(query, false);
    const search = await this.searchQuery(query.text);
    const [all] = await this.transactions.read<{ count: number | null }>('SELECT SUM(count) AS count FROM copy_count');
    let rows: { state: CopyState; count: number }[];
    const { state: _, ...others } = query;
    if (search && (await this.leavesFew(others))) {
      rows = await this.transactions.read(
        `SELECT state, COUNT(*) AS count FROM copy WHERE ${sql} AND EXISTS (SELECT 1 FROM copy_words WHERE copy_words MATCH ? AND copy_words.rowid = copy.id) GROUP BY state`,
        [...parameters, search],
      );
    } else if (search) {
      rows = await this.transactions.read(
        `SELECT state, COUNT(*) AS count FROM (SELECT copy.state FROM copy_words CROSS JOIN copy ON copy.id = copy_words.rowid WHERE copy_words MATCH ? AND ${sql} ORDER BY copy_words.rowid DESC LIMIT ?) GROUP BY state`,
        [search, ...parameters, COUNTED + 1],
      );
    } else if (query.trouble !== undefined || query.from !== undefined || query.to !== undefined || query.paper) {
      // These indexes hold all that is asked for, which the planner does not always see.
      const index = query.paper ? '' : query.trouble !== undefined ? 'INDEXED BY copy_trouble_counted' : 'INDEXED BY copy_by_since';
      rows = await this.transactions.read(`SELECT state, COUNT(*) AS count FROM copy ${index} WHERE ${sql} GROUP BY state`, parameters);
    } else {
      rows = await this.transactions.read(
        `SELECT state, SUM(count) AS count FROM copy_count AS copy WHERE ${sql} GROUP BY state HAVING SUM(count) > 0`,
        parameters,
      );
    }
    const byState = Object.fromEntries(rows.map(({ state, count }) => [state, count]));
    const sum = rows.reduce((total, { count }) => total + count, 0);
    const atLeast = search !== '' && sum > COUNTED;
    return { total: all?.count ?? 0, matching: query.state ? (byState[query.state] ?? 0) : sum, byState, atLeast };
  }

  private async shownCounts({ state, ...others }: Filter): Promise<LedgerCounts> {
    const { total } = await this.counts({});
    const byState: Partial<Record<CopyState, number>> = {};
    const rows = await this.shownRows({ ...others }, COUNTED + 1, LOOKED_THROUGH);
    for (const row of rows) byState[row.state] = (byState[row.state] ?? 0) + 1;
    return { total, matching: state ? (byState[state] ?? 0) : rows.length, byState, atLeast: rows.length > COUNTED };
  }

  /** Ids of all copies of a filter. */
  async ids(query: Filter): Promise<number[]> {
    const ids: number[] = [];
    for await (const rows of this.all(query)) ids.push(...rows.map(({ id }) => id));
    return ids;
  }

  async countsOfBatch(batchId: number): Promise<Record<string, number>> {
    const rows = await this.transactions.read<{ state: string; count: number }>(
      'SELECT state, SUM(count) AS count FROM copy_count WHERE batchId = ? GROUP BY state HAVING SUM(count) > 0',
      [batchId],
    );
    return Object.fromEntries(rows.map(({ state, count }) => [state, count]));
  }

  /** @param account who looks: values are told only to those who may see them @throws MailbagError not-found */
  async detail(id: number, account: Account): Promise<CopyDetail> {
    const [row] = await this.transactions.read<
      CopyRow & {
        size: number;
        pages: number;
        sha256: string | null;
        row: number;
        recordOrdinal: number;
        deliveryId: number | null;
        metadata: string | null;
        isProtected: number;
      }
    >(
      `SELECT ${COLUMNS}, copy.size, copy.pages, copy.sha256, copy.row, copy.recordOrdinal, copy.deliveryId, copy.metadata, copy.isProtected FROM copy WHERE copy.id = ?`,
      [id],
    );
    if (!row) throw new MailbagError('not-found', { what: 'copy' });
    const { recordOrdinal, deliveryId, metadata, isProtected, ...copy } = row;
    const events = await this.transactions.read<CopyEventLine>(
      'SELECT at, who, event, state, said FROM copy_event WHERE copyId = ? ORDER BY id DESC',
      [id],
    );
    const { mailing } = await this.batches.mailing(row.batchId);
    const record = account.seesValues ? await this.batches.record(row.batchId, recordOrdinal).catch(() => null) : null;
    const [delivery] = await this.transactions.read<NonNullable<CopyDetail['delivery']>>(
      'SELECT id, address, state, attempts, messageId, said, (SELECT COUNT(*) FROM copy WHERE copy.deliveryId = delivery.id) AS copies FROM delivery WHERE id = ?',
      [deliveryId ?? -1],
    );
    const parts = copy.file.split('/');
    return {
      ...copy,
      wantsPaper: Boolean(copy.wantsPaper),
      isProtected: isProtected === 1,
      metadata: metadata && account.seesValues ? (JSON.parse(metadata) as Record<string, string>) : null,
      folder: parts.slice(0, -1).join('/'),
      finish: mailing.plan.output.finish ?? 'flattened',
      record:
        record &&
        mailing.columns.map((column, index) => ({
          column: column.name,
          text: (record.cells[index] as Cell | undefined)?.text ?? '',
        })),
      events,
      delivery: delivery ?? null,
      printRuns: await this.transactions.read(
        'SELECT print_run.id, print_run.number, print_run.state, print_run_copy.sheet FROM print_run_copy JOIN print_run ON print_run.id = print_run_copy.runId WHERE print_run_copy.copyId = ? ORDER BY print_run.id DESC',
        [id],
      ),
    };
  }

  /** The password that opens a copy, composed again from its record; it is stored nowhere. @throws MailbagError not-found */
  async openPassword(id: number): Promise<string> {
    const [row] = await this.transactions.read<{
      batchId: number;
      recordOrdinal: number;
      code: string;
      templateName: string;
    }>('SELECT batchId, recordOrdinal, code, templateName FROM copy WHERE id = ?', [id]);
    if (!row) throw new MailbagError('not-found', { what: 'copy' });
    const { batchId, recordOrdinal: ordinal, code, templateName: template } = row;
    return this.pool.run('openPassword', { batchId, ordinal, code, template });
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
  async find(text: string, count: number, account: Account): Promise<CopyRow[]> {
    return searchWords(text).length > 0 ? (await this.page(askedBy({ text, count }, account))).rows : [];
  }
}
