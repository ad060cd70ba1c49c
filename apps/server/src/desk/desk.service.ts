import type { Account, DeskAnswer, FindAnswer } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { BatchSummaries } from '../batches/batch-summaries.service.js';
import { Ledger } from '../copies/ledger.service.js';
import { MailingsService } from '../mailings/mailings.service.js';
import { Transactions } from '../persistence/transactions.js';
import { SourcesService } from '../sources/sources.service.js';
import { TemplatesService } from '../templates/templates.service.js';
import { Needs } from './needs.service.js';
import { copyEventStore } from '../stores/copy-event.store.js';
import { ledgerStore } from '../stores/ledger.store.js';

/** What a person should see first. */
@Injectable()
export class DeskService {
  constructor(
    private readonly transactions: Transactions,
    private readonly summaries: BatchSummaries,
    private readonly ledger: Ledger,
    private readonly mailings: MailingsService,
    private readonly templates: TemplatesService,
    private readonly sources: SourcesService,
    private readonly needs: Needs,
  ) {}

  async desk(): Promise<DeskAnswer> {
    const running = await this.summaries.list('running');
    return {
      needs: await this.needs.all(running),
      running: running.filter(({ state }) => state !== 'paused'),
      mailings: await this.progress(),
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
