import { createHash } from 'node:crypto';
import type { MailReport, ReportedRecipient } from '@mailbag/core';
import { addressesIn, oneLine, readReport, troubleWords } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { changeCopies, markTrouble, noteCopies } from '../copies/copy-changes.js';
import { copiesOfDelivery } from '../delivery/envelopes.service.js';
import { LiveService } from '../live/live.service.js';
import { Transactions, changed } from '../persistence/transactions.js';
import { incomingMail } from './incoming-mail.js';

interface Found {
  id: number;
  batchId: number;
  address: string;
  kind: 'copies' | 'reminder';
}

const DAYS = 30;
const POSTMASTER = 'Incoming mail';

/** What the server that refused said, and what it means. */
function words({ address, code, said }: ReportedRecipient): string {
  const meaning = code && troubleWords(code.code);
  const kind = code?.lasting === 'soft' ? 'for now' : 'for good';
  return oneLine(
    `${said || (code ? `${code.code}` : 'It came back')}${meaning ? ` (${meaning}, ${kind})` : ` (${kind})`} · ${address}`,
  ).slice(0, 500);
}

/** Understands what comes to the bounce mailbox and leads it to its copies. Each message counts once, however often it comes. */
@Injectable()
export class BouncesService {
  constructor(
    private readonly transactions: Transactions,
    private readonly live: LiveService,
  ) {}

  /** @param way how it came in @returns what it was; `again`: it was here before */
  async take(raw: Buffer, way: 'imap' | 'smtp', envelopeTo: readonly string[] = []): Promise<MailReport['kind'] | 'again'> {
    const mail = await incomingMail(raw, envelopeTo);
    const report = readReport(mail);
    // The same report may come through both doors, with other trace headers in front.
    const identity = mail.headers['message-id'] ?? '';
    const digest = createHash('sha256')
      .update(identity || raw)
      .update(mail.status ?? mail.text)
      .digest('hex');
    const batchId = await this.transactions.run(async (manager) => {
      const delivery = await this.find(manager, report);
      const isNew = await changed(
        manager,
        'INSERT INTO incoming_report (digest, at, way, kind, sender, subject, said, deliveryId) VALUES (?, ?, ?, ?, ?, ?, ?, ?) ON CONFLICT DO NOTHING',
        [
          digest,
          new Date().toISOString(),
          way,
          report.kind,
          (mail.headers.from ?? '').slice(0, 300),
          (mail.headers.subject ?? '').slice(0, 300),
          report.recipients.map(words).join(' · ').slice(0, 1000) || null,
          delivery?.id ?? null,
        ],
      );
      if (isNew === 0) return 'again' as const;
      if (!delivery) return null;
      await this.apply(manager, delivery, report, mail.headers.subject ?? '');
      return delivery.batchId;
    });
    if (batchId === 'again') return 'again';
    if (batchId !== null) {
      this.live.tell('copies', batchId);
      this.live.tell('batch', batchId);
    }
    return report.kind;
  }

  private async find(manager: EntityManager, { token, messageIds, recipients, kind }: MailReport): Promise<Found | null> {
    const columns = 'delivery.id, delivery.batchId, delivery.address, delivery.kind';
    if (token !== null) {
      const [found] = (await manager.query(`SELECT ${columns} FROM delivery WHERE token = ?`, [token])) as Found[];
      if (found) return found;
    }
    if (messageIds.length > 0) {
      const [found] = (await manager.query(
        `SELECT ${columns} FROM delivery_message JOIN delivery ON delivery.id = delivery_message.deliveryId WHERE delivery_message.messageId IN (SELECT value FROM json_each(?)) LIMIT 1`,
        [JSON.stringify(messageIds)],
      )) as Found[];
      if (found) return found;
    }
    // Only by the address: the last message that went there lately, and only for a bounce.
    if (kind !== 'bounce') return null;
    for (const { address } of recipients) {
      const since = new Date(Date.now() - DAYS * 86_400_000).toISOString();
      const [found] = (await manager.query(
        `SELECT ${columns} FROM delivery WHERE address = ? COLLATE NOCASE AND state IN ('sent', 'unconfirmed') AND updatedAt > ? ORDER BY id DESC LIMIT 1`,
        [address, since],
      )) as Found[];
      if (found) return found;
    }
    return null;
  }

  private async apply(manager: EntityManager, delivery: Found, report: MailReport, subject: string): Promise<void> {
    const copies = await copiesOfDelivery(manager, delivery.id);
    const because = (said: string) => ({ who: POSTMASTER, said });
    if (report.kind === 'answer')
      return noteCopies(manager, copies, 'report', because(`An automatic answer came: ${oneLine(subject).slice(0, 200)}`));
    if (report.kind === 'delivered') return noteCopies(manager, copies, 'report', because('Their server says that it was delivered.'));
    const about = report.recipients.filter(({ action }) => action === (report.kind === 'bounce' ? 'failed' : 'delayed'));
    const said = about.map(words).join(' · ') || 'It came back';
    if (report.kind === 'delay') return noteCopies(manager, copies, 'delay', because(`Still on its way: ${said}`));
    if (report.kind !== 'bounce') return;
    const main = addressesIn(delivery.address, true).addresses.map(({ address }) => address.toLowerCase());
    const failed = about.map(({ address }) => address.toLowerCase());
    const [{ others }] = (await manager.query('SELECT accepted AS others FROM delivery WHERE id = ?', [delivery.id])) as [
      { others: string | null },
    ];
    const besides = ((others ? JSON.parse(others) : []) as string[]).map((one) => one.toLowerCase()).filter((one) => !main.includes(one));
    // It bounced when none of its recipients has it. An address that nobody wrote to is where the one recipient was led on to.
    const isWhole =
      main.length <= 1 ? !failed.every((address) => besides.includes(address)) : main.every((address) => failed.includes(address));
    const code = about[0]?.code ?? null;
    if (delivery.kind === 'reminder') return noteCopies(manager, copies, 'report', because(`The reminder bounced: ${said}`));
    if (!isWhole) return noteCopies(manager, copies, 'report', because(`Bounced for one of several: ${said}`));
    await manager.query(
      "UPDATE delivery SET state = 'bounced', said = ?, updatedAt = ? WHERE id = ? AND state IN ('sent', 'unconfirmed')",
      [said, new Date().toISOString(), delivery.id],
    );
    if ((await changeCopies(manager, copies, 'refuse', because(said))) > 0)
      await markTrouble(manager, copies, code?.trouble ?? 'their server', code?.code ?? null);
  }
}
