import { readFileSync } from 'node:fs';

/** Milliseconds after which nobody waits any more. */
const PATIENCE = 15_000;

/** How long others wait for a plain answer of a server while something is going on, at most, in milliseconds. */
export async function longestWait(address: string, during: Promise<unknown>): Promise<number> {
  let isOver = false;
  const over = during.finally(() => (isOver = true)).catch(() => undefined);
  let longest = 0;
  do {
    const from = performance.now();
    // Who has waited so long waits no longer.
    await fetch(`${address}/api/health`, { signal: AbortSignal.timeout(PATIENCE) }).catch(() => undefined);
    longest = Math.max(longest, performance.now() - from);
  } while (!isOver && longest < PATIENCE);
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
