import { isIPv6 } from 'node:net';
import { MailbagError } from '@mailbag/core';

/** What is guessed at, and how often it may be wrong before each further try has to wait. */
export interface TryKey {
  name: string;
  free: number;
  /** Seconds that a wait grows to at most. */
  longest: number;
}

interface Tried {
  count: number;
  last: number;
  /** When the next try is taken. */
  next: number;
}

/** Milliseconds without a try after which it begins anew. */
const FORGOTTEN_AFTER = 15 * 60_000;
const MOST_KEPT = 20_000;

/** The stretch of the network that a try comes from: an IPv6 host chooses freely within 64 bits (RFC 4291, 2.5.1). */
export function stretchOf(address: string): string {
  if (!isIPv6(address) || address.startsWith('::ffff:')) return address.replace('::ffff:', '');
  const [head = '', tail] = address.split('::');
  const front = head === '' ? [] : head.split(':');
  const back = tail ? tail.split(':') : [];
  const all = tail === undefined ? front : [...front, ...Array<string>(Math.max(0, 8 - front.length - back.length)).fill('0'), ...back];
  return `${all.slice(0, 4).join(':')}::/64`;
}

/** Slows guessing down: a try counts before it is known whether it is right, so tries at the same time count too. Nobody is ever locked out for good. */
export class Tries {
  private readonly tried = new Map<string, Tried>();
  constructor(private readonly now: () => number = Date.now) {}

  /** Takes a try, or says how long to wait. @throws MailbagError account-too-many-tries */
  begin(keys: readonly TryKey[]): void {
    const now = this.now();
    const wait = Math.max(0, ...keys.map(({ name }) => (this.tried.get(name)?.next ?? 0) - now));
    if (wait > 0) throw new MailbagError('account-too-many-tries', { seconds: Math.ceil(wait / 1000) });
    for (const { name, free, longest } of keys) {
      const before = this.tried.get(name);
      const count = before && now - before.last < FORGOTTEN_AFTER ? before.count + 1 : 1;
      const seconds = count <= free ? 0 : Math.min(longest, 2 ** Math.min(20, count - free));
      this.tried.delete(name);
      this.tried.set(name, { count, last: now, next: now + seconds * 1000 });
    }
    // The one that was tried longest ago stands first.
    while (this.tried.size > MOST_KEPT) this.tried.delete(this.tried.keys().next().value!);
  }

  /** It was right: it does not count, and what is named is forgotten. */
  right(keys: readonly TryKey[], forgotten: string): void {
    for (const { name } of keys) {
      const tried = this.tried.get(name);
      if (tried) this.tried.set(name, { ...tried, count: tried.count - 1, next: 0 });
    }
    this.tried.delete(forgotten);
  }
}
