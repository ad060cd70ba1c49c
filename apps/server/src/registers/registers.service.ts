import { setTimeout as pause } from 'node:timers/promises';
import type { RegisterAnswer, RegisterKind, RegisterRequest } from '@mailbag/contract';
import { MailbagError, oneLine, retryDelay } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import type { OnApplicationBootstrap } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { History } from '../history/history.service.js';
import { Jobs } from '../jobs/jobs.service.js';
import { LiveService } from '../live/live.service.js';
import { Transactions } from '../persistence/transactions.js';
import { Hold } from '../safety/hold.service.js';
import { config } from '../platform/config.js';
import { sealedFor, targetOf } from '../platform/stored-secret.js';
import { unseal } from '../platform/secret-box.js';
import { assertTarget, assertTargetUrl } from '../platform/targets.js';
import type { RegisterAccess } from './database-register.js';
import { mysqlRegister, postgresRegister, sqliteRegister } from './database-register.js';
import { folderRegister, webdavRegister } from './file-register.js';
import type { RegisterLine, RegisterWriter } from './register-line.js';
import { registerLine } from './register-line.js';
import { copyEventStore } from '../stores/copy-event.store.js';
import type { RegisterRow } from '../stores/register.store.js';
import { registerStore } from '../stores/register.store.js';
import { Nap } from '../platform/nap.js';

type Settings = Omit<RegisterRequest, 'name' | 'kind' | 'password' | 'mailings' | 'paused'>;

const BLOCK = 200;
/** Milliseconds between rounds. */
const ROUND = 10_000;
/** Milliseconds after a change until it is reported, so that several go together. */
const CALM = 500;

type Place = Pick<RegisterRequest, 'kind' | 'host' | 'port' | 'tls'>;
const isDatabaseServer = (kind: RegisterKind): boolean => kind === 'postgres' || kind === 'mysql';
const placeOf = ({ kind, host, port, tls }: Place): string =>
  isDatabaseServer(kind) ? `${kind} ${host}:${port}${tls ? ' (TLS)' : ''}` : kind === 'webdav' ? host : kind;

/** @throws MailbagError target-local, target-wrong */
async function assertReachable({ kind, host, port }: Place): Promise<void> {
  if (isDatabaseServer(kind)) await assertTarget(host, port);
  else if (kind === 'webdav') await assertTargetUrl(host, host.startsWith('https') ? 443 : 80);
}

const writers: Record<RegisterKind, (access: RegisterAccess) => RegisterWriter | Promise<RegisterWriter>> = {
  postgres: postgresRegister,
  mysql: mysqlRegister,
  sqlite: sqliteRegister,
  folder: folderRegister,
  webdav: webdavRegister,
};

/**
 * Reports every change of a copy to outside stores. Each register remembers the last event that it was told; after a failure it goes on from there,
 * so a change is told at least once, and a copy is recognised by its code.
 */
@Injectable()
export class Registers implements OnApplicationBootstrap {
  private readonly nap = new Nap();

  constructor(
    private readonly transactions: Transactions,
    private readonly live: LiveService,
    private readonly hold: Hold,
    private readonly history: History,
    jobs: Jobs,
  ) {
    jobs.register('registers', {
      title: 'Reporting to registers',
      ends: true,
      atOnce: 1,
      retry: [10_000],
      forEver: true,
      run: ({ signal }) => this.work(signal),
    });
    jobs.every({ kind: 'registers' }, ROUND);
  }

  onApplicationBootstrap(): void {
    this.live.events.subscribe(({ topic }) => topic === 'copies' && this.wake());
    this.hold.released.subscribe(() => this.wake());
  }

  private wake(): void {
    this.nap.cutShort();
  }

  /** Reports as long as the server runs: soon after a change, and every few seconds what had to be tried again. */
  private async work(signal: AbortSignal): Promise<void> {
    while (!signal.aborted) {
      await this.report(signal);
      // Many changes come together.
      await pause(CALM, undefined, { signal }).catch(() => undefined);
      await this.nap.rest(ROUND, signal);
    }
  }

  private async report(signal: AbortSignal): Promise<void> {
    if (this.hold.isHeld) return;
    const now = new Date().toISOString();
    // A time that lies far ahead comes from a clock that was set back.
    const far = new Date(Date.now() + 86_400_000).toISOString();
    const due = await registerStore.due(this.transactions, now, far);
    for (const register of due) await this.reportTo(register, signal);
  }

