import type { MailReport, ReportedRecipient, Detail } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, addressesIn, oneLine, returnToken, troubleWords, remark, detailText } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { changeCopies, markTrouble, noteCopies } from '../copies/copy-changes.js';
import { copiesOfDelivery } from '../delivery/envelopes.service.js';
import type { IncomingMessage, MailTaker, TakenMail } from '../incoming/mail-door.js';
import { IncomingMail } from '../incoming/incoming-mail.service.js';
import { BounceSettings } from '../settings/bounce-settings.service.js';
import { LiveService } from '../live/live.service.js';
import type { Sql } from '../persistence/sql.js';
import { Transactions } from '../persistence/transactions.js';
import type { Reported } from '../stores/delivery.store.js';
import { deliveryStore } from '../stores/delivery.store.js';
import { reportStore } from '../stores/report.store.js';
import type { Principal } from '../platform/principal.js';
import { INCOMING_MAIL } from '../platform/principal.js';

interface Found extends Reported {
  /** How it was found: only the token shows that the report answers a message of ours. */
  by: 'token' | 'message' | 'address';
}
type Facts = Pick<MailReport, 'kind' | 'recipients'>;

const DAYS = 30;
/** What the server that refused answered, and what it means. */
function words({ address, code, diagnostic }: ReportedRecipient): string {
  const meaning = code && troubleWords(code.code);
  const kind = code?.lasting === 'soft' ? 'for now' : 'for good';
  return oneLine(
    `${diagnostic || (code ? `${code.code}` : 'It came back')}${meaning ? ` (${meaning}, ${kind})` : ` (${kind})`} · ${address}`,
  ).slice(0, 500);
}

/** Why a report that looks like a bounce is left to a person; null: it is not. RFC 5321, 4.5.5: reports have an empty return path. */
function doubtOf(report: MailReport, found: Found | null, returnPath: string | null): Detail | null {
  if (report.kind !== 'bounce' || !found) return null;
  if (found.by === 'address') return remark('report-by-address');
  if (found.by === 'message') return remark('report-by-message');
  return returnPath ? remark('report-return-path', { from: returnPath.slice(0, 100) }) : null;
}

/** Leads reports that come in to their copies. */
@Injectable()
export class BouncesService implements MailTaker {
  constructor(
    private readonly transactions: Transactions,
    private readonly live: LiveService,
    private readonly settings: BounceSettings,
    door: IncomingMail,
  ) {
    // What nobody else wants came to the bounce mailbox, and is listed there.
    door.register(this, true);
  }

  /** The bounce mailbox itself, and addresses that lead back to a delivery of ours. */
  async knows(address: string): Promise<boolean> {
    const own = await this.settings.address();
    if (own !== '' && address.toLowerCase() === own.toLowerCase()) return true;
    const token = returnToken(address);
    return token !== null && (await deliveryStore.byToken(this.transactions, token)).length > 0;
  }

  async take(sql: Sql, { digest, mail, way, from }: IncomingMessage): Promise<TakenMail> {
    const report: MailReport | null = mail && mail.report;
    const delivery = report && (await this.find(sql, report));
    const doubt = report && doubtOf(report, delivery, from ?? mail!.returnPath);
    const detail: Detail | null = report ? report.recipients.map(words).join(' · ').slice(0, 1000) || null : remark('report-unreadable');
    const isNew = await reportStore.add(sql, {
      digest,
      at: new Date().toISOString(),
      way,
      kind: report?.kind ?? 'unreadable',
      sender: oneLine(mail?.from ?? '').slice(0, 300),
      subject: oneLine(mail?.subject ?? '').slice(0, 300),
      detail,
      deliveryId: delivery?.id ?? null,
      doubt,
      facts: doubt && report ? JSON.stringify({ kind: report.kind, recipients: report.recipients } satisfies Facts) : null,
    });
    if (!isNew) return { kind: 'again' };
    if (delivery && report) {
      if (doubt) await this.note(sql, delivery, remark('report-doubted', { doubt: detailText(doubt) }));
      else await this.apply(sql, delivery, report, mail!.subject);
    }
    return { kind: report?.kind ?? 'unreadable', afterwards: () => this.tell(delivery?.batchId ?? null) };
  }

