/** A generator with a fixed seed, so that the world is the same everywhere (mulberry32; from memory). */
export class Random {
  constructor(private seed: number) {}
  next(): number {
    this.seed = (this.seed + 0x6d2b79f5) | 0;
    let t = Math.imul(this.seed ^ (this.seed >>> 15), 1 | this.seed);
    t = (t + Math.imul(t ^ (t >>> 7), 61 | t)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  }
  /** A whole number from 0 up to `below`. */
  whole(below: number): number {
    return Math.floor(this.next() * below);
  }
  pick<T>(values: readonly T[]): T {
    return values[this.whole(values.length)]!;
  }
}
