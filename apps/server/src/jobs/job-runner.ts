import { randomUUID } from 'node:crypto';
import { setTimeout as pause } from 'node:timers/promises';
import type { JobsAnswer } from '@mailbag/contract';
import { MailbagError, isMailbagError } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import type { Sql } from '../persistence/sql.js';
import { onBehalfOf, principal, principalKey, principalOf } from '../platform/principal.js';
import type { JobRow } from '../stores/job.store.js';
import { jobStore } from '../stores/job.store.js';

/** Milliseconds for which a claimed job is somebody's, and between renewals. */
const [LEASE, RENEW] = [60_000, 15_000];
/** Milliseconds after which it is looked for work even if nothing is known to be due: a hint may have been lost. */
const LONGEST_REST = 30_000;
/** Milliseconds that jobs get to come to an end when the server stops; what is broken off needs some of the rest. */
const LAST = 7000;
/** Milliseconds between two notes of how far a job is. */
const TELL = 1000;
/** Jobs that are claimed at a time, and that are listed. */
const [MOST, LISTED] = [100, 500];

/** What a run of a job is told. */
export interface JobRun<Payload> {
  key: string;
  payload: Payload;
  /** Runs of it without success before this one. */
  attempts: number;
  /** Ended when the server stops: what can be left for the next start is left then. */
  signal: AbortSignal;
  /** How far it is, for people. */
  progress: (done: number, total: number) => void;
}

/** How a kind of job is run. A run may say after how many milliseconds it is to run again. */
export interface JobKind<Payload = unknown> {
  /** What it does, for people. */
  title: string;
  /** Runs at the same time at most. */
  atOnce: number;
  /** Milliseconds after each failed run until the next; after the last the job has failed. `for ever`: the last one again and again. */
  retry: readonly number[];
  forEver?: boolean;
  /** Whether a run heeds the signal and comes to a good end by itself when the server stops; others are broken off with their threads, and left to the next start. */
  ends?: boolean;
  run: (run: JobRun<Payload>) => Promise<number | void>;
}

export interface WantedJob<Payload = unknown> {
  kind: string;
  /** What of its kind it is about; empty: there is but one. */
  key?: string | number;
  /** What it is about, for people. */
  subject?: string;
  payload?: Payload;
  /** The greater goes first; 0 where nothing is said. */
  priority?: number;
  /** Milliseconds from now. */
  after?: number;
  /** What is to be done when the same is waiting to be done already. Left out: what is wanted now. */
  merge?: (waiting: Payload, wanted: Payload) => Payload;
}

/** Where changes are made one after the other. */
export interface Changes extends Sql {
  run<T>(work: (sql: Sql) => Promise<T>): Promise<T>;
}

type Waiter = (error: MailbagError | null) => void;

/**
 * Everything that takes long is a job in a table: claimed for a while by whoever runs it, and claimed anew when that one is gone. What runs is told how far
 * it is by nobody but the table; a hint that is lost delays a job, and never loses it.
 */
export class JobRunner {
  private readonly kinds = new Map<string, JobKind>();
  private readonly repeating: WantedJob[] = [];
  /** Runs of this process, by the id of the job. */
  private readonly running = new Map<number, { kind: string; key: string; over: Promise<void> }>();
  private readonly waiters = new Map<string, Waiter[]>();
  private readonly mine = randomUUID();
  private readonly stop = new AbortController();
  private timer: NodeJS.Timeout | null = null;
  private renewal: NodeJS.Timeout | null = null;
  private looking = false;
  private lookAgain = false;
  private isOpen = false;

  /** @param complain is told what goes wrong and is nobody's fault */
  constructor(
    private readonly transactions: Changes,
    private readonly complain: (error: unknown) => void,
  ) {}

  /** Says how a kind of job is run; before the server begins to work. */
  register<Payload>(name: string, kind: JobKind<Payload>): void {
    this.kinds.set(name, kind as JobKind);
  }

