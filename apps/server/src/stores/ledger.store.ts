import type { CopyRow, LedgerSort } from '@mailbag/contract';
import type { CopyState, Trouble } from '@mailbag/core';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { one, rows, run } from '../persistence/sql.js';

/** What the ledger shows of a copy. */
export const LEDGER_COLUMNS = `copy.id, copy.code, copy.recipient, copy.address, copy.path AS file, copy.state, copy.since, copy.batchId, copy.batchNumber, copy.mailingName, copy.templateName,
  copy.trouble, copy.troubleCode, copy.wantsPaper, CASE WHEN copy.state = 'retrying' THEN (SELECT nextTryAt FROM delivery WHERE delivery.id = copy.deliveryId) END AS nextTryAt`;
export type LedgerRow = Omit<CopyRow, 'wantsPaper'> & { wantsPaper: number };
export interface StateCount {
  state: CopyState;
  count: number;
}

/** Which copies; times are ISO 8601 in UTC, from the first until before the second. */
export interface LedgerFilter {
  state?: CopyState | undefined;
  batch?: number | undefined;
  mailing?: number | undefined;
  template?: number | undefined;
  trouble?: Trouble | undefined;
  since?: string | undefined;
  until?: string | undefined;
  paper?: boolean | undefined;
}

/** A filter as conditions on rows of `copy`. */
function chosen(filter: LedgerFilter): { where: string; values: unknown[] } {
  const conditions: [sql: string, value: unknown][] = [
    ['copy.state = ?', filter.state],
    ['copy.batchId = ?', filter.batch],
    ['copy.mailingId = ?', filter.mailing],
    ['copy.templateId = ?', filter.template],
    ['copy.trouble = ?', filter.trouble],
    ['copy.since >= ?', filter.since],
    ['copy.since < ?', filter.until],
    ['copy.wantsPaper = ?', filter.paper ? 1 : undefined],
  ];
  const given = conditions.filter(([, value]) => value !== undefined);
  return { where: given.map(([sql]) => sql).join(' AND ') || '1', values: given.map(([, value]) => value) };
}

const orders: Record<LedgerSort, { by: string; after: string }> = {
  newest: { by: 'copy.id DESC', after: 'copy.id < ?' },
  oldest: { by: 'copy.id', after: 'copy.id > ?' },
  recipient: {
    by: `${dialect.caseless('copy.recipient')}, copy.id`,
    after: `(${dialect.caseless('copy.recipient')}, copy.id) > (SELECT recipient, id FROM copy WHERE id = ?)`,
  },
  'recipient-down': {
    by: `${dialect.caseless('copy.recipient')} DESC, copy.id DESC`,
    after: `(${dialect.caseless('copy.recipient')}, copy.id) < (SELECT recipient, id FROM copy WHERE id = ?)`,
  },
  'changed-up': { by: 'copy.since, copy.id', after: '(copy.since, copy.id) > (SELECT since, id FROM copy WHERE id = ?)' },
  changed: { by: 'copy.since DESC, copy.id DESC', after: '(copy.since, copy.id) < (SELECT since, id FROM copy WHERE id = ?)' },
};
const MATCHES = `EXISTS (SELECT 1 FROM copy_words WHERE ${dialect.matches('copy_words')} AND copy_words.rowid = copy.id)`;

