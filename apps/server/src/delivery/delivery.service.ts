import { randomBytes } from 'node:crypto';
import { existsSync } from 'node:fs';
import type { Pattern } from './message-of.js';
import { addressFault, MOST_TRIES, MailbagError, retryDelay } from '@mailbag/core';
import type { BeforeApplicationShutdown, OnApplicationBootstrap } from '@nestjs/common';
import { Injectable, Logger } from '@nestjs/common';
import type { EntityManager } from 'typeorm';
import { FrozenBatches } from '../batches/frozen-batches.js';
import { changeCopies, changeCopy } from '../copies/copy-changes.js';
import { LiveService } from '../live/live.service.js';
import { Transactions, changed } from '../persistence/transactions.js';
import { config, dataPath } from '../platform/config.js';
import { SettingsService } from '../settings/settings.service.js';
import { messageOf } from './message-of.js';
import type { Outcome } from './transport.js';
import { MailTransport } from './transport.js';

interface DeliveryRow {
  id: number;
  batchId: number;
  recordOrdinal: number;
  address: string;
  messageId: string;
  attempts: number;
}

const MAILBAG = 'Mailbag';
/** Milliseconds between looks for deliveries that are due. */
const LOOK = 400;

/**
 * Sends deliveries. Each is claimed in the database before anything leaves this machine, so that two claims never meet
 * and a stop of the server leaves "sending" behind, which becomes "unconfirmed" for a person to settle.
 */
@Injectable()
export class DeliveryService implements OnApplicationBootstrap, BeforeApplicationShutdown {
  private readonly logger = new Logger('delivery');
  private transport: MailTransport | null = null;
  private underWay = 0;
  private stopping = false;
  private timer: NodeJS.Timeout | null = null;
  private looking: Promise<void> | null = null;
  private readonly patterns = new Map<number, Pattern>();

  constructor(
    private readonly transactions: Transactions,
    private readonly batches: FrozenBatches,
    private readonly settings: SettingsService,
    private readonly live: LiveService,
  ) {}

  async onApplicationBootstrap(): Promise<void> {
    await this.transactions.run(async (manager) => {
      const rows = (await manager.query("SELECT id FROM delivery WHERE state = 'sending'")) as { id: number }[];
      for (const { id } of rows) {
        await this.settle(manager, id, 'unconfirmed', 'The server stopped while this was being handed over.');
        await changeCopies(manager, await this.copiesOf(manager, id), 'lose', {
          who: MAILBAG,
          said: 'The server stopped while this was being handed over. Nobody knows whether it arrived.',
        });
      }
    });
    this.settings.mailChanged.subscribe(() => {
      this.transport?.close();
      this.transport = null;
      this.wake();
    });
    this.wake();
  }

  async beforeApplicationShutdown(): Promise<void> {
    this.stopping = true;
    if (this.timer) clearTimeout(this.timer);
    const until = Date.now() + 8000;
    while (this.underWay > 0 && Date.now() < until) await new Promise((done) => setTimeout(done, 50));
    this.transport?.close();
  }

  /** Looks for work now. */
  wake(): void {
    if (this.stopping) return;
    if (this.timer) clearTimeout(this.timer);
    this.timer = setTimeout(() => this.wake(), LOOK);
    this.looking ??= this.look()
      .catch((error: unknown) => this.logger.error(error))
      .finally(() => (this.looking = null));
  }

  private async look(): Promise<void> {
    while (!this.stopping && this.underWay < config.mailConnections) {
      const transport = await this.readyTransport();
      if (!transport) return;
      const due = await this.transactions.read<{ id: number }>(
        "SELECT id FROM delivery WHERE state IN ('queued', 'retrying') AND held = 0 AND nextTryAt <= ? ORDER BY nextTryAt, id LIMIT ?",
        [new Date().toISOString(), config.mailConnections - this.underWay],
      );
      if (due.length === 0) return;
      for (const { id } of due) {
        const delivery = await this.claim(id);
        if (!delivery) continue;
        this.underWay++;
        void this.deliver(transport, delivery)
          .catch((error: unknown) => this.logger.error(error))
          .finally(() => {
            this.underWay--;
            this.wake();
          });
      }
    }
  }

  private async readyTransport(): Promise<MailTransport | null> {
    if (!this.transport) {
      const settings = await this.settings.mail();
      if (settings) this.transport = new MailTransport(settings);
    }
    return this.transport;
  }

  private async copiesOf(manager: EntityManager, deliveryId: number): Promise<number[]> {
    const rows = (await manager.query('SELECT id FROM copy WHERE deliveryId = ? ORDER BY position', [deliveryId])) as { id: number }[];
    return rows.map(({ id }) => id);
  }

  private settle(manager: EntityManager, id: number, state: string, said: string, nextTryAt?: string): Promise<number> {
    return changed(
      manager,
      `UPDATE delivery SET state = ?, said = ?, updatedAt = ?${nextTryAt ? ', nextTryAt = ?' : ''} WHERE id = ? AND state = 'sending'`,
      [state, said, new Date().toISOString(), ...(nextTryAt ? [nextTryAt] : []), id],
    );
  }