  /** Has a job run again and again. @param every milliseconds */
  every(wanted: WantedJob, every: number): void {
    this.repeating.push({ ...wanted, payload: { every } });
  }

  /** Begins to work, once everybody is there. What a server before this one had begun waits again: there is one server to a folder. */
  async open(): Promise<void> {
    await this.transactions.run(async (sql) => {
      await jobStore.releaseAll(sql);
      for (const { payload, ...wanted } of this.repeating) {
        const { every } = payload as { every: number };
        await jobStore.repeat(sql, { ...this.rowOf(wanted), everyMs: every }, Date.now());
      }
    });
    this.renewal = setInterval(() => void this.renew(), RENEW);
    this.isOpen = true;
    this.wake();
  }

  /** Ends what can be ended, and leaves the rest to the next start: this is written down now, since their runs are broken off when nothing can be written any more. */
  async close(): Promise<void> {
    this.stop.abort();
    if (this.timer) clearTimeout(this.timer);
    const isEnding = (): boolean => [...this.running.values()].some(({ kind }) => this.kinds.get(kind)?.ends);
    for (const end = Date.now() + LAST; isEnding() && Date.now() < end;) await pause(20);
    if (this.renewal) clearInterval(this.renewal);
    await this.transactions.run((sql) => jobStore.leaveAll(sql, this.mine, Date.now()));
  }

  private rowOf<Payload>({ kind, key = '', subject = '', payload, priority = 0, after = 0 }: Omit<WantedJob<Payload>, 'merge'>) {
    const who = principal();
    const dueAt = Date.now() + after;
    return {
      kind,
      key: String(key),
      subject,
      priority,
      payload: JSON.stringify(payload ?? null),
      who: who.name,
      principal: principalKey(who),
      everyMs: null,
      dueAt,
    };
  }

  /** Adds a job, or asks for the one with its key once more. */
  add<Payload>(wanted: WantedJob<Payload>): Promise<void> {
    return this.want(wanted, () => undefined);
  }

  /** @param within is called in the transaction that adds it: what ends before that is another run */
  private async want<Payload>({ merge, ...wanted }: WantedJob<Payload>, within: () => void): Promise<void> {
    const row = this.rowOf(wanted);
    await this.transactions.run(async (sql) => {
      within();
      const there = merge && (await jobStore.byKey(sql, row.kind, row.key));
      if (there && (there.state === 'waiting' || there.again === 1))
        row.payload = JSON.stringify(merge(JSON.parse(there.payload) as Payload, wanted.payload!));
      await jobStore.add(sql, row, Date.now());
    });
    this.wake();
  }

  /** Why the next run of a job did not come to its end; null: it did. */
  private next(kind: string, key: string | number): { over: Promise<MailbagError | null>; forget: () => void } {
    const name = `${kind} ${key}`;
    let waiter: Waiter = () => undefined;
    const over = new Promise<MailbagError | null>((resolve) => {
      waiter = resolve;
      this.waiters.set(name, [...(this.waiters.get(name) ?? []), waiter]);
    });
    const forget = (): void => {
      this.waiters.set(
        name,
        (this.waiters.get(name) ?? []).filter((one) => one !== waiter),
      );
      waiter(null);
    };
    return { over, forget };
  }

  /** Adds a job and waits until it has come to its end. @throws MailbagError why it has not */
  async run<Payload>(wanted: WantedJob<Payload>): Promise<void> {
    let run: ReturnType<JobRunner['next']> | null = null;
    try {
      await this.want(wanted, () => (run = this.next(wanted.kind, wanted.key ?? '')));
    } catch (error) {
      (run as ReturnType<JobRunner['next']> | null)?.forget();
      throw error;
    }
    const error = await run!.over;
    if (error) throw error;
  }

  /** Waits until the run of a job that is under way is over, if one is. */
  async settled(kind: string, key: string | number = ''): Promise<void> {
    const { over, forget } = this.next(kind, key);
    if (!(await this.isUnderWay(kind, key))) forget();
    await over;
  }

