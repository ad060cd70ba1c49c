import type { Account, DeskAnswer, FindAnswer } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { DateTime } from 'luxon';
import { BatchSummaries } from '../batches/batch-summaries.service.js';
import { Ledger } from '../copies/ledger.service.js';
import { MailingsService } from '../mailings/mailings.service.js';
import { Transactions } from '../persistence/transactions.js';
import { SettingsService } from '../settings/settings.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { TemplatesService } from '../templates/templates.service.js';
import { Needs } from './needs.service.js';
import { copyEventStore } from '../stores/copy-event.store.js';
import { ledgerStore } from '../stores/ledger.store.js';

const DAYS = 21;

/** What a person should see first. */
@Injectable()
export class DeskService {
  private readonly counted = new Map<string, DeskAnswer['days'][number]>();
  private countedIn = '';

  constructor(
    private readonly transactions: Transactions,
    private readonly summaries: BatchSummaries,
    private readonly ledger: Ledger,
    private readonly mailings: MailingsService,
    private readonly templates: TemplatesService,
    private readonly sources: SourcesService,
    private readonly needs: Needs,
    private readonly settings: SettingsService,
  ) {}

  async desk(): Promise<DeskAnswer> {
    const running = await this.summaries.list('running');
    return {
      needs: await this.needs.all(running),
      running: running.filter(({ state }) => state !== 'paused'),
      mailings: await this.progress(),
      days: await this.days(),
      recent: await this.recent(),
    };
  }

  private async progress(): Promise<DeskAnswer['mailings']> {
    const rows = await ledgerStore.countsByMailing(this.transactions);
    const byId = new Map<number, DeskAnswer['mailings'][number]>();
    for (const { id, name, state, count } of rows) {
      const known = byId.get(id) ?? { id, name, copies: 0, counts: {} };
      if (state && count > 0) {
        known.counts[state] = count;
        known.copies += count;
      }
      byId.set(id, known);
    }
    return [...byId.values()].slice(0, 12);
  }

  /** What happened on each of the last days. Days that are over change no more, so they are counted once. */
  private async days(): Promise<DeskAnswer['days']> {
    const { zone } = this.settings;
    const today = DateTime.now().setZone(zone).startOf('day');
    const days = Array.from({ length: DAYS }, (_, index) => today.minus({ days: DAYS - 1 - index }).toISODate()!);
    if (this.countedIn !== zone) this.counted.clear();
    this.countedIn = zone;
    const open = days.filter((day) => !this.counted.has(day));
    // Times are kept in UTC, so what belongs to a day is found by the hour, or by the minute where the clock is not set by whole hours.
    const isByHour = days.every((day) => DateTime.fromISO(day, { zone }).offset % 60 === 0);
    const parts = await copyEventStore.eventsByTime(
      this.transactions,
      this.settings.startOfDay(open[0] ?? days.at(-1)!),
      isByHour ? 13 : 16,
    );
    const rows = parts.map(({ at, event, count }) => ({
      day: DateTime.fromISO(isByHour ? `${at}:00Z` : `${at}Z`)
        .setZone(zone)
        .toISODate()!,
      event,
      count,
    }));
    const found = days.map((day): DeskAnswer['days'][number] => {
      const known = this.counted.get(day);
      if (known) return known;
      const count = (event: string): number =>
        rows.filter((row) => row.day === day && row.event === event).reduce((sum, row) => sum + row.count, 0);
      return {
        day,
        made: count('make'),
        sent: count('accept'),
        bounced: count('refuse'),
        printed: count('print'),
        returned: count('return'),
      };
    });
    // The day before may still be written to by a clock that was set back a little.
    for (const one of found.slice(0, -2)) this.counted.set(one.day, one);
    if (this.counted.size > DAYS * 2) for (const day of this.counted.keys()) if (!days.includes(day)) this.counted.delete(day);
    return found;
  }

  private async recent(): Promise<DeskAnswer['recent']> {
    return copyEventStore.latestEvents(this.transactions);
  }

  /** Anything by name, code or any word on a copy. */
  async find(text: string, account: Account): Promise<FindAnswer> {
    const wanted = text.trim().toLowerCase();
    if (!wanted) return { hits: [] };
    const isHit = ({ name }: { name: string }): boolean => name.toLowerCase().includes(wanted);
    const hits: FindAnswer['hits'] = [];
    for (const { id, name, records } of (await this.mailings.list()).filter(isHit).slice(0, 5))
      hits.push({ kind: 'mailing', id, name, records });
    for (const { id, name, fields } of (await this.templates.list()).filter(isHit).slice(0, 5))
      hits.push({ kind: 'template', id, name, fields });
    for (const { id, name, count } of (await this.sources.list()).filter(isHit).slice(0, 5))
      hits.push({ kind: 'source', id, name, records: count });
    for (const { id, recipient, code, templateName, state } of await this.ledger.find(text, 12, account))
      hits.push({ kind: 'copy', id, name: recipient || code, code, templateName, state });
    return { hits };
  }
}
