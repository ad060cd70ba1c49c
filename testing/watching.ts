import { readFileSync } from 'node:fs';

/** Milliseconds after which nobody waits any more. */
const PATIENCE = 15_000;

/** Milliseconds between the ticks of a clock that has nothing else to do. */
const TICK = 10;

/** How long this process was not given the processor, or was busy itself, from a moment on: that much of a wait is not the server's, ms. */
function standstill(): { since: (from: number) => number; stop: () => void } {
  const gaps: { at: number; late: number }[] = [];
  let last = performance.now();
  const tick = (): void => {
    const now = performance.now();
    if (now - last > 2 * TICK) gaps.push({ at: now, late: now - last - TICK });
    last = now;
  };
  const timer = setInterval(tick, TICK);
  return {
    since: (from) => {
      tick();
      return gaps.reduce((sum, { at, late }) => sum + Math.max(0, Math.min(late, at - from)), 0);
    },
    stop: () => clearInterval(timer),
  };
}

/**
 * How long each of others waits, one after the other, for a plain answer of a server while something is going on, in milliseconds.
 * A machine that stands still as a whole holds up whoever looks as well: what it did so within a wait is taken off.
 */
export async function waits(address: string, during: Promise<unknown>): Promise<number[]> {
  let isOver = false;
  const clock = standstill();
  const over = during.finally(() => (isOver = true)).catch(() => undefined);
  const all: number[] = [];
  do {
    const from = performance.now();
    // Who has waited so long waits no longer.
    await fetch(`${address}/api/health`, { signal: AbortSignal.timeout(PATIENCE) }).catch(() => undefined);
    all.push(performance.now() - from - clock.since(from));
  } while (!isOver && all.at(-1)! < PATIENCE);
  clock.stop();
  if (isOver) await over;
  return all;
}

/** The longest of these waits, in milliseconds. */
export const longestWait = async (address: string, during: Promise<unknown>): Promise<number> =>
  (await waits(address, during)).reduce((longest, wait) => Math.max(longest, wait), 0);

/** Memory that a process holds, MB (proc(5), VmRSS). */
export const residentMegabytes = (pid: number): number =>
  Number(/VmRSS:\s+(\d+)/.exec(readFileSync(`/proc/${pid}/status`, 'utf8'))![1]) / 1024;

/** Watches the memory of a process until it is stopped, MB. */
export function peakMegabytes(pid: number): { before: number; stop: () => number } {
  const before = residentMegabytes(pid);
  let peak = before;
  const timer = setInterval(() => (peak = Math.max(peak, residentMegabytes(pid))), 20);
  return {
    before,
    stop: () => {
      clearInterval(timer);
      return Math.max(peak, residentMegabytes(pid));
    },
  };
}
