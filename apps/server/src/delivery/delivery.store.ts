import type { EntityManager } from 'typeorm';
import { changed } from '../persistence/transactions.js';
import type { Transactions } from '../persistence/transactions.js';

/** States of deliveries (table `delivery`). `stopped`: for a reason of our own that does not go away by itself. */
export type DeliveryState = 'queued' | 'sending' | 'retrying' | 'sent' | 'bounced' | 'unconfirmed' | 'withdrawn' | 'stopped';

/** A delivery as it was claimed. */
export interface Claimed {
  id: number;
  batchId: number;
  recordOrdinal: number;
  address: string;
  messageId: string;
  token: string;
  attempts: number;
  senderId: number;
  domain: string;
  kind: 'copies' | 'reminder';
  /** Addresses that have it already, as JSON; null: none. */
  accepted: string | null;
  /** Shown at the hand-over and with the outcome: whoever claimed it later has another one. Null: it was claimed by a version without. */
  claim: string | null;
}

/** A delivery under a claim whose owner may be gone. `handedAt`: when it began to leave; null: it had not. */
export interface Lost extends Pick<Claimed, 'id' | 'claim' | 'attempts' | 'kind'> {
  handedAt: string | null;
}

/** What is written with the end of a claim. */
export interface ClaimEnd {
  state: DeliveryState;
  said: string;
  nextTryAt?: string;
  attempts?: number;
}

const marks = (values: readonly unknown[]): string => values.map(() => '?').join(',') || 'NULL';
/** What waits, and nobody holds back. */
const WAITS = "state IN ('queued', 'retrying') AND held = 0";

/** Deliveries that wait in a state for one server, the earliest first. */
const due = (state: string): string =>
  `SELECT * FROM (SELECT id, domain, nextTryAt FROM delivery WHERE serverId = ? AND state = '${state}' AND held = 0 AND nextTryAt <= ? AND COALESCE(startAt, '') <= ? ORDER BY nextTryAt, id LIMIT ?)`;

