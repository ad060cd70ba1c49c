import { randomBytes } from 'node:crypto';
import type { MailingPlan, MessageSample } from '@mailbag/contract';
import type { SourceRecord } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, addressesIn, copyCode, deliveryHeaders, recordKeys, detailText } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { FrozenBatches } from '../frozen/frozen-batches.js';
import type { FrozenMailing } from '../frozen/frozen-mailing.js';
import type { ReplacedCopy } from '../frozen/message-of.js';
import { asSent, attachmentSize, extraAttachments, travellingSize } from '../delivery/attachments.js';
import { MailTransport } from '../delivery/mail-transport.js';
import type { OutgoingMessage } from '../delivery/outgoing-message.js';
import { rawMessage } from '../delivery/outgoing-message.js';
import { Transactions } from '../persistence/transactions.js';
import { copyStore } from '../stores/copy.store.js';
import { SendersService } from '../senders/senders.service.js';
import { SourcesService } from '../sources/sources.service.js';
import { Pool } from '../work/pool.js';
import { sealedPlan } from '../frozen/plan-passwords.js';
import { MailingsService } from './mailings.service.js';

/** What a person may change before it is saved. */
type Draft = Pick<MailingPlan, 'message' | 'output'>;

interface Made {
  message: OutgoingMessage;
  fault: string | null;
  openPassword: string;
  limit: number;
  size: number;
}

/** The message of a mailing for one record, made as a batch would make it. */
@Injectable()
export class MessageSamples {
  constructor(
    private readonly mailings: MailingsService,
    private readonly sources: SourcesService,
    private readonly senders: SendersService,
    private readonly pool: Pool,
    private readonly batches: FrozenBatches,
    private readonly transactions: Transactions,
  ) {}

  /** @throws MailbagError mailing-no-template, mailing-no-records, pattern-*, attachment-gone, sender-not-confirmed */
  private async make(id: number, index: number, draft: Draft | null): Promise<Made> {
    const mailing = await this.mailings.entity(id);
    const subject = await this.mailings.frozen(
      draft ? { ...mailing, plan: { ...mailing.plan, ...sealedPlan(draft, mailing.plan) } } : mailing,
    );
    if (!subject)
      throw new MailbagError(mailing.plan.packet.length === 0 ? 'mailing-no-template' : 'mailing-no-records', { mailing: mailing.name });
    const { frozen } = subject;
    const { records } = await this.sources.records(subject.sourceId, index, 1);
    const record = records[0];
    if (!record) throw new MailbagError('not-found', { what: t`record` });
    return this.compose(id, frozen, record, index);
  }

  /** The copy of a record that another one would come in the place of. */
  private async replacedBy(id: number, { columns, plan }: FrozenMailing, record: SourceRecord): Promise<ReplacedCopy | null> {
    const key = recordKeys(columns, plan.keyColumn ?? null)(record);
    const last = key === '' ? undefined : await copyStore.lastOfRecord(this.transactions, id, key);
    return last ? { code: last.code, on: last.on } : null;
  }

