/** How many messages may leave in a stretch of time. 0: as many as can. */
export interface RateLimits {
  perMinute: number;
  perHour: number;
  perDomainMinute: number;
}

const MINUTE = 60_000;
const HOUR = 60 * MINUTE;
/** Domains from which on those are looked for that are over. */
const MANY_DOMAINS = 5000;

/** Times of what has left, oldest first, forgotten when they are older than the stretch. */
class Stretch {
  private times: number[] = [];
  private first = 0;
  constructor(private readonly length: number) {}

  private forget(now: number): void {
    // A clock that was set back must not hold mail up: times that lie ahead are forgotten too.
    while (this.first < this.times.length && (this.times[this.first]! <= now - this.length || this.times[this.first]! > now + MINUTE))
      this.first++;
    if (this.first > 1024) {
      this.times = this.times.slice(this.first);
      this.first = 0;
    }
  }
  /** Milliseconds until there is room for one more. */
  wait(limit: number, now: number): number {
    if (limit <= 0) return 0;
    this.forget(now);
    const count = this.times.length - this.first;
    return count < limit ? 0 : Math.max(1, this.times[this.times.length - limit]! + this.length - now);
  }
  add(now: number): void {
    this.forget(now);
    this.times.push(now);
  }
  /** Whether nothing of it counts any more. */
  isOver(now: number): boolean {
    this.forget(now);
    return this.first >= this.times.length;
  }
}

/** Keeps to limits a minute, an hour and a domain, over sliding stretches. Times in milliseconds. */
export class RateKeeper {
  private readonly minute = new Stretch(MINUTE);
  private readonly hour = new Stretch(HOUR);
  private readonly domains = new Map<string, Stretch>();
  private sweepAt = MANY_DOMAINS;

  /** Milliseconds until one more message to a domain may leave; 0: now. */
  wait(limits: RateLimits, domain: string, now: number): number {
    return Math.max(this.waitAny(limits, now), this.domains.get(domain)?.wait(limits.perDomainMinute, now) ?? 0);
  }
  /** Milliseconds until one more message to any domain may leave. */
  waitAny(limits: RateLimits, now: number): number {
    return Math.max(this.minute.wait(limits.perMinute, now), this.hour.wait(limits.perHour, now));
  }
  /** Notes a message that leaves. */
  add(domain: string, now: number): void {
    this.minute.add(now);
    this.hour.add(now);
    let own = this.domains.get(domain);
    if (!own) this.domains.set(domain, (own = new Stretch(MINUTE)));
    own.add(now);
    if (this.domains.size < this.sweepAt) return;
    for (const [name, stretch] of this.domains) if (stretch.isOver(now)) this.domains.delete(name);
    // Each sweep is paid for by as many that were added.
    this.sweepAt = Math.max(MANY_DOMAINS, 2 * this.domains.size);
  }
  /** Domains that something has left for within the last minutes. */
  get knownDomains(): number {
    return this.domains.size;
  }
}
