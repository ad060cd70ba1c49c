import { MailbagError } from '@mailbag/core';
import { stretchOf } from '../accounts/tries.js';

/** A bucket of tokens: what can be taken at once, and what comes back each second. */
export interface BucketSize {
  maximum: number;
  perSecond: number;
}
interface Bucket {
  tokens: number;
  at: number;
}

/** Buckets that are kept; the one that was asked longest ago goes first. */
const MOST_KEPT = 20_000;

/** Lets each of many askers do something so often, and no oftener. */
export class TokenBuckets {
  private readonly buckets = new Map<string, Bucket>();
  constructor(
    private readonly size: BucketSize,
    private readonly now: () => number = Date.now,
  ) {}

  private there(name: string, now: number): number {
    const { maximum: limit, perSecond } = this.size;
    const before = this.buckets.get(name) ?? { tokens: limit, at: now };
    return Math.min(limit, before.tokens + ((now - before.at) / 1000) * perSecond);
  }
  private secondsTo(tokens: number, there: number): number {
    return there >= tokens ? 0 : Math.ceil((tokens - there) / this.size.perSecond);
  }

  /** Seconds until there are enough tokens; 0: there are. None is taken. */
  wait(name: string, tokens = 1): number {
    return this.secondsTo(tokens, this.there(name, this.now()));
  }

  /** Whether so many tokens are out. */
  hasGiven(name: string, tokens: number): boolean {
    return this.size.maximum - this.there(name, this.now()) >= tokens;
  }

  /** Takes tokens. @returns seconds until there are enough; 0: they were taken */
  take(name: string, tokens = 1): number {
    const now = this.now();
    const there = this.there(name, now);
    const wait = this.secondsTo(tokens, there);
    this.buckets.delete(name);
    this.buckets.set(name, { tokens: wait > 0 ? there : there - tokens, at: now });
    if (this.buckets.size > MOST_KEPT) this.buckets.delete(this.buckets.keys().next().value!);
    return wait;
  }
}

/** Submissions from one part of the network, and to one intake, that cost no work. */
const [FREE, BUSY] = [3, 300];

/** What a visitor's device may ask for. */
export type Asking = 'look' | 'preview' | 'submit' | 'mail';

/** Limits by the part of the network that somebody asks from, and by intake. */
export class VisitorLimits {
  private readonly byAddress: Record<Asking, TokenBuckets>;
  private readonly byIntake: TokenBuckets;
  private readonly byRecipient: TokenBuckets;
  private readonly byLink: TokenBuckets;

  /** @param scale how many times as much is allowed as is usual @param now milliseconds */
  constructor(
    private readonly scale = 1,
    now: () => number = Date.now,
  ) {
    const of = (maximum: number, perSecond: number): TokenBuckets =>
      new TokenBuckets({ maximum: maximum * scale, perSecond: perSecond * scale }, now);
    this.byAddress = { look: of(120, 4), preview: of(40, 1), submit: of(20, 0.2), mail: of(4, 1 / 300) };
    this.byRecipient = of(3, 1 / 3600);
    this.byIntake = of(600, 20);
    // However many visitors there are, one link has one recipient.
    this.byLink = new TokenBuckets({ maximum: 8, perSecond: 1 / 300 }, now);
  }

  /** Whether a device has to work for what it sends: it has sent several already, or very many send to the intake. @param address of who asks */
  needsWork(address: string, intake: string): boolean {
    return this.byAddress.submit.hasGiven(stretchOf(address), FREE * this.scale) || this.byIntake.hasGiven(intake, BUSY * this.scale);
  }

  /** @param address of who asks @throws MailbagError intake-too-often */
  take(what: Asking, address: string, intake: string): void {
    const wait = this.byAddress[what].take(stretchOf(address)) || (what === 'submit' ? this.byIntake.take(intake) : 0);
    if (wait > 0) throw new MailbagError('intake-too-often', { seconds: wait });
  }

  /** What must be known before a personal link opens cannot be tried out. @throws MailbagError intake-too-often */
  takeCheck(token: string): void {
    const wait = this.byLink.take(token);
    if (wait > 0) throw new MailbagError('intake-too-often', { seconds: wait });
  }

  /** Nobody is mailed more than a few links, whoever asks for them. @throws MailbagError intake-too-often */
  takeRecipient(address: string): void {
    const wait = this.byRecipient.take(address.trim().toLowerCase());
    if (wait > 0) throw new MailbagError('intake-too-often', { seconds: wait });
  }
}
