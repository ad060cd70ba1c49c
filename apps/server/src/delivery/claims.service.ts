import { remark } from '@mailbag/core';
import { randomBytes } from 'node:crypto';
import { Injectable } from '@nestjs/common';
import { changeCopies } from '../copies/copy-changes.js';
import type { Sql } from '../persistence/sql.js';
import { Transactions } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import { Hold } from '../safety/hold.service.js';
import type { Claimed, Lost } from '../stores/delivery.store.js';
import { deliveryStore } from '../stores/delivery.store.js';
import { copiesOfDelivery } from './envelopes.service.js';
import type { Lane } from './lane.js';
import { MINUTE } from './lane.js';
import { MAILBAG } from '../platform/principal.js';

const STOPPED = remark('server-stopped');
const STOPPED_BEFORE = remark('server-stopped-before');

/** Claims deliveries under a lease before anything of them leaves this machine, and settles claims whose owner is gone. */
@Injectable()
export class Claims {
  constructor(
    private readonly transactions: Transactions,
    private readonly holding: Hold,
  ) {}

  /** Those that had not begun to leave wait again, the others are unconfirmed. */
  private async settle(sql: Sql, lost: readonly Lost[]): Promise<void> {
    for (const { id, claim, handedAt, attempts, kind } of lost) {
      const copies = kind === 'copies' ? await copiesOfDelivery(sql, id) : [];
      if (handedAt === null) {
        await deliveryStore.endClaim(
          sql,
          { id, claim },
          { state: 'retrying', detail: STOPPED_BEFORE, nextTryAt: new Date().toISOString(), attempts: Math.max(0, attempts - 1) },
        );
        await changeCopies(sql, copies, 'defer', { who: MAILBAG, detail: STOPPED_BEFORE });
      } else {
        await deliveryStore.endClaim(sql, { id, claim }, { state: 'unconfirmed', detail: STOPPED });
        await changeCopies(sql, copies, 'lose', { who: MAILBAG, detail: STOPPED });
      }
    }
  }

  /** At a start, before anything is claimed: every claim is one of a server that is gone. */
  settleAll(): Promise<void> {
    return this.transactions.run(async (sql) => this.settle(sql, await deliveryStore.claimedBefore(sql)));
  }

  /** Leases that ran out, and times that lie ahead because the clock was set back. @param mine deliveries that are still at work here */
  async sweep(mine: readonly number[], restsOver: (sql: Sql, now: string) => Promise<void>): Promise<void> {
    const now = Date.now();
    const [at, soon] = [new Date(now).toISOString(), new Date(now + MINUTE).toISOString()];
    await this.transactions.run(async (sql) => {
      await this.settle(sql, await deliveryStore.overdue(sql, at, mine));
      await deliveryStore.bringBack(sql, at, soon);
      await restsOver(sql, at);
    });
  }

  /** Claims what is due. @returns null: nothing is. `count`: how many claims this folder has seen, where it counts them */
  claim(lane: Lane, limit: number): Promise<{ ready: Claimed[]; count: number | null } | null> {
    return this.transactions.run(async (sql) => {
      const at = Date.now();
      const now = new Date(at).toISOString();
      const leaseUntil = new Date(at + config.mailTimeout * 4 + MINUTE).toISOString();
      const { id: serverId, limits } = lane.server;
      const rows = await deliveryStore.due(sql, serverId, now, limit);
      if (rows.length === 0) return null;
      const claim = randomBytes(9).toString('base64url');
      const ids: number[] = [];
      const waiting = new Set<string>();
      for (const { id, domain } of rows) {
        if (lane.rates.waitAny(limits, at) > 0) break;
        if (waiting.has(domain)) continue;
        const wait = lane.rates.wait(limits, domain, at);
        if (wait > 0) {
          waiting.add(domain);
          await deliveryStore.putOff(sql, serverId, domain, now, new Date(at + wait).toISOString());
          continue;
        }
        if (!(await deliveryStore.claim(sql, id, claim, now, leaseUntil))) continue;
        lane.rates.add(domain, at);
        ids.push(id);
      }
      if (ids.length === 0) return { ready: [], count: null };
      const count = await this.holding.count(sql);
      const copies = (await deliveryStore.copiesOf(sql, ids)).map(({ id }) => id);
      await changeCopies(sql, copies, 'queue', { who: MAILBAG, detail: remark('due-again') });
      await changeCopies(sql, copies, 'claim', { who: MAILBAG });
      const ready: Claimed[] = [];
      for (const { copies: sending, ...delivery } of await deliveryStore.claimed(sql, ids)) {
        // All copies of it were withdrawn in the meantime: there is nothing to send.
        if (sending === 0 && delivery.kind === 'copies')
          await deliveryStore.endClaim(sql, delivery, { state: 'withdrawn', detail: remark('withdrawn-before') });
        else ready.push(delivery);
      }
      return { ready, count };
    });
  }
}