/** All that is written and asked of deliveries while they are sent. Times are ISO 8601 in UTC. */
export const deliveryStore = {
  /** Claims that stand since before this server started. */
  claimedBefore: (manager: EntityManager): Promise<Lost[]> =>
    manager.query("SELECT id, claim, handedAt, attempts, kind FROM delivery WHERE state = 'sending'") as Promise<Lost[]>,

  /** Claims whose lease ran out. @param but those that are still at work */
  overdue: (manager: EntityManager, now: string, but: readonly number[]): Promise<Lost[]> =>
    manager.query(
      `SELECT id, claim, handedAt, attempts, kind FROM delivery WHERE state = 'sending' AND leaseUntil < ? AND id NOT IN (${marks(but)})`,
      [now, ...but],
    ) as Promise<Lost[]>,

  /** Times that lie ahead because the clock was set back. Its time to begin is never undercut. @param soon what was written later than this, was */
  bringBack: (manager: EntityManager, now: string, soon: string): Promise<void> =>
    manager.query(
      "UPDATE delivery SET nextTryAt = MAX(?, COALESCE(startAt, '')), updatedAt = ? WHERE state IN ('queued', 'retrying') AND updatedAt > ?",
      [now, now, soon],
    ) as Promise<void>,

  /** What a server has taken since a time: it counts against the limits. */
  sentSince: (transactions: Transactions, serverId: number, since: string): Promise<{ domain: string; sentAt: string }[]> =>
    transactions.read('SELECT domain, sentAt FROM delivery WHERE serverId = ? AND sentAt > ? ORDER BY sentAt', [serverId, since]),

  /** What is due for a server; what was tried before goes first at the same time. */
  due: (manager: EntityManager, serverId: number, now: string, most: number): Promise<{ id: number; domain: string }[]> =>
    manager.query(`${due('retrying')} UNION ALL ${due('queued')} ORDER BY nextTryAt, id LIMIT ?`, [
      ...[serverId, now, now, most],
      ...[serverId, now, now, most],
      most,
    ]) as Promise<{ id: number; domain: string }[]>,

  /** All that is due for a domain waits, however much it is. */
  putOff: (manager: EntityManager, serverId: number, domain: string, now: string, until: string): Promise<void> =>
    manager.query(`UPDATE delivery SET nextTryAt = ? WHERE serverId = ? AND domain = ? AND ${WAITS} AND nextTryAt <= ?`, [
      until,
      serverId,
      domain,
      now,
    ]) as Promise<void>,

  /** @returns whether it was still there to be claimed */
  async claim(manager: EntityManager, id: number, claim: string, now: string, leaseUntil: string): Promise<boolean> {
    const sql = `UPDATE delivery SET state = 'sending', attempts = attempts + 1, leaseUntil = ?, claim = ?, handedAt = NULL, updatedAt = ? WHERE id = ? AND ${WAITS}`;
    return (await changed(manager, sql, [leaseUntil, claim, now, id])) === 1;
  },

  copiesOf: (manager: EntityManager, ids: readonly number[]): Promise<{ id: number }[]> =>
    manager.query(`SELECT id FROM copy WHERE deliveryId IN (${marks(ids)})`, [...ids]) as Promise<{ id: number }[]>,

  /** What was claimed. `copies`: those of them that are to go out with it. */
  claimed: (manager: EntityManager, ids: readonly number[]): Promise<(Claimed & { copies: number })[]> =>
    manager.query(
      `SELECT id, batchId, recordOrdinal, address, messageId, token, attempts, senderId, domain, kind, accepted, claim,
         (SELECT COUNT(*) FROM copy WHERE deliveryId = delivery.id AND state = 'sending') AS copies FROM delivery WHERE id IN (${marks(ids)})`,
      [...ids],
    ) as Promise<(Claimed & { copies: number })[]>,

  /** Written before its first byte leaves. @param digest of what leaves @returns whether the claim was still its own */
  async handOver(manager: EntityManager, { id, claim }: Pick<Claimed, 'id' | 'claim'>, now: string, digest: string): Promise<boolean> {
    const sql = "UPDATE delivery SET handedAt = ?, sentDigest = ? WHERE id = ? AND state = 'sending' AND claim IS ?";
    return (await changed(manager, sql, [now, digest, id, claim])) === 1;
  },

  /** Ends a claim. @returns whether it was still this claim's */
  async endClaim(
    manager: EntityManager,
    { id, claim }: Pick<Claimed, 'id' | 'claim'>,
    { state, said, nextTryAt, attempts }: ClaimEnd,
  ): Promise<boolean> {
    const now = new Date().toISOString();
    const set = ['state = ?', 'said = ?', 'updatedAt = ?', 'leaseUntil = NULL', 'handedAt = NULL', 'claim = NULL'];
    const parameters: unknown[] = [state, said, now];
    const also = (column: string, value: unknown): void => {
      set.push(`${column} = ?`);
      parameters.push(value);
    };
    if (state === 'sent') also('sentAt', now);
    if (nextTryAt !== undefined) also('nextTryAt', nextTryAt);
    if (attempts !== undefined) also('attempts', attempts);
    const sql = `UPDATE delivery SET ${set.join(', ')} WHERE id = ? AND state = 'sending' AND claim IS ?`;
    return (await changed(manager, sql, [...parameters, id, claim])) === 1;
  },

  /** Who has it by now, and who did not take it, both as JSON. */
  remember: (manager: EntityManager, id: number, accepted: string, refused: string | null): Promise<void> =>
    manager.query('UPDATE delivery SET accepted = ?, refused = ? WHERE id = ?', [accepted, refused, id]) as Promise<void>,

  /** What was to be tried again, and is not. */
  withdraw: (manager: EntityManager, id: number): Promise<void> =>
    manager.query("UPDATE delivery SET state = 'withdrawn' WHERE id = ? AND state = 'retrying'", [id]) as Promise<void>,

  /** Holds the deliveries of a batch back, or lets them go on. */
  hold: (manager: EntityManager, batchId: number, held: boolean): Promise<void> =>
    manager.query("UPDATE delivery SET held = ? WHERE batchId = ? AND state IN ('queued', 'retrying', 'sending')", [
      held ? 1 : 0,
      batchId,
    ]) as Promise<void>,

  /** Takes back what of a batch has not gone out yet. */
  cancel: (manager: EntityManager, batchId: number, now: string): Promise<void> =>
    manager.query("UPDATE delivery SET state = 'withdrawn', updatedAt = ? WHERE batchId = ? AND state IN ('queued', 'retrying')", [
      now,
      batchId,
    ]) as Promise<void>,

  /** Whether a delivery of a batch still moves by itself. */
  async isOpen(transactions: Transactions, batchId: number): Promise<boolean> {
    const [row] = await transactions.read<{ open: number }>(
      "SELECT EXISTS (SELECT 1 FROM delivery WHERE batchId = ? AND state IN ('queued', 'sending', 'retrying') AND kind = 'copies') AS open",
      [batchId],
    );
    return row?.open === 1;
  },

  /** What of a batch leaves first; null: nothing waits. */
  async firstWaiting(transactions: Transactions, batchId: number): Promise<{ serverId: number; nextTryAt: string } | null> {
    const [row] = await transactions.read<{ serverId: number; nextTryAt: string }>(
      "SELECT serverId, nextTryAt FROM delivery WHERE batchId = ? AND state = 'queued' AND held = 0 ORDER BY nextTryAt LIMIT 1",
      [batchId],
    );
    return row ?? null;
  },
};
