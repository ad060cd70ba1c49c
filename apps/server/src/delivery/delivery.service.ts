import { setTimeout as pause } from 'node:timers/promises';
import type { ErrorCode, Remark } from '@mailbag/core';
import { MailbagError, isMailbagError, remark, detailText } from '@mailbag/core';
import type { BeforeApplicationShutdown, OnApplicationBootstrap } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import { SettingsService } from '../settings/settings.service.js';
import { Jobs } from '../jobs/jobs.service.js';
import { LiveService } from '../live/live.service.js';
import { GroupedWrites } from '../persistence/grouped-writes.js';
import type { Sql } from '../persistence/sql.js';
import { Transactions } from '../persistence/transactions.js';
import { Hold } from '../safety/hold.service.js';
import { SendersService } from '../senders/senders.service.js';
import { Claims } from './claims.service.js';
import type { Claimed } from '../stores/delivery.store.js';
import { deliveryStore } from '../stores/delivery.store.js';
import { Envelopes } from './envelopes.service.js';
import { Lane, MINUTE } from './lane.js';
import { OutgoingMessages } from './outgoing-messages.service.js';
import { MailThread } from './mail-thread.js';
import type { Outcome } from './outcome.js';
import type { OutgoingMessage } from './outgoing-message.js';
import { contentDigest } from './outgoing-message.js';
import { recordOutcome } from './record-outcome.js';
import { Nap } from '../platform/nap.js';

/** Milliseconds between looks for deliveries that are due, and after a look that failed. */
const LOOK = 400;
const LOOK_AFTER_FAILURE = 5000;
/** Milliseconds between tries to write down an outcome. */
const [SHORTEST_REWRITE, LONGEST_REWRITE] = [250, 15_000];
/** Connections lost one after the other, without a message between, after which the server itself is taken to fail. */
const LOST_IN_A_ROW = 8;

/** What goes away by itself, so that the message is made again a little later. */
const passing: ErrorCode[] = ['disk-full', 'database-busy', 'server-stops', 'work-too-slow', 'work-too-many'];

/** What a message that could not be made leads to. Only what the recipient's address is to blame for is a bounce. */
const faultOf = ({ code, message }: MailbagError): Outcome =>
  code === 'mail-address-refused'
    ? { kind: 'refused', detail: message }
    : { kind: 'our-side', detail: message, lasting: !passing.includes(code) };

/**
 * Sends deliveries. Each is claimed in the database under a lease before anything leaves this machine, and what has begun to leave is
 * written down before its first byte does: after a stop, what had not begun goes on by itself, and the rest becomes "unconfirmed" for a person to settle.
 */
