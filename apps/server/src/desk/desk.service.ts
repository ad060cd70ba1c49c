import type { Account, DeskAnswer, FindAnswer, Need } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { BatchesService } from '../batches/batches.service.js';
import { CopiesService } from '../copies/copies.service.js';
import { MailingsService } from '../mailings/mailings.service.js';
import { Transactions } from '../persistence/transactions.js';
import { SendersService } from '../senders/senders.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { TemplatesService } from '../templates/templates.service.js';

const DAYS = 21;

/** What a person should see first. */
@Injectable()
export class DeskService {
  private readonly counted = new Map<string, DeskAnswer['days'][number]>();

  constructor(
    private readonly transactions: Transactions,
    private readonly batches: BatchesService,
    private readonly copies: CopiesService,
    private readonly mailings: MailingsService,
    private readonly templates: TemplatesService,
    private readonly sources: SourcesService,
    private readonly senders: SendersService,
  ) {}

  async desk(): Promise<DeskAnswer> {
    const running = await this.batches.list('running');
    return {
      needs: await this.needs(running),
      running: running.filter(({ state }) => state !== 'paused'),
      mailings: await this.progress(),
      days: await this.days(),
      recent: await this.recent(),
    };
  }

  private async needs(running: DeskAnswer['running']): Promise<Need[]> {
    const needs: Need[] = [];
    const byState = async (state: string): Promise<{ mailingId: number; mailingName: string; count: number; said: string | null }[]> => {
      const rows = await this.transactions.read<{ mailingId: number; count: number }>(
        'SELECT mailingId, SUM(count) AS count FROM copy_count WHERE state = ? GROUP BY mailingId HAVING SUM(count) > 0 ORDER BY count DESC',
        [state],
      );
      return Promise.all(
        rows.map(async (row) => {
          const [last] = await this.transactions.read<{ mailingName: string; said: string | null }>(
            'SELECT copy.mailingName, (SELECT said FROM delivery WHERE delivery.id = copy.deliveryId) AS said FROM copy WHERE copy.mailingId = ? AND copy.state = ? ORDER BY copy.id DESC LIMIT 1',
            [row.mailingId, state],
          );
          return { ...row, mailingName: last?.mailingName ?? '', said: last?.said ?? null };
        }),
      );
    };
    for (const { mailingId, mailingName, count, said } of await byState('bounced')) {
      needs.push({ kind: 'bounced', count, subject: mailingName, detail: said ?? '', to: `/ledger?state=bounced&mailing=${mailingId}` });
    }
    for (const { mailingId, mailingName, count } of await byState('unconfirmed')) {
      needs.push({
        kind: 'unconfirmed',
        count,
        subject: mailingName,
        detail: 'The connection broke while they were handed over. Did they arrive?',
        to: `/ledger?state=unconfirmed&mailing=${mailingId}`,
      });
    }
    for (const { mailingId, mailingName, count, said } of await this.transactions.read<{
      mailingId: number;
      mailingName: string;
      count: number;
      said: string | null;
    }>(
      `SELECT aside.mailingId, aside.mailingName, aside.count, delivery.said FROM
         (SELECT mailingId, MAX(mailingName) AS mailingName, COUNT(*) AS count, MAX(deliveryId) AS deliveryId
          FROM copy WHERE trouble = 'our side' AND state = 'made' GROUP BY mailingId) AS aside
       LEFT JOIN delivery ON delivery.id = aside.deliveryId ORDER BY aside.count DESC`,
    ))
      needs.push({
        kind: 'set-aside',
        count,
        subject: mailingName,
        detail: said ?? '',
        to: `/ledger?state=made&trouble=our+side&mailing=${mailingId}`,
      });
    for (const batch of running.filter(({ state }) => state === 'paused')) {
      needs.push({
        kind: 'paused',
        count: 1,
        subject: `Batch ${batch.number} of ${batch.mailingName}`,
        detail: batch.error?.message ?? 'Paused by hand.',
        to: `/batches/${batch.id}`,
      });
    }
    const held = await this.transactions.read<{ id: number; name: string; count: number }>(
      "SELECT mailing.id, mailing.name, COUNT(DISTINCT finding.ordinal) AS count FROM finding JOIN mailing ON mailing.id = finding.mailingId WHERE finding.severity = 'stop' GROUP BY mailing.id ORDER BY count DESC",
    );
    for (const { id, name, count } of held)
      needs.push({ kind: 'held-back', count, subject: name, detail: 'Stops found by the checks.', to: `/mailings/${id}/checks` });
    const servers = await this.senders.serverAnswers();
    if (servers.length === 0)
      needs.push({
        kind: 'no-mail-server',
        count: 1,
        subject: 'Settings',
        detail: 'Copies can be made, but not mailed.',
        to: '/settings/mail',
      });
    for (const { name, rest } of servers)
      if (rest) needs.push({ kind: 'server-fails', count: 1, subject: name, detail: rest.said, to: '/settings/mail' });
    for (const { address, confirmed, serverName } of await this.senders.senderAnswers())
      if (!confirmed)
        needs.push({
          kind: 'sender-unconfirmed',
          count: 1,
          subject: address,
          detail: `Mail from this address through ${serverName} waits for its code.`,
          to: '/settings',
        });
    const [paper] = await this.transactions.read<{ count: number }>('SELECT COUNT(*) AS count FROM copy WHERE wantsPaper = 1');
    if (paper && paper.count > 0)
      needs.push({
        kind: 'to-print',
        count: paper.count,
        subject: 'Paper',
        detail: 'They ask for paper and wait for a print run.',
        to: '/paper',
      });
    for (const run of await this.transactions.read<{ number: number; said: string | null; state: string }>(
      "SELECT number, said, state FROM print_run WHERE state IN ('failed', 'unconfirmed') ORDER BY number",
    ))
      needs.push({ kind: 'print-run', count: 1, subject: `Print run ${run.number}`, detail: run.said ?? '', to: '/paper' });
    for (const one of await this.transactions.read<{ name: string; said: string }>(
      'SELECT name, said FROM register WHERE said IS NOT NULL AND paused = 0',
    ))
      needs.push({ kind: 'register-fails', count: 1, subject: one.name, detail: one.said, to: '/settings/registers' });
    const [reports] = await this.transactions.read<{ count: number; sender: string }>(
      'SELECT COUNT(*) AS count, MAX(sender) AS sender FROM incoming_report WHERE doubt IS NOT NULL AND settled IS NULL',
    );
    if (reports && reports.count > 0)
      needs.push({
        kind: 'reports',
        count: reports.count,
        subject: 'Bounces',
        detail: 'They look like bounces, but anybody could have written them.',
        to: '/settings/bounces',
      });
    for (const { mailingId, mailingName, count, said } of await byState('retrying')) {
      needs.push({ kind: 'retrying', count, subject: mailingName, detail: said ?? '', to: `/ledger?state=retrying&mailing=${mailingId}` });
    }
    return needs;
  }

