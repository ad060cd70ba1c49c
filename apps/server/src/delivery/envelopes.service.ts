import { randomBytes } from 'node:crypto';
import { MailbagError, addressesIn, domainOf, newReturnToken } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { changeCopies } from '../copies/copy-changes.js';
import { SendersService } from '../senders/senders.service.js';
import { copyStore } from '../stores/copy.store.js';
import { deliveryStore } from '../stores/delivery.store.js';
import type { Sql } from '../persistence/sql.js';
import type { Principal } from '../platform/principal.js';

export interface NewEnvelope {
  batchId: number;
  recordOrdinal: number;
  /** One address, or several where the mailing allows it. */
  address: string;
  copies: number[];
  held: boolean;
  kind?: 'copies' | 'reminder';
  senderId: number | null;
  /** ISO 8601; null: as soon as can be. */
  startAt?: string | null;
}

/** A Message-ID (RFC 5322, 3.6.4) that nothing else has: batch, record, random bytes, the sender's domain. */
export const newMessageId = (batchId: number, recordOrdinal: number, senderAddress: string): string =>
  `<${batchId}.${recordOrdinal}.${randomBytes(9).toString('hex')}@${domainOf(senderAddress)}>`;

/** Makes deliveries: one envelope each, with a Message-ID and a token of its own for ever. */
@Injectable()
export class Envelopes {
  constructor(private readonly senders: SendersService) {}

  /** Makes a delivery for the copies of one record and queues them. Nothing is queued when the address cannot be mailed to. @throws MailbagError sender-not-confirmed */
  async queue(sql: Sql, envelope: NewEnvelope & { several: boolean; who: Principal }): Promise<boolean> {
    const { addresses } = addressesIn(envelope.address, envelope.several);
    if (addresses.length === 0) return false;
    if ((await this.make(sql, envelope)) === null) throw new MailbagError('sender-not-confirmed', { mailing: `Batch ${envelope.batchId}` });
    await changeCopies(sql, envelope.copies, 'queue', { who: envelope.who });
    return true;
  }

  /** @returns id of the delivery; null: there is no sender */
  async make(
    sql: Sql,
    { batchId, recordOrdinal, address, copies, held, kind = 'copies', senderId, startAt = null }: NewEnvelope,
  ): Promise<number | null> {
    const sender = (await this.senders.ready(senderId)) ?? (await this.senders.ready(null));
    if (!sender) return null;
    const now = new Date().toISOString();
    const messageId = newMessageId(batchId, recordOrdinal, sender.address);
    const first = addressesIn(address, true).addresses[0]?.address ?? address;
    const id = await deliveryStore.add(sql, {
      batchId,
      recordOrdinal,
      address: address.trim(),
      messageId,
      held,
      nextTryAt: startAt && startAt > now ? startAt : now,
      createdAt: now,
      kind,
      senderId: sender.id,
      serverId: sender.serverId,
      token: newReturnToken(randomBytes(20)),
      domain: domainOf(first),
      startAt,
    });
    await deliveryStore.addMessageId(sql, messageId, id);
    if (kind === 'copies') await copyStore.setDelivery(sql, copies, id, address.trim());
    else await deliveryStore.addCopies(sql, id, copies);
    return id;
  }

  /** The delivery goes on under another Message-ID: some of its recipients have the message already. */
  async renew(sql: Sql, id: number, batchId: number, recordOrdinal: number, senderAddress: string): Promise<void> {
    const messageId = newMessageId(batchId, recordOrdinal, senderAddress);
    await deliveryStore.setMessageId(sql, messageId, id);
    await deliveryStore.addMessageId(sql, messageId, id);
  }
}

/** Copies that belong to a delivery. @param kind where it is known, one question less is asked */
export async function copiesOfDelivery(sql: Sql, id: number, kind?: 'copies' | 'reminder'): Promise<number[]> {
  if (kind === 'copies') {
    const own = await copyStore.ofDelivery(sql, id);
    return own.map((one) => one.id);
  }
  const rows = await copyStore.everIn(sql, id);
  return rows.map((one) => one.id);
}