  private claim(id: number): Promise<DeliveryRow | null> {
    return this.transactions.run(async (manager) => {
      const now = new Date().toISOString();
      const won = await changed(
        manager,
        "UPDATE delivery SET state = 'sending', attempts = attempts + 1, updatedAt = ? WHERE id = ? AND state IN ('queued', 'retrying') AND held = 0",
        [now, id],
      );
      if (won !== 1) return null;
      const copies = await this.copiesOf(manager, id);
      await changeCopies(manager, copies, 'queue', { who: MAILBAG, said: 'Due again' });
      const claimed = await changeCopies(manager, copies, 'claim', { who: MAILBAG });
      const [row] = (await manager.query('SELECT id, batchId, recordOrdinal, address, messageId, attempts FROM delivery WHERE id = ?', [
        id,
      ])) as DeliveryRow[];
      // All copies of it were withdrawn in the meantime: there is nothing to send.
      if (claimed === 0) {
        await this.settle(manager, id, 'withdrawn', 'Withdrawn before it was sent');
        return null;
      }
      return row ?? null;
    });
  }

  private async deliver(transport: MailTransport, delivery: DeliveryRow): Promise<void> {
    let outcome: Outcome;
    try {
      outcome = await this.attempt(transport, delivery);
    } catch (error) {
      this.logger.error(error);
      outcome = { kind: 'refused', said: error instanceof Error ? error.message : String(error) };
    }
    await this.transactions.run((manager) => this.record(manager, delivery, outcome));
    this.live.tell('copies', delivery.batchId);
    this.live.tell('batch', delivery.batchId);
  }

  /** Puts the message together and hands it over. */
  private async attempt(transport: MailTransport, delivery: DeliveryRow): Promise<Outcome> {
    const { number, mailing } = await this.batches.mailing(delivery.batchId);
    const record = await this.batches.record(delivery.batchId, delivery.recordOrdinal);
    const copies = await this.transactions.read<{ code: string; path: string; recipient: string; templateName: string }>(
      "SELECT code, path, recipient, templateName FROM copy WHERE deliveryId = ? AND state = 'sending' ORDER BY position",
      [delivery.id],
    );
    const gone = copies.find(({ path }) => !existsSync(dataPath('archive', path)));
    if (gone) return { kind: 'refused', said: new MailbagError('batch-file-gone', { path: gone.path }).message };
    let pattern = this.patterns.get(delivery.batchId);
    if (!pattern) this.patterns.set(delivery.batchId, (pattern = messageOf(mailing, number)));
    const rendered = pattern(record, delivery.recordOrdinal, copies[0]?.code ?? '');
    return transport.send({
      messageId: delivery.messageId,
      to: { name: copies[0]?.recipient ?? '', address: delivery.address },
      ...rendered,
      attachments: copies.map(({ path }) => ({
        filename: path.split('/').at(-1)!,
        path: dataPath('archive', path),
        contentType: 'application/pdf',
      })),
    });
  }

  private async record(manager: EntityManager, delivery: DeliveryRow, { kind, said }: Outcome): Promise<void> {
    const copies = await this.copiesOf(manager, delivery.id);
    const because = { who: MAILBAG, said };
    if (kind === 'accepted') {
      await this.settle(manager, delivery.id, 'sent', said);
      await changeCopies(manager, copies, 'accept', because);
    } else if (kind === 'unknown') {
      await this.settle(manager, delivery.id, 'unconfirmed', said);
      await changeCopies(manager, copies, 'lose', because);
    } else if (kind === 'refused' || delivery.attempts >= MOST_TRIES) {
      await this.settle(manager, delivery.id, 'bounced', said);
      await changeCopies(manager, copies, 'refuse', {
        ...because,
        said: kind === 'refused' ? said : `Given up after ${delivery.attempts} tries: ${said}`,
      });
    } else {
      const next = new Date(Date.now() + retryDelay(delivery.attempts, config.retryPace)).toISOString();
      await this.settle(manager, delivery.id, 'retrying', said, next);
      await changeCopies(manager, copies, 'defer', because);
    }
  }

  /** Makes a delivery for the copies of one record and queues them. Nothing is queued when the address cannot be mailed to. */
  async queue(
    manager: EntityManager,
    {
      batchId,
      recordOrdinal,
      address,
      copies,
      who,
      held,
    }: { batchId: number; recordOrdinal: number; address: string; copies: number[]; who: string; held: boolean },
  ): Promise<void> {
    if (addressFault(address) !== null) return;
    await this.newDelivery(manager, { batchId, recordOrdinal, address: address.trim(), copies, held });
    await changeCopies(manager, copies, 'queue', { who });
  }

