import { remark } from '@mailbag/core';
import { Worker } from 'node:worker_threads';
import { programFile } from '../platform/program.js';
import type { SendingServer } from '../senders/senders.service.js';
import type { ThreadMessage, Told } from './mail-thread-talk.js';
import type { Outcome } from './outcome.js';
import { CLOSED, givenBack } from './outcome.js';
import type { OutgoingMessage } from './outgoing-message.js';

/** What of a thread is used here. */
export interface Thread {
  postMessage(told: Told): void;
  on(event: 'message', listener: (message: ThreadMessage) => void): unknown;
  on(event: 'error', listener: (error: Error) => void): unknown;
  on(event: 'exit', listener: () => void): unknown;
  ref(): void;
  unref(): void;
  terminate(): Promise<number>;
}

const workerThread = (): Thread =>
  new Worker(programFile('mail-thread.js'), {
    resourceLimits: { maxOldGenerationSizeMb: 256, maxYoungGenerationSizeMb: 16 },
  });

/** A message that the thread has. */
interface UnderWay {
  transport: ThreadTransport;
  beforeData: () => Promise<void>;
  /** It was let through the gate: some of it may have left. */
  isLeaving: boolean;
  end: (outcome: Outcome) => void;
}

/**
 * The thread that speaks with mail servers, so that composing and writing messages holds nobody else. It starts before the first message is there, and once more
 * with the next message when it has broken: what it had let through is unknown then, all else was not tried.
 */
export class MailThread {
  private thread: Thread | null = null;
  private readonly underWay = new Map<number, UnderWay>();
  /** Transports that the running thread knows. */
  private known = new WeakSet<ThreadTransport>();
  private last = 0;

  constructor(
    private readonly onBroken: (error: Error) => void,
    private readonly start: () => Thread = workerThread,
  ) {}

  open(server: SendingServer): ThreadTransport {
    this.running();
    return new ThreadTransport(this, ++this.last, server);
  }

  /** Used by transports. */
  send(transport: ThreadTransport, message: OutgoingMessage, beforeData: () => Promise<void>): Promise<Outcome> {
    const thread = this.running();
    const id = ++this.last;
    return new Promise((end) => {
      this.underWay.set(id, { transport, beforeData, isLeaving: false, end });
      thread.ref();
      if (!this.known.has(transport)) thread.postMessage({ kind: 'open', transport: transport.id, server: transport.server });
      this.known.add(transport);
      thread.postMessage({ kind: 'send', transport: transport.id, id, message });
    });
  }

  /** Used by transports. */
  close(transport: ThreadTransport): void {
    if (this.thread && this.known.delete(transport)) this.thread.postMessage({ kind: 'close', transport: transport.id });
  }

  /** Ends the thread, whatever it does. What it had is not heard of any more: the next start of the server settles it. */
  async end(): Promise<void> {
    this.underWay.clear();
    await this.thread?.terminate();
  }

  private running(): Thread {
    if (this.thread) return this.thread;
    const thread = this.start();
    let why: Error | null = null;
    thread.on('message', (message) => void this.hear(thread, message));
    thread.on('error', (error) => (why = error));
    thread.on('exit', () => this.broken(why));
    thread.unref();
    return (this.thread = thread);
  }

  private async hear(thread: Thread, notice: ThreadMessage): Promise<void> {
    const message = this.underWay.get(notice.id);
    if (!message) return;
    if (notice.kind === 'ended') return this.ended(notice.id, message, notice.outcome);
    let refusal: string | null = message.transport.isClosed ? CLOSED : null;
    if (refusal === null)
      try {
        await message.beforeData();
        message.isLeaving = true;
      } catch (error) {
        refusal = (error as Error).message;
      }
    if (this.thread === thread) thread.postMessage({ kind: 'gate', id: notice.id, refusal });
  }

  private ended(id: number, { end }: UnderWay, outcome: Outcome): void {
    this.underWay.delete(id);
    if (this.underWay.size === 0) this.thread?.unref();
    end(outcome);
  }

  private broken(why: Error | null): void {
    this.thread = null;
    this.known = new WeakSet();
    if (why) this.onBroken(why);
    const detail = remark('mail-part-stopped', { why: why?.message ?? '' });
    for (const [id, message] of this.underWay)
      this.ended(id, message, message.isLeaving ? { kind: 'unknown', detail } : { kind: 'our-side', detail, lasting: false });
  }
}

/** Hands messages to one mail server, through the thread. */
export class ThreadTransport {
  isClosed = false;

  constructor(
    private readonly thread: MailThread,
    readonly id: number,
    readonly server: SendingServer,
  ) {}

  /** @param beforeData is waited for before the first byte of the message leaves */
  send(message: OutgoingMessage, beforeData: () => Promise<void>): Promise<Outcome> {
    return this.isClosed ? Promise.resolve(givenBack) : this.thread.send(this, message, beforeData);
  }

  /** Nothing begins to leave any more: what has begun comes to its end, everything else is given back. */
  close(): void {
    this.isClosed = true;
    this.thread.close(this);
  }
}