  private async compose(
    id: number,
    frozen: FrozenMailing,
    record: SourceRecord,
    index: number,
    pictures: Record<string, Uint8Array> = {},
  ): Promise<Made> {
    const { plan, columns, templates } = frozen;
    const batch = await this.batches.next();
    const codes = templates.map(() => copyCode(new Uint8Array(randomBytes(10))));
    const cell = record.cells[columns.findIndex(({ name }) => name === plan.message.addressColumn)]?.text ?? '';
    const { addresses, fault } = addressesIn(cell, plan.message.several ?? false);
    const sender = (await this.senders.ready(plan.message.senderId ?? null)) ?? (await this.senders.ready(null));
    if (!sender) throw new MailbagError('sender-not-confirmed', { mailing: plan.name });
    const server = (await this.senders.sendingServers()).find((one) => one.id === sender.serverId)!;
    const { copies, letter, openPassword } = await this.pool.run('sample', {
      mailing: frozen,
      record,
      ordinal: index,
      batch,
      codes,
      replaces: await this.replacedBy(id, frozen, record),
      pictures,
    });
    const files = copies.map(({ name, bytes }) => ({ name, content: Buffer.from(bytes) }));
    const way = plan.message.attach ?? 'files';
    const name = this.recipientOf(plan, letter.subject, addresses[0]?.name ?? '');
    // The combined file of a sample is its first copy: how large it gets is told by the sum.
    const attachments = [
      ...(await asSent(files, way === 'combined' ? 'files' : way, name, () => Promise.resolve(Buffer.alloc(0)))),
      ...(await extraAttachments(plan.message.extraFiles ?? [])),
    ];
    const size = travellingSize(attachmentSize(attachments), letter.text.length + letter.html.length);
    return {
      message: {
        messageId: `<sample.${randomBytes(6).toString('hex')}@${sender.address.split('@')[1]}>`,
        from: sender,
        returnPath: sender.address,
        to: addresses,
        copyTo: letter.copyTo,
        blindCopyTo: letter.blindCopyTo,
        subject: letter.subject,
        text: letter.text,
        html: letter.html,
        headers: deliveryHeaders({ list: plan.name, number: 0, from: sender.address, replyTo: sender.replyTo ?? '' }),
        attachments,
      },
      fault:
        cell.trim() === ''
          ? 'This record has no address: its copies are made and kept, and wait for paper.'
          : fault && `This record is held back: ${fault}.`,
      openPassword,
      limit: server.limit,
      size,
    };
  }

  private recipientOf(plan: MailingPlan, subject: string, name: string): string {
    return name || plan.name || subject;
  }

  async sample(id: number, index: number, draft: Draft | null, seesPasswords: boolean): Promise<MessageSample> {
    const { message, fault, openPassword, limit, size } = await this.make(id, index, draft);
    const named = ({ name, address }: { name: string; address: string }): string => (name ? `${name} <${address}>` : address);
    return {
      from: named(message.from),
      to: message.to.map(named),
      copyTo: message.copyTo.map(named),
      blindCopyTo: message.blindCopyTo.map(named),
      subject: message.subject,
      html: message.html,
      text: message.text,
      attachments: message.attachments.map((one) => ({ name: one.filename, size: attachmentSize([one]) })),
      size,
      limit,
      openPassword: seesPasswords && openPassword !== '' ? openPassword : null,
      fault,
    };
  }

  /** The whole message as it would travel. */
  async raw(id: number, index: number): Promise<Buffer> {
    const { message } = await this.make(id, index, null);
    return rawMessage(message.to.length > 0 ? message : { ...message, to: [{ name: '', address: message.from.address }] });
  }

  /** Sends the message of one record to the person who asks, and to nobody else. @throws MailbagError mail-not-handed, mail-too-large */
  async test(id: number, index: number, address: string): Promise<string> {
    return this.send(await this.make(id, index, null), address, 'Test');
  }

  /** Sends the message of a record of a trial to the person who asks. @param pictures those that it names and that are kept nowhere @throws MailbagError as `test` */
  async testOf(
    id: number,
    frozen: FrozenMailing,
    record: SourceRecord,
    index: number,
    address: string,
    pictures: Record<string, Uint8Array>,
  ): Promise<string> {
    return this.send(await this.compose(id, frozen, record, index, pictures), address, 'Trial');
  }

  private async send({ message, size, limit }: Made, address: string, what: 'Test' | 'Trial'): Promise<string> {
    const server = (await this.senders.sendingServers()).find((one) => one.id === message.from.serverId)!;
    if (size > limit)
      throw new MailbagError('mail-too-large', {
        server: server.name,
        size: (size / 1048576).toFixed(1),
        limit: Math.floor(limit / 1048576),
      });
    const transport = new MailTransport(server);
    try {
      const outcome = await transport.send(
        { ...message, to: [{ name: '', address }], copyTo: [], blindCopyTo: [], subject: `${what}: ${message.subject}` },
        () => Promise.resolve(),
      );
      if (outcome.kind !== 'accepted') throw new MailbagError('mail-not-handed', { answer: detailText(outcome.detail) });
      return detailText(outcome.detail);
    } finally {
      transport.close();
    }
  }
}
