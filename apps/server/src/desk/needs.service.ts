import type { BatchSummary, Need, NeedKind } from '@mailbag/contract';
import type { CopyState } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { Transactions } from '../persistence/transactions.js';
import { Backups } from '../safety/backups.service.js';
import { Hold } from '../safety/hold.service.js';
import { lostSecrets } from '../safety/lost-secrets.js';
import { SelfChecks } from '../safety/self-checks.service.js';
import { SendersService } from '../senders/senders.service.js';
import { SettingsService } from '../settings/settings.service.js';
import { copyStore } from '../stores/copy.store.js';
import { findingStore } from '../stores/finding.store.js';
import { ledgerStore } from '../stores/ledger.store.js';
import { printRunStore } from '../stores/print-run.store.js';
import { registerStore } from '../stores/register.store.js';
import { submissionStore } from '../stores/submission.store.js';
import { reportStore } from '../stores/report.store.js';

const need = (kind: NeedKind, count: number, about: Partial<Need> = {}): Need => ({
  kind,
  count,
  name: null,
  id: null,
  number: null,
  detail: null,
  ...about,
});

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
      this.inState('bounced', 'bounced'),
      this.inState('unconfirmed', 'unconfirmed'),
      this.setAside(),
      Promise.resolve(this.paused(running)),
      this.heldBack(),
      this.answers(),
      this.changes(),
      this.ofMail(),
      this.ofPaper(),
      this.ofRegisters(),
      this.ofReports(),
      this.inState('retrying', 'retrying'),
    ];
    return (await Promise.all(groups)).flat();
  }

  private async ofFolder(): Promise<Need[]> {
    const needs: Need[] = [];
    if (this.hold.isHeld) needs.push(need('held', 1));
    const lost = await lostSecrets(this.settings, this.transactions);
    if (lost.length > 0) needs.push(need('lost-secrets', lost.length, { detail: lost.join(', ') }));
    const { last } = await this.checks.answer();
    const faults = last?.faults ?? [];
    if (faults.length > 0) {
      const names = faults.map(({ names }) => names[0] ?? '').join(' · ');
      needs.push(need('self-check', faults.reduce((sum, { count }) => sum + count, 0), { detail: names })); // prettier-ignore
    }
    const { failed } = await this.backups.failure();
    if (failed) needs.push(need('backup-fails', 1, { detail: failed.message }));
    return needs;
  }

  /** Copies in a state, by mailing, with what was said of the last. */
  private async inState(kind: NeedKind, state: CopyState): Promise<Need[]> {
    const rows = await ledgerStore.inStateByMailing(this.transactions, state);
    return Promise.all(
      rows.map(async ({ mailingId, count }) => {
        const last = await copyStore.lastOf(this.transactions, mailingId, state);
        return need(kind, count, { id: mailingId, name: last?.mailingName ?? '', detail: last?.detail ?? null });
      }),
    );
  }

  private async setAside(): Promise<Need[]> {
    const rows = await copyStore.heldByOurSide(this.transactions);
    return rows.map(({ mailingId, mailingName, count, detail }) => need('set-aside', count, { id: mailingId, name: mailingName, detail }));
  }

  private paused(running: readonly BatchSummary[]): Need[] {
    return running
      .filter(({ state, error }) => state === 'paused' || error !== null)
      .map(({ id, number, mailingName, state, error }) =>
        need(state === 'paused' ? 'paused' : 'waits', 1, { id, number, name: mailingName, detail: error?.message ?? null }),
      );
  }

  private async heldBack(): Promise<Need[]> {
    const rows = await findingStore.stopsByMailing(this.transactions);
    return rows.map(({ id, name, count }) => need('held-back', count, { id, name }));
  }

  /** What recipients corrected by personal links, and nobody has looked at. */
  private async changes(): Promise<Need[]> {
    const rows = await submissionStore.toSettle(this.transactions);
    return rows.map(({ id, name, count }) => need('changes', count, { id, name }));
  }

  private async answers(): Promise<Need[]> {
    const rows = await submissionStore.gathered(this.transactions);
    return rows.map(({ id, name, count }) => need('answers', count, { id, name }));
  }

  private async ofMail(): Promise<Need[]> {
    const needs: Need[] = [];
    const servers = await this.senders.serverAnswers();
    if (servers.length === 0) needs.push(need('no-mail-server', 1));
    for (const { name, rest } of servers) if (rest) needs.push(need('server-fails', 1, { name, detail: rest.detail }));
    for (const { address, confirmed, serverName } of await this.senders.senderAnswers())
      if (!confirmed) needs.push(need('sender-unconfirmed', 1, { name: address, detail: serverName }));
    return needs;
  }

  private async ofPaper(): Promise<Need[]> {
    const needs: Need[] = [];
    const paper = await copyStore.waitingForPaper(this.transactions);
    if (paper && paper.count > 0) needs.push(need('to-print', paper.count));
    for (const { number, detail } of await printRunStore.inTrouble(this.transactions)) needs.push(need('print-run', 1, { number, detail }));
    return needs;
  }

  private async ofRegisters(): Promise<Need[]> {
    const rows = await registerStore.inTrouble(this.transactions);
    return rows.map(({ name, failure }) => need('register-fails', 1, { name, detail: failure }));
  }

  private async ofReports(): Promise<Need[]> {
    const reports = await reportStore.doubts(this.transactions);
    return reports && reports.count > 0 ? [need('reports', reports.count)] : [];
  }
}