  private async newDelivery(
    manager: EntityManager,
    {
      batchId,
      recordOrdinal,
      address,
      copies,
      held,
    }: { batchId: number; recordOrdinal: number; address: string; copies: number[]; held: boolean },
  ): Promise<void> {
    const domain = (await this.settings.mail())?.senderAddress.split('@').at(-1) ?? 'mailbag.invalid';
    const now = new Date().toISOString();
    const messageId = `<${batchId}.${recordOrdinal}.${randomBytes(9).toString('hex')}@${domain}>`;
    const rows = (await manager.query(
      "INSERT INTO delivery (batchId, recordOrdinal, address, messageId, state, held, attempts, nextTryAt, said, createdAt, updatedAt) VALUES (?, ?, ?, ?, 'queued', ?, 0, ?, NULL, ?, ?) RETURNING id",
      [batchId, recordOrdinal, address, messageId, held ? 1 : 0, now, now, now],
    )) as { id: number }[];
    await manager.query(`UPDATE copy SET deliveryId = ?, address = ? WHERE id IN (${copies.map(() => '?').join(',')})`, [
      rows[0]!.id,
      address,
      ...copies,
    ]);
  }

  /**
   * Sends what belongs to a copy's delivery again, to the address given, as a new message.
   * @throws MailbagError mail-address-refused, copy-law, not-found
   */
  async sendAgain(copyId: number, address: string, who: string): Promise<void> {
    const why = addressFault(address);
    if (why) throw new MailbagError('mail-address-refused', { address, why });
    const batchId = await this.transactions.run(async (manager) => {
      const [copy] = (await manager.query('SELECT batchId, recordOrdinal, deliveryId, address, state FROM copy WHERE id = ?', [
        copyId,
      ])) as { batchId: number; recordOrdinal: number; deliveryId: number | null; address: string; state: string }[];
      if (!copy) throw new MailbagError('not-found', { what: 'copy' });
      const siblings = copy.deliveryId === null ? [copyId] : await this.copiesOf(manager, copy.deliveryId);
      const together = (await manager.query(`SELECT id FROM copy WHERE id IN (${siblings.join(',')}) AND state = ?`, [copy.state])) as {
        id: number;
      }[];
      const said = copy.address && copy.address !== address.trim() ? `Address corrected from ${copy.address} to ${address.trim()}` : null;
      await changeCopy(manager, copyId, 'send-again', { who, said });
      const others = together.map(({ id }) => id).filter((id) => id !== copyId);
      await changeCopies(manager, others, 'send-again', { who, said });
      await this.newDelivery(manager, {
        batchId: copy.batchId,
        recordOrdinal: copy.recordOrdinal,
        address: address.trim(),
        copies: [copyId, ...others],
        held: false,
      });
      return copy.batchId;
    });
    this.tell(batchId);
    this.wake();
  }

  /** A person's word that an unconfirmed delivery did arrive. @throws MailbagError copy-law, not-found */
  async confirmSent(copyId: number, who: string): Promise<void> {
    const batchId = await this.transactions.run(async (manager) => {
      await changeCopy(manager, copyId, 'confirm-sent', { who, said: 'Confirmed by hand' });
      const [copy] = (await manager.query('SELECT batchId, deliveryId FROM copy WHERE id = ?', [copyId])) as {
        batchId: number;
        deliveryId: number;
      }[];
      await changeCopies(manager, await this.copiesOf(manager, copy!.deliveryId), 'confirm-sent', { who, said: 'Confirmed by hand' });
      await manager.query("UPDATE delivery SET state = 'sent', updatedAt = ? WHERE id = ? AND state = 'unconfirmed'", [
        new Date().toISOString(),
        copy!.deliveryId,
      ]);
      return copy!.batchId;
    });
    this.tell(batchId);
  }

  /** @throws MailbagError copy-law, not-found */
  async withdraw(copyId: number, who: string): Promise<void> {
    const batchId = await this.transactions.run(async (manager) => {
      await changeCopy(manager, copyId, 'withdraw', { who });
      const [copy] = (await manager.query('SELECT batchId FROM copy WHERE id = ?', [copyId])) as { batchId: number }[];
      return copy!.batchId;
    });
    this.tell(batchId);
  }

  private tell(batchId: number): void {
    this.live.tell('copies', batchId);
    this.live.tell('batch', batchId);
  }

  /** Holds the deliveries of a batch back, or lets them go on. */
  async hold(manager: EntityManager, batchId: number, held: boolean): Promise<void> {
    await manager.query("UPDATE delivery SET held = ? WHERE batchId = ? AND state IN ('queued', 'retrying')", [held ? 1 : 0, batchId]);
  }

  /** Takes back what has not gone out yet. */
  async cancel(manager: EntityManager, batchId: number): Promise<void> {
    await manager.query("UPDATE delivery SET state = 'withdrawn', updatedAt = ? WHERE batchId = ? AND state IN ('queued', 'retrying')", [
      new Date().toISOString(),
      batchId,
    ]);
  }

  /** Deliveries of a batch that still move by themselves. */
  async open(batchId: number): Promise<number> {
    const [row] = await this.transactions.read<{ count: number }>(
      "SELECT COUNT(*) AS count FROM delivery WHERE batchId = ? AND state IN ('queued', 'sending', 'retrying')",
      [batchId],
    );
    return row?.count ?? 0;
  }
}
