import { MailbagError, addressesIn, deliveryHeaders, returnPath } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { Injectable } from '@nestjs/common';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import { BounceSettings } from '../settings/bounce-settings.service.js';
import { Transactions } from '../persistence/transactions.js';
import type { Sender } from '../senders/senders.service.js';
import { SendersService } from '../senders/senders.service.js';
import { Grouped } from '../platform/grouped.js';
import { Pool, outputOf } from '../work/pool.js';
import type { LetterOfBatch, TaskResult } from '../work/tasks.js';
import { attachmentSize, extraAttachments, packetAttachments, travellingSize } from './attachments.js';
import { combinedCopies } from './combined-copies.js';
import type { OutgoingMessage } from './outgoing-message.js';
import { contentDigest } from './outgoing-message.js';
import type { Letter } from '../frozen/message-of.js';
import type { Claimed } from '../stores/delivery.store.js';
import { deliveryStore } from '../stores/delivery.store.js';
import { copyStore } from '../stores/copy.store.js';

/** RFC 5321, 4.5.3.1.8: at least 100 recipients must be taken. */
const MOST_RECIPIENTS = 100;

/** Puts the message of a delivery together. */
@Injectable()
export class OutgoingMessages {
  private readonly grouped: Grouped<LetterOfBatch, TaskResult<Letter>>;

  constructor(
    private readonly transactions: Transactions,
    private readonly batches: FrozenBatches,
    private readonly bounces: BounceSettings,
    private readonly senders: SendersService,
    private readonly pool: Pool,
  ) {
    this.grouped = new Grouped(
      (records) => this.pool.run('letters', records),
      async (record) => (await this.pool.run('letters', [record]))[0]!,
    );
  }

  /** As they are claimed together, so they are composed: a message alone costs as much on its way to a thread and back as in it. */
  private async composed(record: LetterOfBatch): Promise<Letter> {
    return outputOf(await this.grouped.submit(record));
  }

  /** @param limit most bytes of the whole message @throws MailbagError batch-file-gone, attachment-gone, mail-too-large, mail-address-refused, pattern-* */
  async of(
    delivery: Claimed,
    sender: Sender,
    server: { name: string; limit: number },
    which: 'sending' | 'as sent' = 'sending',
  ): Promise<OutgoingMessage> {
    const { context, mailing } = await this.batches.mailing(delivery.batchId);
    const isReminder = delivery.kind === 'reminder';
    const copies = await copyStore.filesOf(this.transactions, delivery.id, delivery.kind, which === 'sending');
    const { plan } = mailing;
    const letter = await this.composed({
      batchId: delivery.batchId,
      ordinal: delivery.recordOrdinal,
      code: copies[0]?.code ?? '',
      template: '',
      reminder: isReminder ? (plan.message.reminder ?? null) : null,
    });
    const { addresses, fault } = addressesIn(delivery.address, plan.message.several ?? false);
    if (fault !== null) throw new MailbagError('mail-address-refused', { address: delivery.address.slice(0, 200), why: fault });
    const had = new Set(
      delivery.accepted && which === 'sending' ? (JSON.parse(delivery.accepted) as string[]).map((one) => one.toLowerCase()) : [],
    );
    const fresh = <One extends { address: string }>(list: One[]): One[] => list.filter(({ address }) => !had.has(address.toLowerCase()));
    const to = fresh(addresses).map(({ name, address }) => ({
      name: name || (addresses.length === 1 ? (copies[0]?.recipient ?? '') : ''),
      address,
    }));
    const [copyTo, blindCopyTo] = [fresh(letter.copyTo), fresh(letter.blindCopyTo)];
    const count = to.length + copyTo.length + blindCopyTo.length;
    if (count > MOST_RECIPIENTS) throw new MailbagError('mail-too-many-recipients', { count, limit: MOST_RECIPIENTS });
    const hasFiles = !isReminder || (plan.message.reminder?.attach ?? false);
    const attachments = hasFiles
      ? [
          ...(await packetAttachments(copies, plan.message.attach ?? 'files', copies[0]?.recipient || plan.name, () =>
            combinedCopies(
              this.pool,
              copies.map((copy) => ({ ...copy, batchId: delivery.batchId, recordOrdinal: delivery.recordOrdinal })),
            ),
          )),
          ...(await extraAttachments(isReminder ? [] : (plan.message.extraFiles ?? []))),
        ]
      : [];
    const size = travellingSize(attachmentSize(attachments), letter.text.length + letter.html.length);
    if (size > server.limit && which === 'sending')
      throw new MailbagError('mail-too-large', {
        server: server.name,
        size: (size / 1048576).toFixed(1),
        limit: Math.floor(server.limit / 1048576),
      });
    const bounceAddress = await this.bounces.address();
    return {
      messageId: delivery.messageId,
      from: sender,
      returnPath: bounceAddress ? returnPath(bounceAddress, delivery.token) : sender.address,
      to,
      copyTo,
      blindCopyTo,
      subject: letter.subject,
      text: letter.text,
      html: letter.html,
      headers: deliveryHeaders({ list: plan.name, number: context.batch, from: sender.address, replyTo: sender.replyTo ?? '' }),
      attachments,
    };
  }

  /**
   * The message of a copy's delivery, as it went out or will.
   * @returns `isAsSent` whether its content is proved to be what went out; null: nothing has gone out, or it was not written down then
   * @throws MailbagError not-found and as `of`
   */
  async ofCopy(copyId: number): Promise<OutgoingMessage & { isAsSent: boolean | null }> {
    const delivery = await deliveryStore.sentWith(this.transactions, copyId);
    const sender = delivery && ((await this.senders.ready(delivery.senderId)) ?? (await this.senders.ready(null)));
    if (!delivery || !sender) throw new MailbagError('not-found', { what: t`message` });
    const message = await this.of(delivery, sender, { name: '', limit: 0 }, 'as sent');
    return { ...message, isAsSent: delivery.sentDigest === null ? null : (await contentDigest(message)) === delivery.sentDigest };
  }
}
