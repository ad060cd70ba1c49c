import { getEnvironmentData, isMainThread, setEnvironmentData } from 'node:worker_threads';

/** Milliseconds for which a thread lets the server go first at most. */
const LONGEST_COURTESY = 500;
const NAME = 'mailbag-waiting-changes';

/** How many changes of the server wait for the write lock; the same number in every thread. */
const waiting = ((): Int32Array => {
  if (!isMainThread) return new Int32Array((getEnvironmentData(NAME) as SharedArrayBuffer | undefined) ?? new SharedArrayBuffer(4));
  const shared = new SharedArrayBuffer(4);
  setEnvironmentData(NAME, shared);
  return new Int32Array(shared);
})();

/**
 * SQLite gives its write lock to whoever asks at the right moment, and a thread that commits block after block asks again at once: somebody who only
 * looks every few milliseconds, as the server does, would wait until its work is over. So the server says that it waits.
 * @param work ends when the lock is there, or will not be
 */
export async function waitingForTurn<T>(work: () => Promise<T>): Promise<T> {
  Atomics.add(waiting, 0, 1);
  try {
    return await work();
  } finally {
    Atomics.sub(waiting, 0, 1);
    Atomics.notify(waiting, 0);
  }
}

/** In a thread: lets changes of the server that wait go first. Holds up the thread. */
export function letOthersFirst(): void {
  for (const end = Date.now() + LONGEST_COURTESY; Date.now() < end;) {
    const count = Atomics.load(waiting, 0);
    if (count === 0) return;
    Atomics.wait(waiting, 0, count, 50);
  }
}
