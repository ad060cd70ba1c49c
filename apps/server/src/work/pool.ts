import type { BeforeApplicationShutdown, OnApplicationShutdown } from '@nestjs/common';
import { Injectable } from '@nestjs/common';
import { MailbagError } from '@mailbag/core';
import { Piscina } from 'piscina';
import { principal, principalKey } from '../platform/principal.js';
import { config } from '../platform/config.js';
import { FairQueue } from '../platform/fair-queue.js';
import { programFile } from '../platform/program.js';
import type { TaskName, TaskResult, Tasks } from './tasks.js';
import { taskLimits } from './task-limits.js';
import type { Lane } from './task-limits.js';

/** Threads of a lane, and the queue in front of them. */
interface Threads {
  piscina: Piscina;
  queue: FairQueue;
}

/** @throws MailbagError what the result says */
export function outputOf<Output>(result: TaskResult<Output>): Output {
  if (!result.ok) throw MailbagError.from(result);
  return result.output;
}

/**
 * Milliseconds after which a thread ends that has nothing to do. Those of people keep what was read for the next question; that of letters stays: messages
 * that are due would wait a second for it.
 */
const [IDLE, IDLE_PEOPLE, IDLE_LETTERS] = [12_000, 60_000, 600_000];

/** @param memoryMb of a thread's heap @param youngMb of what is young in it @param perAsker threads that one account takes at most @param waiting tasks of one account that wait at most */
function threads(count: number, memoryMb: number, youngMb = 8, perAsker = count, waiting = Infinity, idleTimeout = IDLE): Threads {
  const piscina = new Piscina({
    filename: programFile('worker-thread.js').href,
    minThreads: 0,
    maxThreads: count,
    idleTimeout,
    // What is young is kept small: it is most of what a thread holds beside its work.
    resourceLimits: { maxOldGenerationSizeMb: memoryMb, maxYoungGenerationSizeMb: youngMb },
  });
  return { piscina, queue: new FairQueue(count, perAsker, waiting) };
}

/**
 * Worker threads for everything that computes for long. What a person waits for has threads of its own beside those of batches, shared fairly between
 * accounts; what strangers send has threads by itself, and so have letters, which are composed of what people typed. Every task has a time after which its thread is ended.
 */
@Injectable()
export class Pool implements BeforeApplicationShutdown, OnApplicationShutdown {
  private readonly lanes: Record<Lane, Threads> = {
    batch: threads(config.threads, 768, 16),
    people: threads(2, 512, 8, 1, 8, IDLE_PEOPLE),
    visitors: threads(1, 384, 8, 1, 40),
    letters: threads(1, 128, 8, 1, Infinity, IDLE_LETTERS),
    post: threads(1, 192),
    care: threads(1, 256),
  };
  private isStopping = false;

  /** @throws MailbagError work-too-slow, work-too-large, work-too-many, and as the task does */
  async run<Name extends TaskName>(name: Name, input: Tasks[Name]['input']): Promise<Tasks[Name]['output']> {
    const { lane, seconds, what } = taskLimits[name];
    const { piscina, queue } = this.lanes[lane];
    const who = principalKey(principal());
    if (queue.isFull(who)) throw new MailbagError('work-too-many');
    const result = await queue.run(who, async () => {
      if (this.isStopping) throw new MailbagError('server-stops');
      const time = new AbortController();
      // Taken back when the work is done: very many signals that fire later cost more than the work.
      const timer = setTimeout(() => time.abort(), seconds * 1000);
      try {
        return (await piscina.run({ name, input }, { signal: time.signal })) as TaskResult<Tasks[Name]['output']>;
      } catch (error) {
        if (this.isStopping) throw new MailbagError('server-stops', {}, { cause: error });
        if (time.signal.aborted) throw new MailbagError('work-too-slow', { what, seconds }, { cause: error });
        if ((error as NodeJS.ErrnoException).code === 'ERR_WORKER_OUT_OF_MEMORY') throw new MailbagError('work-too-large', { what });
        throw error;
      } finally {
        clearTimeout(timer);
      }
    });
    return outputOf(result);
  }

  /** What runs may come to its end; what waits is left for the next start. */
  beforeApplicationShutdown(): void {
    this.isStopping = true;
  }

  async onApplicationShutdown(): Promise<void> {
    await Promise.all(Object.values(this.lanes).map(({ piscina }) => piscina.destroy()));
  }
}
