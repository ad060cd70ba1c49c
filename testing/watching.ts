import { readFileSync } from 'node:fs';

/** Milliseconds after which nobody waits any more. */
const PATIENCE = 15_000;

/** Milliseconds between two looks of a process at its own clock. */
const STEP = 5;

/** How long this process itself was held up, since it was asked last, by a machine that is busy with others: its own timers come late then. */
class OwnDelay {
  private last = performance.now();
  private held = 0;
  private readonly timer = setInterval(() => this.look(), STEP);

  private look(): void {
    const now = performance.now();
    this.held += Math.max(0, now - this.last - 2 * STEP);
    this.last = now;
  }
  /** Milliseconds. */
  take(): number {
    this.look();
    const { held } = this;
    this.held = 0;
    return held;
  }
  end(): void {
    clearInterval(this.timer);
  }
}

/**
 * How long others wait for a plain answer of a server while something is going on, at most, in milliseconds.
 * @param isIdle the server computes nothing meanwhile: what holds up the one who asks then is the machine's and not the server's, and is left out
 */
export async function longestWait(address: string, during: Promise<unknown>, isIdle = false): Promise<number> {
  let isOver = false;
  const over = during.finally(() => (isOver = true)).catch(() => undefined);
  let longest = 0;
  const own = new OwnDelay();
  do {
    own.take();
    const from = performance.now();
    // Who has waited so long waits no longer.
    await fetch(`${address}/api/health`, { signal: AbortSignal.timeout(PATIENCE) }).catch(() => undefined);
    longest = Math.max(longest, performance.now() - from - (isIdle ? own.take() : 0));
  } while (!isOver && longest < PATIENCE);
  own.end();
  if (!isOver) return longest;
  await over;
  return longest;
}

/** Memory that a process holds, MB (proc(5), VmRSS). */
export const residentMegabytes = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;

/** Watches the memory of a process until it is stopped, MB. */
export function peakMegabytes(pid: number): { before: number; stop: () => number } {
  const before = residentMegabytes(pid);
  let most = before;
  const timer = setInterval(() => (most = Math.max(most, residentMegabytes(pid))), 20);
  return {
    before,
    stop: () => {
      clearInterval(timer);
      return Math.max(most, residentMegabytes(pid));
    },
  };
}
