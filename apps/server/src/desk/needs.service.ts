import type { BatchSummary, Need } from '@mailbag/contract';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { Backups } from '../safety/backups.service.js';
import { Hold } from '../safety/hold.service.js';
import { lostSecrets } from '../safety/lost-secrets.js';
import { SelfChecks } from '../safety/self-checks.service.js';
import { SendersService } from '../senders/senders.service.js';
import { SettingsService } from '../settings/settings.service.js';
import type { CopiesOfMailing } from '../stores/copy.store.js';
import { copyStore } from '../stores/copy.store.js';
import { findingStore } from '../stores/finding.store.js';
import { ledgerStore } from '../stores/ledger.store.js';
import { printRunStore } from '../stores/print-run.store.js';
import { registerStore } from '../stores/register.store.js';
import { reportStore } from '../stores/report.store.js';

/** What a person should do now, the most urgent first. */
@Injectable()
export class Needs {
  constructor(
    private readonly transactions: Transactions,
    private readonly senders: SendersService,
    private readonly settings: SettingsService,
    private readonly hold: Hold,
    private readonly checks: SelfChecks,
    private readonly backups: Backups,
  ) {}

  /** @param running batches that are not over */
  async all(running: readonly BatchSummary[]): Promise<Need[]> {
    const groups = [
      this.ofFolder(),
      this.bounced(),
      this.unconfirmed(),
      this.setAside(),
      Promise.resolve(this.paused(running)),
      this.heldBack(),
      this.ofMail(),
      this.ofPaper(),
      this.ofRegisters(),
      this.ofReports(),
      this.retrying(),
    ];
    return (await Promise.all(groups)).flat();
  }

  private async ofFolder(): Promise<Need[]> {
    const needs: Need[] = [];
    const to = '/settings/safety';
    if (this.hold.isHeld)
      needs.push({
        kind: 'held',
        count: 1,
        subject: 'This folder was put back or copied',
        detail: 'What waits here may have gone out from where it comes from. Look at it, then let the rest go.',
        to,
      });
    const lost = await lostSecrets(this.settings, this.transactions);
    if (lost.length > 0)
      needs.push({
        kind: 'lost-secrets',
        count: lost.length,
        subject: 'Settings',
        detail: `Enter again: ${lost.join(', ')}.`,
        to: '/settings/mail',
      });
    const { last } = await this.checks.answer();
    const faults = last?.faults ?? [];
    if (faults.length > 0)
      needs.push({
        kind: 'self-check',
        count: faults.reduce((sum, { count }) => sum + count, 0),
        subject: 'Data folder',
        detail: faults.map(({ names }) => names[0] ?? '').join(' · '),
        to,
      });
    const { failed } = await this.backups.failure();
    if (failed) needs.push({ kind: 'backup-fails', count: 1, subject: 'Backup', detail: failed.message, to });
    return needs;
  }

  /** Copies in a state, by mailing, with what was said of the last. */
  private async inState(state: string): Promise<CopiesOfMailing[]> {
    const rows = await ledgerStore.inStateByMailing(this.transactions, state);
    return Promise.all(
      rows.map(async (row) => {
        const last = await copyStore.lastOf(this.transactions, row.mailingId, state);
        return { ...row, mailingName: last?.mailingName ?? '', said: last?.said ?? null };
      }),
    );
  }

  private async bounced(): Promise<Need[]> {
    return (await this.inState('bounced')).map(({ mailingId, mailingName, count, said }) => ({
      kind: 'bounced',
      count,
      subject: mailingName,
      detail: said ?? '',
      to: `/ledger?state=bounced&mailing=${mailingId}`,
    }));
  }

  private async unconfirmed(): Promise<Need[]> {
    return (await this.inState('unconfirmed')).map(({ mailingId, mailingName, count }) => ({
      kind: 'unconfirmed',
      count,
      subject: mailingName,
      detail: 'Nobody knows whether they went out. Did they arrive?',
      to: `/ledger?state=unconfirmed&mailing=${mailingId}`,
    }));
  }

  private async setAside(): Promise<Need[]> {
    const rows = await copyStore.heldByOurSide(this.transactions);
    return rows.map(({ mailingId, mailingName, count, said }) => ({
      kind: 'set-aside',
      count,
      subject: mailingName,
      detail: said ?? '',
      to: `/ledger?state=made&trouble=our+side&mailing=${mailingId}`,
    }));
  }

  private paused(running: readonly BatchSummary[]): Need[] {
    return running
      .filter(({ state, error }) => state === 'paused' || error !== null)
      .map(({ id, number, mailingName, state, error }) => ({
        kind: state === 'paused' ? 'paused' : 'waits',
        count: 1,
        subject: `Batch ${number} of ${mailingName}`,
        detail: error?.message ?? 'Paused by hand.',
        to: `/batches/${id}`,
      }));
  }

  private async heldBack(): Promise<Need[]> {
    const rows = await findingStore.stopsByMailing(this.transactions);
    return rows.map(({ id, name, count }) => ({
      kind: 'held-back',
      count,
      subject: name,
      detail: 'Stops found by the checks.',
      to: `/mailings/${id}/checks`,
    }));
  }

  private async ofMail(): Promise<Need[]> {
    const needs: Need[] = [];
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
    return needs;
  }

  private async ofPaper(): Promise<Need[]> {
    const needs: Need[] = [];
    const paper = await copyStore.waitingForPaper(this.transactions);
    if (paper && paper.count > 0)
      needs.push({
        kind: 'to-print',
        count: paper.count,
        subject: 'Paper',
        detail: 'They ask for paper and wait for a print run.',
        to: '/paper',
      });
    const runs = await printRunStore.inTrouble(this.transactions);
    for (const { number, said } of runs)
      needs.push({ kind: 'print-run', count: 1, subject: `Print run ${number}`, detail: said ?? '', to: '/paper' });
    return needs;
  }

  private async ofRegisters(): Promise<Need[]> {
    const rows = await registerStore.inTrouble(this.transactions);
    return rows.map(({ name, said }) => ({ kind: 'register-fails', count: 1, subject: name, detail: said, to: '/settings/registers' }));
  }

  private async ofReports(): Promise<Need[]> {
    const reports = await reportStore.doubts(this.transactions);
    if (!reports || reports.count === 0) return [];
    const detail = 'They look like bounces, but anybody could have written them.';
    return [{ kind: 'reports', count: reports.count, subject: 'Bounces', detail, to: '/settings/bounces' }];
  }

  private async retrying(): Promise<Need[]> {
    return (await this.inState('retrying')).map(({ mailingId, mailingName, count, said }) => ({
      kind: 'retrying',
      count,
      subject: mailingName,
      detail: said ?? '',
      to: `/ledger?state=retrying&mailing=${mailingId}`,
    }));
  }
}