  private tell(batchId: number | null): void {
    if (batchId === null) return;
    this.live.notify('copies', batchId);
    this.live.notify('batch', batchId);
  }

  private async find(sql: Sql, { token, messageIds, recipients, kind }: MailReport): Promise<Found | null> {
    const first = async (by: Found['by'], wanted: Parameters<typeof deliveryStore.reportedOn>[1]): Promise<Found | null> => {
      const row = await deliveryStore.reportedOn(sql, wanted);
      return row ? { ...row, by } : null;
    };
    const byToken = token === null ? null : await first('token', { token });
    if (byToken) return byToken;
    const byMessage = messageIds.length === 0 ? null : await first('message', { messageIds });
    if (byMessage) return byMessage;
    // Only by the address: the last message that went there lately, and only for a bounce.
    if (kind !== 'bounce') return null;
    const since = new Date(Date.now() - DAYS * 86_400_000).toISOString();
    for (const { address } of recipients) {
      const found = await first('address', { address, since });
      if (found) return found;
    }
    return null;
  }

  private async note(sql: Sql, delivery: Pick<Found, 'id'>, detail: Detail): Promise<void> {
    await noteCopies(sql, await copiesOfDelivery(sql, delivery.id), 'report', { who: INCOMING_MAIL, detail });
  }

  private async apply(sql: Sql, delivery: Omit<Found, 'by'>, report: Facts, subject: string, who = INCOMING_MAIL): Promise<void> {
    const copies = await copiesOfDelivery(sql, delivery.id);
    const because = (detail: Detail) => ({ who, detail });
    if (report.kind === 'answer')
      return noteCopies(sql, copies, 'report', because(remark('answer-came', { subject: oneLine(subject).slice(0, 200) })));
    if (report.kind === 'delivered') return noteCopies(sql, copies, 'report', because(remark('delivered-there')));
    const about = report.recipients.filter(({ action }) => action === (report.kind === 'bounce' ? 'failed' : 'delayed'));
    const detail = about.map(words).join(' · ').slice(0, 2000) || 'It came back';
    if (report.kind === 'delay') return noteCopies(sql, copies, 'delay', because(remark('still-on-its-way', { answer: detail })));
    if (report.kind !== 'bounce') return;
    const main = addressesIn(delivery.address, true).addresses.map(({ address }) => address.toLowerCase());
    const failed = about.map(({ address }) => address.toLowerCase());
    const { others } = (await deliveryStore.accepted(sql, delivery.id))!;
    const besides = ((others ? JSON.parse(others) : []) as string[]).map((one) => one.toLowerCase()).filter((one) => !main.includes(one));
    // It bounced when none of its recipients has it. An address that nobody wrote to is where the one recipient was led on to.
    const isWhole =
      main.length <= 1 ? !failed.every((address) => besides.includes(address)) : main.every((address) => failed.includes(address));
    const code = about[0]?.code ?? null;
    if (delivery.kind === 'reminder') return noteCopies(sql, copies, 'report', because(remark('reminder-bounced', { answer: detail })));
    if (!isWhole) return noteCopies(sql, copies, 'report', because(remark('bounced-for-one', { answer: detail })));
    await deliveryStore.bounce(sql, detail, new Date().toISOString(), delivery.id);
    if ((await changeCopies(sql, copies, 'refuse', because(detail))) > 0)
      await markTrouble(sql, copies, code?.trouble ?? 'their server', code?.code ?? null);
  }

  /** A person's word about a report that could be anybody's. @throws MailbagError not-found */
  async settle(id: number, isBounce: boolean, who: Principal): Promise<void> {
    const batchId = await this.transactions.run(async (sql) => {
      const row = await reportStore.doubtful(sql, id);
      if (!row) throw new MailbagError('not-found', { what: t`open report` });
      await reportStore.settle(sql, isBounce ? 'bounced' : 'dismissed', id);
      const delivery = await deliveryStore.addressed(sql, row.deliveryId);
      if (!delivery) return null;
      if (isBounce) await this.apply(sql, delivery, JSON.parse(row.facts) as Facts, row.subject, who);
      else await noteCopies(sql, await copiesOfDelivery(sql, delivery.id), 'report', { who, detail: remark('no-bounce') });
      return delivery.batchId;
    });
    this.tell(batchId);
  }
}