  private async progress(): Promise<DeskAnswer['mailings']> {
    const rows = await this.transactions.read<{ id: number; name: string; state: string | null; count: number }>(
      'SELECT mailing.id, mailing.name, copy_count.state, COALESCE(SUM(copy_count.count), 0) AS count FROM mailing LEFT JOIN copy_count ON copy_count.mailingId = mailing.id GROUP BY mailing.id, copy_count.state ORDER BY mailing.updatedAt DESC',
    );
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
    const today = Date.parse(new Date().toISOString().slice(0, 10));
    const days = Array.from({ length: DAYS }, (_, index) => new Date(today - (DAYS - 1 - index) * 86_400_000).toISOString().slice(0, 10));
    const open = days.filter((day) => !this.counted.has(day));
    const rows = await this.transactions.read<{ day: string; event: string; count: number }>(
      "SELECT substr(at, 1, 10) AS day, event, COUNT(*) AS count FROM copy_event WHERE at >= ? AND event IN ('make', 'accept', 'refuse', 'print', 'return') GROUP BY day, event",
      [open[0] ?? days.at(-1)!],
    );
    const found = days.map((day): DeskAnswer['days'][number] => {
      const known = this.counted.get(day);
      if (known) return known;
      const count = (event: string): number => rows.find((row) => row.day === day && row.event === event)?.count ?? 0;
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
    return this.transactions.read(
      `SELECT event.at, event.state, copy.recipient || ' · ' || copy.templateName || COALESCE(' · ' || event.said, '') AS text, copy.id AS copyId
       FROM copy_event AS event JOIN copy ON copy.id = event.copyId WHERE event.event NOT IN ('make', 'queue', 'claim') ORDER BY event.id DESC LIMIT 15`,
    );
  }

  /** Anything by name, code or any word on a copy. */
  async find(text: string, account: Account): Promise<FindAnswer> {
    const wanted = text.trim().toLowerCase();
    if (!wanted) return { hits: [] };
    const isHit = ({ name }: { name: string }): boolean => name.toLowerCase().includes(wanted);
    const hits: FindAnswer['hits'] = [];
    for (const one of (await this.mailings.list()).filter(isHit).slice(0, 5))
      hits.push({
        kind: 'mailing',
        id: one.id,
        title: one.name,
        detail: `Mailing · ${one.records} records`,
        to: `/mailings/${one.id}/map`,
      });
    for (const one of (await this.templates.list()).filter(isHit).slice(0, 5))
      hits.push({ kind: 'template', id: one.id, title: one.name, detail: `Template · ${one.fields} fields`, to: `/templates/${one.id}` });
    for (const one of (await this.sources.list()).filter(isHit).slice(0, 5))
      hits.push({ kind: 'source', id: one.id, title: one.name, detail: `Source · ${one.count} records`, to: `/sources/${one.id}` });
    for (const one of await this.copies.find(text, 12, account)) {
      hits.push({
        kind: 'copy',
        id: one.id,
        title: one.recipient || one.code,
        detail: `${one.code} · ${one.templateName} · ${one.state}`,
        to: `/ledger?copy=${one.id}&text=${encodeURIComponent(text)}`,
      });
    }
    return { hits };
  }
}