  private async lines({ position, mailings }: RegisterRow): Promise<RegisterLine[]> {
    const only = mailings ? (JSON.parse(mailings) as number[]) : [];
    return (await copyEventStore.changesAfter(this.transactions, position, only, BLOCK)).map(registerLine);
  }

  private accessOf({ settings, sealed }: Pick<RegisterRow, 'settings' | 'sealed'>): RegisterAccess {
    return { ...(JSON.parse(settings) as Settings), password: sealed ? unseal(sealed) : '' };
  }

  private async reportTo(register: RegisterRow, signal: AbortSignal): Promise<void> {
    let lines = await this.lines(register);
    if (lines.length === 0) return;
    let writer: RegisterWriter | null = null;
    try {
      writer = await writers[register.kind](this.accessOf(register));
      while (lines.length > 0 && !signal.aborted) {
        await writer.write(lines);
        register.position = lines.at(-1)!.change_number;
        await this.transactions.run((sql) => registerStore.reported(sql, register.position, new Date().toISOString(), register.id));
        lines = await this.lines(register);
      }
    } catch (error) {
      const tries = register.tries + 1;
      const failure = oneLine(
        error instanceof Error ? error.message || String((error as NodeJS.ErrnoException).code) : String(error),
      ).slice(0, 300);
      const next = new Date(Date.now() + retryDelay(tries, config.retryPace)).toISOString();
      await this.transactions.run((sql) => registerStore.failed(sql, tries, failure, next, register.id));
    } finally {
      await writer?.close().catch(() => undefined);
    }
    this.live.notify('register', register.id);
  }

  async list(): Promise<RegisterAnswer[]> {
    const rows = await registerStore.list(this.transactions);
    return Promise.all(
      rows.map(async (row) => {
        const count = await copyEventStore.eventsAfter(this.transactions, row.position);
        return {
          ...(JSON.parse(row.settings) as Settings),
          id: row.id,
          name: row.name,
          kind: row.kind,
          hasPassword: row.sealed !== '',
          mailings: row.mailings ? (JSON.parse(row.mailings) as number[]) : [],
          waiting: count?.count ?? 0,
          reportedAt: row.reportedAt,
          failure: row.failure,
          paused: row.paused === 1,
        };
      }),
    );
  }

  /** Keeps a register after it could be opened. @throws MailbagError register-failed, secret-asked-again, target-local, not-found */
  async save(
    id: number | null,
    { name, kind, password, mailings, paused = false, ...settings }: RegisterRequest,
  ): Promise<RegisterAnswer[]> {
    const before = id === null ? undefined : await registerStore.byId(this.transactions, id);
    if (id !== null && !before) throw new MailbagError('not-found', { what: t`register` });
    const earlier = before && { kind: before.kind, ...(JSON.parse(before.settings) as Settings) };
    const there = { kind, ...settings };
    await assertReachable(there);
    const stored = before && earlier ? { sealed: before.sealed, target: targetOf(placeOf(earlier)) } : null;
    const sealed = sealedFor(password, stored, targetOf(placeOf(there)), `the register “${name.trim()}”`);
    const row = { settings: JSON.stringify(settings), sealed };
    if (!paused) {
      try {
        await (await writers[kind](this.accessOf(row))).close();
      } catch (cause) {
        throw new MailbagError(
          'register-failed',
          { register: name, answer: oneLine((cause as Error).message || String((cause as NodeJS.ErrnoException).code)) },
          { cause },
        );
      }
    }
    const now = new Date().toISOString();
    const values = { ...row, name: name.trim(), kind, mailings: mailings.length > 0 ? JSON.stringify(mailings) : null, paused };
    await this.transactions.run((sql) => (before ? registerStore.set(sql, before.id, values, now) : registerStore.add(sql, values, now)));
    if (earlier && placeOf(earlier) !== placeOf(there))
      await this.history.note(t`pointed a register elsewhere`, name.trim(), `${placeOf(earlier)} → ${placeOf(there)}`);
    this.wake();
    return this.list();
  }

  /** @throws MailbagError not-found */
  async assertMayGo(id: number): Promise<void> {
    if (!(await registerStore.byId(this.transactions, id))) throw new MailbagError('not-found', { what: t`register` });
  }

  /** Deletes it for good. */
  erase(id: number): Promise<unknown> {
    return this.transactions.run((sql) => registerStore.drop(sql, id));
  }

  /** What happened meanwhile is reported. */
  cameBack(): void {
    this.wake();
  }
}
