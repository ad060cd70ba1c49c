import type { Account, CopyRow, LedgerCounts, LedgerFilterQuery, LedgerPage, LedgerQuery, LedgerSort } from '@mailbag/contract';
import type { CopyState } from '@mailbag/core';
import { searchText, searchWords, usualSort } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { SettingsService } from '../settings/settings.service.js';
import type { LedgerFilter, LedgerRow } from '../stores/ledger.store.js';
import { ledgerStore } from '../stores/ledger.store.js';

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

/** Reads the ledger. */
@Injectable()
export class Ledger {
  constructor(
    private readonly transactions: Transactions,
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
        const [whole] = await ledgerStore.hasTerm(this.transactions, word);
        // No token goes on with less than a digit; to begin there spares going through all places of the word itself.
        const [longer] = whole ? await ledgerStore.hasLongerTerm(this.transactions, `${word}0`, `${word}\u{10ffff}`) : [1];
        return longer ? `"${word}"*` : `"${word}"`;
      }),
    );
    return parts.join(' ');
  }

  /** Days as the instants at which they begin and end. */
  private filterOf({ state, batch, mailing, template, trouble, from, to, paper }: LedgerFilterQuery): LedgerFilter {
    return {
      state,
      batch,
      mailing,
      template,
      trouble,
      since: from === undefined ? undefined : this.settings.startOfDay(from),
      until: to === undefined ? undefined : this.settings.startOfDay(to, 1),
      paper: paper !== undefined,
    };
  }

  /** Whether a filter leaves few copies by state, batch, mailing and template alone. */
  private async leavesFew({ state, batch, mailing, template }: LedgerFilter): Promise<boolean> {
    if (state === undefined && batch === undefined && mailing === undefined && template === undefined) return false;
    return (await ledgerStore.counted(this.transactions, { state, batch, mailing, template })) <= FEW;
  }

  /** A page of the ledger. */
  async page(query: Asked): Promise<LedgerPage> {
    const count = query.count ?? 100;
    const rows = await this.rows(query, count + 1);
    return { rows: rows.slice(0, count), more: rows.length > count };
  }

  /** @param limit rows at most */
  private async rows(query: Asked, limit: number): Promise<CopyRow[]> {
    if (query.shownOnly && query.text) return this.shownRows(query, limit, LOOKED_THROUGH);
    const filter = this.filterOf(query);
    const search = await this.searchQuery(query.text);
    const sort = query.sort ?? usualSort(query);
    const found = await this.found(filter, search, sort, query.before, limit);
    return found.map((row) => ({ ...row, wantsPaper: Boolean(row.wantsPaper) }));
  }

  /** Goes by way of whatever leaves few: the filter, the search, or the order and then a full page. */
  private async found(
    filter: LedgerFilter,
    search: string,
    sort: LedgerSort,
    last: number | undefined,
    limit: number,
  ): Promise<LedgerRow[]> {
    if (search && !(await this.leavesFew(filter))) {
      if (sort === 'newest') return ledgerStore.found(this.transactions, filter, search, last, limit);
      if (await ledgerStore.findsUpTo(this.transactions, search, COUNTED))
        return ledgerStore.pageOfFew(this.transactions, filter, search, sort, last, limit);
    }
    return ledgerStore.page(this.transactions, filter, search, sort, last, limit);
  }

  /** Rows whose words stand in what the ledger shows. @param looked how many of those that the search finds are gone through */
  private async shownRows(query: Asked, maximum: number, looked: number): Promise<CopyRow[]> {
    const BLOCK = 1000;
    const words = searchWords(query.text ?? '');
    const found: CopyRow[] = [];
    let { before } = query;
    for (let seen = 0; seen < looked; seen += BLOCK) {
      const rows = await this.rows({ ...query, shownOnly: false, ...(before === undefined ? {} : { before }) }, BLOCK);
      for (const row of rows) {
        if (showsWords(row, words)) found.push(row);
        if (found.length === maximum) return found;
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
    const filter = { ...this.filterOf(query), state: undefined };
    const search = await this.searchQuery(query.text);
    const all = await ledgerStore.total(this.transactions);
    const rows = !search
      ? await ledgerStore.countsByState(this.transactions, filter)
      : (await this.leavesFew(filter))
        ? await ledgerStore.countsOfFew(this.transactions, filter, search)
        : await ledgerStore.countsFound(this.transactions, filter, search, COUNTED + 1);
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
    const rows = await ledgerStore.countsOfBatch(this.transactions, batchId);
    return Object.fromEntries(rows.map(({ state, count }) => [state, count]));
  }

  /** Copies found by any word on them, for Find. */
  async find(text: string, count: number, account: Account): Promise<CopyRow[]> {
    return searchWords(text).length > 0 ? (await this.page(askedBy({ text, count }, account))).rows : [];
  }
}