  /** Has a job that is there run soon. */
  async soon(kind: string, key: string | number = ''): Promise<void> {
    await this.transactions.run((sql) => jobStore.soon(sql, kind, String(key), Date.now()));
    this.wake();
  }

  /** A job that waits is not wanted any more. */
  async drop(kind: string, key: string | number = ''): Promise<void> {
    await this.transactions.run((sql) => jobStore.dropOf(sql, kind, String(key)));
  }

  /** Whether a job runs, or is about to. */
  async isUnderWay(kind: string, key: string | number = ''): Promise<boolean> {
    const row = await jobStore.byKey(this.transactions, kind, String(key));
    return row !== undefined && (row.state === 'running' || (row.state === 'waiting' && row.dueAt <= Date.now()));
  }

  /** Looks for work now. */
  private wake(): void {
    if (!this.isOpen || this.stop.signal.aborted) return;
    if (this.looking) {
      this.lookAgain = true;
      return;
    }
    this.looking = true;
    if (this.timer) clearTimeout(this.timer);
    void this.look()
      .catch((error: unknown) => {
        this.complain(isMailbagError(error) ? error.message : error);
        return 1000;
      })
      .then((rest) => {
        this.looking = false;
        if (this.stop.signal.aborted) return;
        const again = this.lookAgain;
        this.lookAgain = false;
        if (again) this.wake();
        else this.timer = setTimeout(() => this.wake(), rest);
      });
  }

  /** Claims what is due and has room. @returns milliseconds until it is to be looked again */
  private async look(): Promise<number> {
    const now = Date.now();
    const found = await jobStore.due(this.transactions, now, MOST);
    const free = new Map([...this.kinds].map(([name, { atOnce }]) => [name, atOnce]));
    for (const { kind } of this.running.values()) free.set(kind, (free.get(kind) ?? 0) - 1);
    const wanted = found.filter(({ id, kind }) => {
      const room = free.get(kind) ?? 0;
      if (room <= 0 || this.running.has(id)) return false;
      free.set(kind, room - 1);
      return true;
    });
    if (wanted.length > 0) {
      const claimed = await this.transactions.run(async (sql) => {
        const mine: JobRow[] = [];
        for (const job of wanted) {
          const claimed = await jobStore.claim(sql, job, this.mine, now + LEASE, now);
          if (claimed) mine.push(claimed);
        }
        return mine;
      });
      for (const job of claimed) this.begin(job);
    }
    const next = await jobStore.nextAt(this.transactions);
    // What is due and has no room yet begins when something ends.
    return next === null || next <= now ? LONGEST_REST : Math.min(LONGEST_REST, next - now);
  }

  private begin(job: JobRow): void {
    const over = onBehalfOf(principalOf(job.principal, job.who), () => this.perform(job))
      .catch((error: unknown) => this.complain(error))
      .finally(() => {
        this.running.delete(job.id);
        this.wake();
      });
    this.running.set(job.id, { kind: job.kind, key: job.key, over });
  }

  private async perform(job: JobRow): Promise<void> {
    const kind = this.kinds.get(job.kind)!;
    let told = 0;
    const progress = (done: number, total: number): void => {
      if (Date.now() - told < TELL) return;
      told = Date.now();
      void this.transactions.run((sql) => jobStore.setProgress(sql, job.id, done, total)).catch(() => undefined);
    };
    let failure: MailbagError | null = null;
    let after: number | void = undefined;
    try {
      const { signal } = this.stop;
      after = await kind.run({ key: job.key, payload: JSON.parse(job.payload) as unknown, attempts: job.attempts - 1, signal, progress });
    } catch (error) {
      failure = isMailbagError(error) ? error : new MailbagError('unexpected', { trace: `${job.kind} ${job.key}` }, { cause: error });
      if (failure !== error) this.complain(error);
    }
    const isLeft = this.stop.signal.aborted && (failure !== null || typeof after === 'number');
    const name = `${job.kind} ${job.key}`;
    let waiters: Waiter[] = [];
    const end = this.transactions.run(async (sql) => {
      const isWantedAgain = await this.end(sql, job, isLeft ? 'left' : (failure ?? after ?? null));
      // Whoever asked for it while it ran waits for the run that comes now: this one may have begun before what they want was there. So does whoever asks from here on.
      if (isWantedAgain) return;
      waiters = this.waiters.get(name) ?? [];
      this.waiters.delete(name);
    });
    await end.catch((error: unknown) => {
      // They wait for the run that comes when this one's lease is over.
      this.waiters.set(name, [...waiters, ...(this.waiters.get(name) ?? [])]);
      throw error;
    });
    waiters.forEach((tell) => tell(failure));
  }