export const ledgerStore = {
  hasTerm: (sql: Sql, word: string) => rows<unknown>(sql, 'SELECT 1 FROM copy_terms WHERE term = ? LIMIT 1', [word]),

  hasLongerTerm: (sql: Sql, from: string, to: string) =>
    rows<unknown>(sql, 'SELECT 1 FROM copy_terms WHERE term >= ? AND term < ? LIMIT 1', [from, to]),

  total: (sql: Sql) => one<{ count: number | null }>(sql, 'SELECT SUM(count) AS count FROM copy_count'),

  countsOfBatch: (sql: Sql, batchId: number) =>
    rows<{ state: string; count: number }>(
      sql,
      'SELECT state, SUM(count) AS count FROM copy_count WHERE batchId = ? GROUP BY state HAVING SUM(count) > 0',
      [batchId],
    ),

  addWords: (sql: Sql, text: string, ids: readonly number[]) =>
    run(sql, `UPDATE copy_words SET text = text || ? WHERE rowid ${dialect.inIds}`, [text, JSON.stringify(ids)]),

  /** Of mailings that are not put away, the one that was changed last first. */
  countsByMailing: (sql: Sql) =>
    rows<{ id: number; name: string; state: string | null; count: number }>(
      sql,
      'SELECT mailing.id, mailing.name, copy_count.state, COALESCE(SUM(copy_count.count), 0) AS count FROM mailing LEFT JOIN copy_count ON copy_count.mailingId = mailing.id WHERE mailing.archivedAt IS NULL AND mailing.deletedAt IS NULL GROUP BY mailing.id, copy_count.state ORDER BY mailing.updatedAt DESC',
    ),

  inStateByMailing: (sql: Sql, state: string) =>
    rows<{ mailingId: number; count: number }>(
      sql,
      'SELECT mailingId, SUM(count) AS count FROM copy_count WHERE state = ? GROUP BY mailingId HAVING SUM(count) > 0 ORDER BY count DESC',
      [state],
    ),

  wordsWithoutRecords: (sql: Sql, batchId: number) =>
    run(
      sql,
      "UPDATE copy_words SET text = (SELECT copy.code || ' ' || replace(copy.code, '-', '') || ' ' || copy.recipient || ' ' || copy.address || ' ' || copy.path || ' ' || copy.mailingName || ' ' || copy.templateName FROM copy WHERE copy.id = copy_words.rowid) WHERE rowid IN (SELECT id FROM copy WHERE batchId = ?)",
      [batchId],
    ),

  /** How many copies a filter by state, batch, mailing and template leaves. */
  counted: async (sql: Sql, filter: Pick<LedgerFilter, 'state' | 'batch' | 'mailing' | 'template'>) => {
    const { where, values } = chosen(filter);
    const found = await one<{ count: number | null }>(sql, `SELECT SUM(count) AS count FROM copy_count AS copy WHERE ${where}`, values);
    return found?.count ?? 0;
  },

  /** A page. @param search as FTS5 asks; empty: none @param last id of the last copy of the page before; undefined: from the beginning */
  page: (sql: Sql, filter: LedgerFilter, search: string, sort: LedgerSort, last: number | undefined, limit: number) => {
    const { where, values } = chosen(filter);
    const { by, after } = orders[sort];
    return rows<LedgerRow>(
      sql,
      `SELECT ${LEDGER_COLUMNS} FROM copy WHERE ${where}${search ? ` AND ${MATCHES}` : ''}${last === undefined ? '' : ` AND ${after}`} ORDER BY ${by} LIMIT ?`,
      [...values, ...(search ? [search] : []), ...(last === undefined ? [] : [last]), limit],
    );
  },

  /** Whether a search finds no more copies than a number. */
  findsUpTo: async (sql: Sql, search: string, limit: number) =>
    (await one<{ count: number }>(
      sql,
      `SELECT COUNT(*) AS count FROM (SELECT 1 FROM copy_words WHERE ${dialect.matches('copy_words')} LIMIT ?) AS found`,
      [search, limit + 1],
    ))!.count <= limit,

  /** A page of the few that a search finds, in any order: by way of the index of an order, each copy would be looked up in the search until the page is full. */
  pageOfFew: (sql: Sql, filter: LedgerFilter, search: string, sort: LedgerSort, last: number | undefined, limit: number) => {
    const { where, values } = chosen(filter);
    const { by, after } = orders[sort];
    return rows<LedgerRow>(
      sql,
      `SELECT ${LEDGER_COLUMNS} FROM copy_words CROSS JOIN copy ON copy.id = copy_words.rowid WHERE ${dialect.matches('copy_words')} AND ${where}${last === undefined ? '' : ` AND ${after}`} ORDER BY ${by} LIMIT ?`,
      [search, ...values, ...(last === undefined ? [] : [last]), limit],
    );
  },

  /** A page of what a search finds, the newest first: it runs from the newest on and ends when the page is full. */
  found: (sql: Sql, filter: LedgerFilter, search: string, last: number | undefined, maximum: number) => {
    const { where, values } = chosen(filter);
    return rows<LedgerRow>(
      sql,
      `SELECT ${LEDGER_COLUMNS} FROM copy_words CROSS JOIN copy ON copy.id = copy_words.rowid WHERE ${dialect.matches('copy_words')}${last === undefined ? '' : ' AND copy_words.rowid < ?'} AND ${where} ORDER BY copy_words.rowid DESC LIMIT ?`,
      [search, ...(last === undefined ? [] : [last]), ...values, maximum],
    );
  },

  /** How many copies are in each state. */
  countsByState: (sql: Sql, filter: LedgerFilter) => {
    const { where, values } = chosen(filter);
    if (filter.trouble === undefined && filter.since === undefined && filter.until === undefined && !filter.paper)
      return rows<StateCount>(
        sql,
        `SELECT state, SUM(count) AS count FROM copy_count AS copy WHERE ${where} GROUP BY state HAVING SUM(count) > 0`,
        values,
      );
    // These indexes hold all that is asked for, which the planner does not always see.
    const index = filter.paper
      ? ''
      : filter.trouble !== undefined
        ? dialect.byIndex('copy_trouble_counted')
        : dialect.byIndex('copy_by_since');
    return rows<StateCount>(sql, `SELECT state, COUNT(*) AS count FROM copy ${index} WHERE ${where} GROUP BY state`, values);
  },

  /** How many of few copies a search finds in each state. */
  countsOfFew: (sql: Sql, filter: LedgerFilter, search: string) => {
    const { where, values } = chosen(filter);
    return rows<StateCount>(sql, `SELECT state, COUNT(*) AS count FROM copy WHERE ${where} AND ${MATCHES} GROUP BY state`, [
      ...values,
      search,
    ]);
  },

  /** How many copies a search finds in each state; of the newest, when there are more than `maximum`. */
  countsFound: (sql: Sql, filter: LedgerFilter, search: string, maximum: number) => {
    const { where, values } = chosen(filter);
    return rows<StateCount>(
      sql,
      `SELECT state, COUNT(*) AS count FROM (SELECT copy.state FROM copy_words CROSS JOIN copy ON copy.id = copy_words.rowid WHERE ${dialect.matches('copy_words')} AND ${where} ORDER BY copy_words.rowid DESC LIMIT ?) AS found GROUP BY state`,
      [search, ...values, maximum],
    );
  },

  /** Writes the index of the search anew, so that what was deleted does not stay in it. */
  optimise: (sql: Sql) => run(sql, "INSERT INTO copy_words (copy_words) VALUES ('optimize')"),
};
