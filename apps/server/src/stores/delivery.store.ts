import { storedDetail } from '@mailbag/core';
import type { Detail } from '@mailbag/core';
import type { CopyDetail } from '@mailbag/contract';
import { dialect } from '../persistence/dialect/dialect.js';
import type { Sql } from '../persistence/sql.js';
import { changed, one, rows, run } from '../persistence/sql.js';
import { withRemarks } from './stored-remarks.js';

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
  detail: Detail;
  nextTryAt?: string;
  attempts?: number;
}

/** What a report names of a delivery. */
export interface Reported {
  id: number;
  batchId: number;
  address: string;
  kind: 'copies' | 'reminder';
}

/** What waits, and nobody holds back. */
const WAITS = "state IN ('queued', 'retrying') AND held = 0";

/** Deliveries that wait in a state for one server, the earliest first. */
const due = (state: string): string =>
  `SELECT * FROM (SELECT id, domain, nextTryAt FROM delivery WHERE serverId = ? AND state = '${state}' AND held = 0 AND nextTryAt <= ? AND COALESCE(startAt, '') <= ? ORDER BY nextTryAt, id LIMIT ?)`;

/** All that is written and asked of deliveries. Times are ISO 8601 in UTC. */
export const deliveryStore = {
  /** Claims that stand since before this server started. */
  claimedBefore: (sql: Sql): Promise<Lost[]> =>
    rows<Lost>(sql, "SELECT id, claim, handedAt, attempts, kind FROM delivery WHERE state = 'sending'"),

  /** Claims whose lease ran out. @param but those that are still at work */
  overdue: (sql: Sql, now: string, but: readonly number[]): Promise<Lost[]> =>
    rows<Lost>(
      sql,
      `SELECT id, claim, handedAt, attempts, kind FROM delivery WHERE state = 'sending' AND leaseUntil < ? AND id NOT ${dialect.inIds}`,
      [now, JSON.stringify(but)],
    ),

  /** Times that lie ahead because the clock was set back. Its time to begin is never undercut. @param soon what was written later than this, was */
  bringBack: (sql: Sql, now: string, soon: string): Promise<void> =>
    run(
      sql,
      `UPDATE delivery SET nextTryAt = ${dialect.greater('?', "COALESCE(startAt, '')")}, updatedAt = ? WHERE state IN ('queued', 'retrying') AND updatedAt > ?`,
      [now, now, soon],
    ),

  /** What a server has taken since a time: it counts against the limits. */
  sentSince: (sql: Sql, serverId: number, since: string): Promise<{ domain: string; sentAt: string }[]> =>
    rows(sql, 'SELECT domain, sentAt FROM delivery WHERE serverId = ? AND sentAt > ? ORDER BY sentAt', [serverId, since]),

  /** What is due for a server; what was tried before goes first at the same time. */
  due: (sql: Sql, serverId: number, now: string, limit: number): Promise<{ id: number; domain: string }[]> =>
    rows<{ id: number; domain: string }>(sql, `${due('retrying')} UNION ALL ${due('queued')} ORDER BY nextTryAt, id LIMIT ?`, [
      ...[serverId, now, now, limit],
      ...[serverId, now, now, limit],
      limit,
    ]),

  /** All that is due for a domain waits, however much it is. */
  putOff: (sql: Sql, serverId: number, domain: string, now: string, until: string): Promise<void> =>
    run(sql, `UPDATE delivery SET nextTryAt = ? WHERE serverId = ? AND domain = ? AND ${WAITS} AND nextTryAt <= ?`, [
      until,
      serverId,
      domain,
      now,
    ]),

  /** @returns whether it was still there to be claimed */
  async claim(sql: Sql, id: number, claim: string, now: string, leaseUntil: string): Promise<boolean> {
    const text = `UPDATE delivery SET state = 'sending', attempts = attempts + 1, leaseUntil = ?, claim = ?, handedAt = NULL, updatedAt = ? WHERE id = ? AND ${WAITS}`;
    return (await changed(sql, text, [leaseUntil, claim, now, id])) === 1;
  },

  copiesOf: (sql: Sql, ids: readonly number[]): Promise<{ id: number }[]> =>
    rows<{ id: number }>(sql, `SELECT id FROM copy WHERE deliveryId ${dialect.inIds}`, [JSON.stringify(ids)]),

  /** What was claimed. `copies`: those of them that are to go out with it. */
  claimed: (sql: Sql, ids: readonly number[]): Promise<(Claimed & { copies: number })[]> =>
    rows<Claimed & { copies: number }>(
      sql,
      `SELECT id, batchId, recordOrdinal, address, messageId, token, attempts, senderId, domain, kind, accepted, claim,
         (SELECT COUNT(*) FROM copy WHERE deliveryId = delivery.id AND state = 'sending') AS copies FROM delivery WHERE id ${dialect.inIds}`,
      [JSON.stringify(ids)],
    ),

  /** Written before its first byte leaves. @param digest of what leaves @returns whether the claim was still its own */
  async handOver(sql: Sql, { id, claim }: Pick<Claimed, 'id' | 'claim'>, now: string, digest: string): Promise<boolean> {
    const text = `UPDATE delivery SET handedAt = ?, sentDigest = ? WHERE id = ? AND state = 'sending' AND claim IS NOT DISTINCT FROM ?`;
    return (await changed(sql, text, [now, digest, id, claim])) === 1;
  },

  /** Ends a claim. @returns whether it was still this claim's */
  async endClaim(
    sql: Sql,
    { id, claim }: Pick<Claimed, 'id' | 'claim'>,
    { state, detail, nextTryAt, attempts }: ClaimEnd,
  ): Promise<boolean> {
    const now = new Date().toISOString();
    const set = ['state = ?', 'detail = ?', 'updatedAt = ?', 'leaseUntil = NULL', 'handedAt = NULL', 'claim = NULL'];
    const parameters: unknown[] = [state, storedDetail(detail), now];
    const also = (column: string, value: unknown): void => {
      set.push(`${column} = ?`);
      parameters.push(value);
    };
    if (state === 'sent') also('sentAt', now);
    if (nextTryAt !== undefined) also('nextTryAt', nextTryAt);
    if (attempts !== undefined) also('attempts', attempts);
    const text = `UPDATE delivery SET ${set.join(', ')} WHERE id = ? AND state = 'sending' AND claim IS NOT DISTINCT FROM ?`;
    return (await changed(sql, text, [...parameters, id, claim])) === 1;
  },

  /** Who has it by now, and who did not take it, both as JSON. */
  remember: (sql: Sql, id: number, accepted: string, refused: string | null): Promise<void> =>
    run(sql, 'UPDATE delivery SET accepted = ?, refused = ? WHERE id = ?', [accepted, refused, id]),

  /** What was to be tried again, and is not. */
  withdraw: (sql: Sql, id: number): Promise<void> =>
    run(sql, "UPDATE delivery SET state = 'withdrawn' WHERE id = ? AND state = 'retrying'", [id]),

  /** Holds the deliveries of a batch back, or lets them go on. */
  hold: (sql: Sql, batchId: number, held: boolean): Promise<void> =>
    run(sql, "UPDATE delivery SET held = ? WHERE batchId = ? AND state IN ('queued', 'retrying', 'sending')", [held ? 1 : 0, batchId]),

  /** Takes back what of a batch has not gone out yet. */
  cancel: (sql: Sql, batchId: number, now: string): Promise<void> =>
    run(sql, "UPDATE delivery SET state = 'withdrawn', updatedAt = ? WHERE batchId = ? AND state IN ('queued', 'retrying')", [
      now,
      batchId,
    ]),

  /** Whether a delivery of a batch still moves by itself. */
  async isOpen(sql: Sql, batchId: number): Promise<boolean> {
    const [row] = await rows<{ open: number }>(
      sql,
      "SELECT EXISTS (SELECT 1 FROM delivery WHERE batchId = ? AND state IN ('queued', 'sending', 'retrying') AND kind = 'copies') AS open",
      [batchId],
    );
    return row?.open === 1;
  },

  /** What of a batch leaves first; null: nothing waits. */
  async firstWaiting(sql: Sql, batchId: number): Promise<{ serverId: number; nextTryAt: string } | null> {
    const [row] = await rows<{ serverId: number; nextTryAt: string }>(
      sql,
      "SELECT serverId, nextTryAt FROM delivery WHERE batchId = ? AND state = 'queued' AND held = 0 ORDER BY nextTryAt LIMIT 1",
      [batchId],
    );
    return row ?? null;
  },

  byToken: (sql: Sql, token: string) => rows<unknown>(sql, 'SELECT 1 FROM delivery WHERE token = ?', [token]),

  accepted: (sql: Sql, id: number) => one<{ others: string | null }>(sql, 'SELECT accepted AS others FROM delivery WHERE id = ?', [id]),

  bounce: (sql: Sql, detail: Detail, now: string, id: number) =>
    run(sql, "UPDATE delivery SET state = 'bounced', detail = ?, updatedAt = ? WHERE id = ? AND state IN ('sent', 'unconfirmed')", [
      storedDetail(detail),
      now,
      id,
    ]),

  addressed: (sql: Sql, id: number) => one<Reported>(sql, 'SELECT id, batchId, address, kind FROM delivery WHERE id = ?', [id]),

  ofCopy: async (sql: Sql, id: number) =>
    (
      await withRemarks<NonNullable<CopyDetail['delivery']>>(
        rows(
          sql,
          'SELECT id, address, state, attempts, messageId, detail, (SELECT COUNT(*) FROM copy WHERE copy.deliveryId = delivery.id) AS copies FROM delivery WHERE id = ?',
          [id],
        ),
      )
    )[0],

  addMessageId: (sql: Sql, messageId: string, id: number) =>
    run(sql, 'INSERT INTO delivery_message (messageId, deliveryId) VALUES (?, ?)', [messageId, id]),

  setMessageId: (sql: Sql, messageId: string, id: number) => run(sql, 'UPDATE delivery SET messageId = ? WHERE id = ?', [messageId, id]),

  sentWith: (sql: Sql, copyId: number) =>
    one<Claimed & { sentDigest: string | null }>(
      sql,
      'SELECT delivery.sentDigest, delivery.id, delivery.batchId, delivery.recordOrdinal, delivery.address, delivery.messageId, delivery.token, delivery.attempts, delivery.senderId, delivery.domain, delivery.kind, delivery.accepted, delivery.claim FROM copy JOIN delivery ON delivery.id = copy.deliveryId WHERE copy.id = ?',
      [copyId],
    ),

  settleSent: (sql: Sql, now: string, sentAt: string, id: number) =>
    run(sql, "UPDATE delivery SET state = 'sent', updatedAt = ?, sentAt = ? WHERE id = ? AND state = 'unconfirmed'", [now, sentAt, id]),

  dropMessageIdsOfBatch: (sql: Sql, batchId: number) =>
    run(sql, 'DELETE FROM delivery_message WHERE deliveryId IN (SELECT id FROM delivery WHERE batchId = ?)', [batchId]),

  dropOfBatch: (sql: Sql, batchId: number) => run(sql, 'DELETE FROM delivery WHERE batchId = ?', [batchId]),

  lastChange: (sql: Sql) => one<{ at: string | null }>(sql, 'SELECT MAX(updatedAt) AS at FROM delivery'),

  unconfirm: (sql: Sql, detail: Detail, now: string, ids: readonly number[]) =>
    run(sql, `UPDATE delivery SET state = 'unconfirmed', detail = ?, updatedAt = ? WHERE id ${dialect.inIds}`, [
      storedDetail(detail),
      now,
      JSON.stringify(ids),
    ]),

  waitingOf: (sql: Sql, senderId: number) =>
    one<{ count: number }>(
      sql,
      "SELECT COUNT(*) AS count FROM delivery WHERE senderId = ? AND state IN ('queued', 'retrying', 'sending')",
      [senderId],
    ),

  /** Which delivery a report is about: by its token, by one of the messages it names, or by the last that went to an address since then. */
  reportedOn: (sql: Sql, by: { token: string } | { messageIds: readonly string[] } | { address: string; since: string }) => {
    const columns = 'SELECT delivery.id, delivery.batchId, delivery.address, delivery.kind FROM';
    if ('token' in by) return one<Reported>(sql, `${columns} delivery WHERE token = ?`, [by.token]);
    if ('messageIds' in by)
      return one<Reported>(
        sql,
        `${columns} delivery_message JOIN delivery ON delivery.id = delivery_message.deliveryId WHERE delivery_message.messageId ${dialect.inIds} LIMIT 1`,
        [JSON.stringify(by.messageIds)],
      );
    return one<Reported>(
      sql,
      `${columns} delivery WHERE ${dialect.caseless('address')} = ${dialect.caseless('?')} AND state IN ('sent', 'unconfirmed') AND updatedAt > ? ORDER BY id DESC LIMIT 1`,
      [by.address, by.since],
    );
  },

  /** @returns the id of a new one, which waits */
  add: async (
    sql: Sql,
    delivery: {
      batchId: number;
      recordOrdinal: number;
      address: string;
      messageId: string;
      held: boolean;
      nextTryAt: string;
      createdAt: string;
      kind: 'copies' | 'reminder';
      senderId: number;
      serverId: number;
      token: string;
      domain: string;
      startAt: string | null;
    },
  ) =>
    (await one<{ id: number }>(
      sql,
      `INSERT INTO delivery (batchId, recordOrdinal, address, messageId, state, held, attempts, nextTryAt, detail, createdAt, updatedAt, kind, senderId, serverId, token, domain, startAt)
       VALUES (?, ?, ?, ?, 'queued', ?, 0, ?, NULL, ?, ?, ?, ?, ?, ?, ?, ?) RETURNING id`,
      [
        delivery.batchId,
        delivery.recordOrdinal,
        delivery.address,
        delivery.messageId,
        delivery.held ? 1 : 0,
        delivery.nextTryAt,
        delivery.createdAt,
        delivery.createdAt,
        delivery.kind,
        delivery.senderId,
        delivery.serverId,
        delivery.token,
        delivery.domain,
        delivery.startAt,
      ],
    ))!.id,

  /** Copies that a reminder takes along. */
  addCopies: (sql: Sql, id: number, copies: readonly number[]) =>
    run(sql, `INSERT INTO delivery_copy (deliveryId, copyId) SELECT ?, value FROM ${dialect.items('item')}`, [id, JSON.stringify(copies)]),

  /** What waits, by batch. */
  waitingByBatch: (sql: Sql) =>
    rows<{ id: number; number: number; mailingName: string; messages: number; copies: number }>(
      sql,
      `SELECT batch.id, batch.number, batch.mailingName, COUNT(DISTINCT delivery.id) AS messages, COUNT(copy.id) AS copies
       FROM delivery JOIN batch ON batch.id = delivery.batchId LEFT JOIN copy ON copy.deliveryId = delivery.id
       WHERE delivery.state IN ('queued', 'retrying') GROUP BY batch.id ORDER BY batch.number DESC`,
    ),

  waitingOfBatch: (sql: Sql, batchId: number, maximum: number) =>
    rows<{ id: number }>(sql, "SELECT id FROM delivery WHERE batchId = ? AND state IN ('queued', 'retrying') LIMIT ?", [batchId, maximum]),
};