  /** What becomes of a job whose run is over. @returns whether it was asked for once more while it ran @param how left: by a server that stops; milliseconds until it runs again; why it did not come to its end; null: it did */
  private async end(sql: Sql, job: JobRow, how: 'left' | number | MailbagError | null): Promise<boolean> {
    const row = await jobStore.byId(sql, job.id);
    // It was claimed by somebody else meanwhile.
    if (row?.lease !== this.mine) return false;
    await this.put(sql, row, how);
    return how !== 'left' && row.again === 1;
  }

  private put(sql: Sql, row: JobRow, how: 'left' | number | MailbagError | null): Promise<void> {
    const now = Date.now();
    if (how === 'left') return jobStore.wait(sql, row.id, now, row.error, now, row.attempts - 1);
    if (how instanceof MailbagError) {
      const { retry, forEver = false } = this.kinds.get(row.kind)!;
      const rest = retry[Math.min(row.attempts, retry.length) - 1];
      const error = JSON.stringify(how.toJSON());
      if (row.again === 1) return jobStore.wait(sql, row.id, now, error, now, 0);
      if (rest !== undefined && (forEver || row.attempts <= retry.length))
        return jobStore.wait(sql, row.id, now + rest, error, now, row.attempts);
      if (row.everyMs !== null) return jobStore.wait(sql, row.id, now + row.everyMs, error, now, 0);
      return jobStore.fail(sql, row.id, error, now);
    }
    if (row.again === 1) return jobStore.wait(sql, row.id, now, null, now, 0);
    const rest = how ?? row.everyMs;
    return rest === null ? jobStore.drop(sql, row.id) : jobStore.wait(sql, row.id, now + rest, null, now, 0);
  }

  private async renew(): Promise<void> {
    if (this.running.size === 0) return;
    await this.transactions
      .run((sql) => jobStore.renew(sql, this.mine, [...this.running.keys()], Date.now() + LEASE))
      .catch((error: unknown) => this.complain(error));
  }

  /** What runs, waits and has failed. */
  async answer(): Promise<JobsAnswer> {
    const at = (time: number | null): string | null => (time === null ? null : new Date(time).toISOString());
    const rows = await jobStore.list(this.transactions, LISTED);
    const counts = { running: 0, waiting: 0, failed: 0 };
    for (const { state, count } of await jobStore.counts(this.transactions)) counts[state] = count;
    return {
      counts,
      jobs: rows.map((row) => ({
        id: row.id,
        kind: row.kind,
        title: this.kinds.get(row.kind)?.title ?? row.kind,
        subject: row.subject,
        state: row.state,
        who: row.who,
        done: row.done,
        total: row.total,
        attempts: row.attempts,
        repeats: row.everyMs !== null,
        dueAt: at(row.dueAt)!,
        startedAt: at(row.startedAt),
        finishedAt: at(row.finishedAt),
        error: row.error ? (JSON.parse(row.error) as JobsAnswer['jobs'][number]['error']) : null,
      })),
    };
  }

  /** What failed, or waits, is tried now. @throws MailbagError not-found */
  async tryAgain(id: number): Promise<JobsAnswer> {
    const count = await this.transactions.run((sql) => jobStore.tryAgain(sql, id, Date.now()));
    if (count === 0 && !(await jobStore.byId(this.transactions, id))) throw new MailbagError('not-found', { what: t`job` });
    this.wake();
    return this.answer();
  }
}
