/** Milliseconds. */
const GATHER = 1;

/** A rest that can be cut short, for work that goes on in rounds. */
export class Nap {
  private end: (() => void) | null = null;
  private isCutShort = false;

  /** Rests; not at all when it was cut short since the last one. @param ms milliseconds */
  async rest(ms: number, signal: AbortSignal): Promise<void> {
    if (signal.aborted) return;
    // What comes at about the same time is seen in one round: a round at once for each would be all that is done.
    if (this.isCutShort) await new Promise<void>((done) => setTimeout(done, GATHER));
    else
      await new Promise<void>((done) => {
        const over = (): void => {
          clearTimeout(timer);
          signal.removeEventListener('abort', over);
          done();
        };
        const timer = setTimeout(over, ms);
        this.end = over;
        signal.addEventListener('abort', over);
      });
    this.end = null;
    this.isCutShort = false;
  }

  /** The next round begins now. */
  cutShort(): void {
    this.isCutShort = true;
    this.end?.();
  }
}
