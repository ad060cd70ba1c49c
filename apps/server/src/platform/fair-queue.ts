/** Work that waits for a place, by who asked. */
interface Waiting {
  start: () => void;
}

/** Askers whose last serving is remembered. */
const MOST_REMEMBERED = 1000;

/**
 * Lets so many pieces of work run at a time, and takes turns between those who ask: whoever asks for much waits behind their own work,
 * not the others behind it.
 */
export class FairQueue {
  private readonly waiting = new Map<string, Waiting[]>();
  private readonly running = new Map<string, number>();
  /** When each asker was served last, counted in servings. */
  private readonly served = new Map<string, number>();
  private servings = 0;
  private free: number;

  /** @param perKey places that one asker takes at most @param limit pieces of one asker that wait; more are refused by `isFull` */
  constructor(
    places: number,
    private readonly perKey = places,
    private readonly limit = Infinity,
  ) {
    this.free = places;
  }

  isFull(key: string): boolean {
    return (this.waiting.get(key)?.length ?? 0) >= this.limit;
  }

  /** Runs a piece of work when its turn has come. */
  async run<T>(key: string, work: () => Promise<T>): Promise<T> {
    await new Promise<void>((start) => {
      const list = this.waiting.get(key) ?? [];
      list.push({ start });
      this.waiting.set(key, list);
      this.next();
    });
    try {
      return await work();
    } finally {
      this.free++;
      const left = this.running.get(key)! - 1;
      if (left > 0) this.running.set(key, left);
      else this.running.delete(key);
      this.next();
    }
  }

  private next(): void {
    while (this.free > 0) {
      const able = [...this.waiting].filter(([key]) => (this.running.get(key) ?? 0) < this.perKey);
      // Whoever was served last goes behind the others.
      const [turn] = able.sort(([a], [b]) => (this.served.get(a) ?? 0) - (this.served.get(b) ?? 0));
      if (!turn) return;
      const [key, list] = turn;
      const one = list.shift()!;
      if (list.length === 0) this.waiting.delete(key);
      this.served.set(key, ++this.servings);
      if (this.served.size > MOST_REMEMBERED) this.served.delete(this.served.keys().next().value!);
      this.free--;
      this.running.set(key, (this.running.get(key) ?? 0) + 1);
      one.start();
    }
  }
}
