import { MOST_TRIES, RateKeeper, minutesUntilOpen, retryDelay } from '@mailbag/core';
import { DateTime } from 'luxon';
import type { SendingServer } from '../senders/senders.service.js';
import type { ThreadTransport } from './mail-thread.js';

export const MINUTE = 60_000;
const LONGEST_REST = retryDelay(MOST_TRIES) + MINUTE;

/** What goes out through one mail server. */
export class Lane {
  readonly rates = new RateKeeper();
  underWay = 0;
  lostInARow = 0;
  /** Milliseconds of the clock before which nothing is claimed. */
  waitUntil = 0;

  constructor(
    readonly server: SendingServer,
    readonly transport: ThreadTransport,
  ) {
    if (server.restUntil) this.waitUntil = Date.parse(server.restUntil);
  }

  /** Minutes until its hours of sending begin; null: they never do. @param zone of the office */
  minutesUntilOpen(zone: string): number | null {
    const local = DateTime.local({ zone });
    return minutesUntilOpen(this.server.hours, { weekday: local.weekday, minute: local.hour * 60 + local.minute });
  }

  /** Whether nothing is to be claimed now, because it rests or its hours are over. */
  isClosed(now: number, zone: string): boolean {
    // Nothing waits longer than the longest rest; a time that lies further ahead comes from a clock that was set back.
    if (this.waitUntil > now + LONGEST_REST) this.waitUntil = now;
    if (this.waitUntil > now) return true;
    const wait = this.minutesUntilOpen(zone);
    if (wait === 0) return false;
    this.waitUntil = now + Math.min(wait ?? 60, 60) * MINUTE - DateTime.local({ zone }).second * 1000;
    return true;
  }

  /** Whether its limits let nothing through now; they are looked at again when they may. */
  isFull(now: number): boolean {
    const wait = this.rates.waitAny(this.server.limits, now);
    if (wait > 0) this.waitUntil = now + Math.min(wait, MINUTE);
    return wait > 0;
  }
}