@Injectable()
export class DeliveryService implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('delivery');
  private readonly lanes = new Map<number, Lane>();
  private readonly writes: GroupedWrites;
  private readonly thread = new MailThread((error) => this.logger.error(error));
  private readonly mine = new Set<number>();
  private lanesAreStale = true;
  private stopping = false;
  private readonly nap = new Nap();
  private lastSweep = 0;

  constructor(
    private readonly transactions: Transactions,
    private readonly claims: Claims,
    private readonly senders: SendersService,
    private readonly envelopes: Envelopes,
    private readonly outgoing: OutgoingMessages,
    private readonly live: LiveService,
    private readonly holding: Hold,
    private readonly settings: SettingsService,
    jobs: Jobs,
  ) {
    this.writes = new GroupedWrites(transactions);
    jobs.register('delivery', {
      title: 'Sending mail',
      ends: true,
      atOnce: 1,
      retry: [LOOK_AFTER_FAILURE],
      forEver: true,
      run: ({ signal }) => this.work(signal),
    });
    jobs.every({ kind: 'delivery', priority: 100 }, LOOK);
  }

  async onApplicationBootstrap(): Promise<void> {
    await this.claims.settleAll();
    this.senders.changed.subscribe(() => {
      this.lanesAreStale = true;
      this.wake();
    });
    this.holding.released.subscribe(() => this.wake());
  }

  async beforeApplicationShutdown(): Promise<void> {
    this.stopping = true;
    for (const lane of this.lanes.values()) lane.transport.close();
    const until = Date.now() + 8000;
    while (this.mine.size > 0 && Date.now() < until) await pause(50);
    await this.thread.end();
  }

  /** Looks for work now. */
  wake(): void {
    this.nap.cutShort();
  }

  /** Sends as long as the server runs. */
  private async work(signal: AbortSignal): Promise<void> {
    while (!signal.aborted) {
      let rest = LOOK;
      try {
        await this.look();
      } catch (error) {
        // A full disk or a database that somebody holds: nothing can be claimed until that is over.
        rest = LOOK_AFTER_FAILURE;
        this.logger.error(isMailbagError(error) ? error.message : error);
        await pause(rest, undefined, { signal }).catch(() => undefined);
      }
      await this.nap.rest(rest, signal);
    }
  }

  private async look(): Promise<void> {
    await this.sweep();
    // Until somebody has looked, a folder that was put back sends nothing by itself.
    if (this.holding.isHeld) return;
    if (this.lanesAreStale) await this.openLanes();
    for (const lane of this.lanes.values()) await this.fill(lane);
  }

  /** Once a minute: leases that ran out, and times that lie ahead because the clock was set back. */
  private async sweep(): Promise<void> {
    const now = Date.now();
    if (Math.abs(now - this.lastSweep) < MINUTE) return;
    this.lastSweep = now;
    await this.claims.sweep([...this.mine], (sql, at) =>
      this.senders.restsBroughtBack(sql, at, new Date(now + 24 * 60 * MINUTE).toISOString()),
    );
  }

  private async openLanes(): Promise<void> {
    this.lanesAreStale = false;
    const servers = await this.senders.sendingServers();
    for (const [id, lane] of this.lanes) {
      const server = servers.find((one) => one.id === id);
      if (server && JSON.stringify(server) === JSON.stringify(lane.server)) continue;
      this.lanes.delete(id);
      lane.transport.close();
    }
    for (const server of servers) {
      if (this.lanes.has(server.id)) continue;
      const lane = new Lane(server, this.thread.open(server));
      // What left in the last hour counts against the limits.
      const sent = await deliveryStore.sentSince(this.transactions, server.id, new Date(Date.now() - 60 * MINUTE).toISOString());
      for (const { domain, sentAt } of sent) lane.rates.add(domain, Date.parse(sentAt));
      this.lanes.set(server.id, lane);
    }
  }

  private async fill(lane: Lane): Promise<void> {
    // As many again as there are connections are made ready, so that no connection waits for the database.
    const room = lane.server.connections * 2;
    while (!this.stopping && !this.lanesAreStale && lane.underWay < room) {
      const now = Date.now();
      if (lane.isClosed(now, this.settings.zone) || lane.isFull(now)) return;
      const claimed = await this.claims.claim(lane, room - lane.underWay);
      if (claimed === null) return;
      if (claimed.count !== null) this.holding.claimed(claimed.count);
      for (const delivery of claimed.ready) {
        lane.underWay++;
        this.mine.add(delivery.id);
        void this.deliver(lane, delivery)
          .catch((error: unknown) => this.logger.error(error))
          .finally(() => {
            lane.underWay--;
            this.mine.delete(delivery.id);
            if (lane.underWay <= lane.server.connections) this.wake();
          });
      }
    }
  }

  private async deliver(lane: Lane, delivery: Claimed): Promise<void> {
    const outcome = await this.attempt(lane, delivery);
    const restUntil = await this.watchServer(lane, outcome);
    await this.write(delivery, outcome, restUntil);
    this.live.notify('copies', delivery.batchId);
    this.live.notify('batch', delivery.batchId);
  }

  /** Writes an outcome down, again and again until it is: a letter that was accepted must not stay “sending” because our own disk was full. */
  private async write(delivery: Claimed, outcome: Outcome, restUntil: string | null): Promise<void> {
    for (let wait = SHORTEST_REWRITE; ; wait = Math.min(wait * 2, LONGEST_REWRITE)) {
      try {
        const sender = await this.senders.ready(delivery.senderId);
        const isMine = await this.writes.submit((sql) =>
          recordOutcome(sql, delivery, outcome, {
            restUntil,
            renew: () =>
              this.envelopes.renew(sql, delivery.id, delivery.batchId, delivery.recordOrdinal, sender?.address ?? '@mailbag.invalid'),
          }),
        );
        if (!isMine)
          this.logger.warn(
            `The claim of delivery ${delivery.id} was lost; its outcome is not written: ${outcome.kind}, ${detailText(outcome.detail)}`,
          );
        return;
      } catch (error) {
        this.logger.error(isMailbagError(error) ? error.message : error);
        if (this.stopping) return;
        await pause(wait);
      }
    }
  }

  private async attempt(lane: Lane, delivery: Claimed): Promise<Outcome> {
    let message: OutgoingMessage;
    try {
      const sender = await this.senders.ready(delivery.senderId);
      if (!sender) return { kind: 'server', detail: remark('sender-unconfirmed') };
      message = await this.outgoing.of(delivery, sender, lane.server);
    } catch (error) {
      if (!isMailbagError(error)) this.logger.error(error);
      return isMailbagError(error)
        ? faultOf(error)
        : { kind: 'our-side', detail: new MailbagError('mail-not-handed', { answer: String(error) }).message, lasting: false };
    }
    const digest = await contentDigest(message);
    return lane.transport.send(message, async () => {
      const now = new Date().toISOString();
      const isMine = await this.writes.submit((sql) => deliveryStore.handOver(sql, delivery, now, digest));
      if (!isMine) throw new Error('Its claim was lost before it was handed over.');
    });
  }

  /** A server that fails for every message rests for a while that grows; nothing is lost meanwhile. @returns until when */
  private async watchServer(lane: Lane, outcome: Outcome): Promise<string | null> {
    const isLost = outcome.kind === 'try-later' && !/^\d{3}[ -]/.test(detailText(outcome.detail));
    lane.lostInARow = isLost || outcome.kind === 'unknown' ? lane.lostInARow + 1 : 0;
    if (outcome.kind === 'server' || lane.lostInARow >= LOST_IN_A_ROW) {
      const now = Date.now();
      if (lane.waitUntil > now) return new Date(lane.waitUntil).toISOString();
      lane.waitUntil = now + 1000;
      lane.lostInARow = 0;
      const until = await this.senders.rest(lane.server.id, outcome.detail);
      lane.waitUntil = Date.parse(until);
      lane.server.restUntil = until;
      this.live.notify('senders', lane.server.id);
      return until;
    }
    if (lane.server.restUntil && outcome.kind === 'accepted') {
      lane.server.restUntil = null;
      await this.senders.restOver(lane.server.id);
      this.live.notify('senders', lane.server.id);
    }
    return null;
  }

  /** Holds the deliveries of a batch back, or lets them go on. */
  hold(sql: Sql, batchId: number, held: boolean): Promise<void> {
    return deliveryStore.hold(sql, batchId, held);
  }

  /** Takes back what has not gone out yet. */
  cancel(sql: Sql, batchId: number): Promise<void> {
    return deliveryStore.cancel(sql, batchId, new Date().toISOString());
  }

  /** Whether a delivery of a batch still moves by itself. */
  isOpen(batchId: number): Promise<boolean> {
    return deliveryStore.isOpen(this.transactions, batchId);
  }

  /** Why the deliveries of a batch wait; null: they do not. */
  async waiting(batchId: number): Promise<Remark | null> {
    const row = await deliveryStore.firstWaiting(this.transactions, batchId);
    if (row && this.holding.isHeld) return remark('folder-held');
    const lane = row && this.lanes.get(row.serverId);
    if (!row || !lane) return null;
    const now = Date.now();
    const { name: server, limits, restUntil } = lane.server;
    if (Date.parse(row.nextTryAt) > now + 5000) return remark('sending-begins', { at: row.nextTryAt });
    if (restUntil && Date.parse(restUntil) > now) return remark('server-rests', { server, until: restUntil });
    const wait = lane.minutesUntilOpen(this.settings.zone);
    if (wait === null) return remark('no-hours', { server });
    if (wait > 0) return remark('hours-begin', { server, at: new Date(now + wait * MINUTE).toISOString() });
    return lane.rates.waitAny(limits, now) > 0 ? remark('limits-reached', { server }) : null;
  }
}
