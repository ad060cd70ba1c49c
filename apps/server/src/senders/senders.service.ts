import { createPrivateKey } from 'node:crypto';
import type { MailServerAnswer, MailServerRequest, MailTestAnswer, SenderAnswer, SenderRequest } from '@mailbag/contract';
import type { RateLimits, SendWindow, Detail } from '@mailbag/core';
import { t } from '@mailbag/core/words';
import { MailbagError, retryDelay, parseDetail } from '@mailbag/core';
import { Injectable } from '@nestjs/common';
import { InjectRepository } from '@nestjs/typeorm';
import nodemailer from 'nodemailer';
import { Subject } from 'rxjs';
import { Repository } from 'typeorm';
import { History } from '../history/history.service.js';
import type { Sql } from '../persistence/sql.js';
import { Transactions } from '../persistence/transactions.js';
import { config } from '../platform/config.js';
import { sealedFor, targetOf } from '../platform/stored-secret.js';
import { seal, unseal } from '../platform/secret-box.js';
import { assertTarget } from '../platform/targets.js';
import type { OutgoingServer } from './outgoing-server.js';
import { connectionOptions } from './outgoing-server.js';
import { MailServerEntity, SenderEntity } from './senders.entity.js';
import { testMailServer } from './test-server.js';
import { mailServerStore } from '../stores/mail-server.store.js';
import { senderStore } from '../stores/sender.store.js';
import type { SingleMessage, SingleOutcome } from './single-message.js';
import { sendSingle } from './single-message.js';

/** Times that a code may be typed wrong. */
export const CODE_TRIES = 5;

/** A mail server as deliveries use it. */
export interface SendingServer extends OutgoingServer {
  id: number;
  name: string;
  limits: RateLimits;
  connections: number;
  /** Bytes. */
  limit: number;
  hours: SendWindow | null;
  restUntil: string | null;
}

/** Who a message comes from. */
export interface Sender {
  id: number;
  serverId: number;
  name: string;
  address: string;
  replyTo: string | null;
  dkim: { domainName: string; keySelector: string; privateKey: string } | null;
}

const thereOf = ({ host, port, security, checkCertificate }: MailServerEntity) => ({
  host,
  port,
  security,
  checkCertificate: checkCertificate === 1,
});
const placeOf = ({
  host,
  port,
  security,
  checkCertificate,
}: Pick<OutgoingServer, 'host' | 'port' | 'security' | 'checkCertificate'>): string =>
  `${host}:${port} (${security === 'none' ? 'secured where offered' : security.toUpperCase()}${checkCertificate ? '' : ', any certificate'})`;

@Injectable()
export class SendersService {
  /** Tells that servers or senders changed. */
  readonly changed = new Subject<void>();
  private readonly cache = new Map<number | 'first', Sender>();

  constructor(
    @InjectRepository(MailServerEntity) private readonly servers: Repository<MailServerEntity>,
    @InjectRepository(SenderEntity) private readonly senders: Repository<SenderEntity>,
    private readonly transactions: Transactions,
    private readonly history: History,
  ) {
    this.changed.subscribe(() => this.cache.clear());
  }

  private async server(id: number): Promise<MailServerEntity> {
    const found = await this.servers.findOneBy({ id });
    if (!found) throw new MailbagError('not-found', { what: t`mail server` });
    return found;
  }
  private async entity(id: number): Promise<SenderEntity> {
    const found = await this.senders.findOneBy({ id });
    if (!found) throw new MailbagError('not-found', { what: t`sender` });
    return found;
  }

  async sendingServers(): Promise<SendingServer[]> {
    return (await this.servers.find()).map((one) => ({
      ...this.reach(one),
      id: one.id,
      name: one.name,
      limits: { perMinute: one.perMinute, perHour: one.perHour, perDomainMinute: one.perDomainMinute },
      connections: one.connections,
      limit: one.limitMb * 1024 * 1024,
      hours: one.hours,
      restUntil: one.restUntil,
    }));
  }

  private reach(one: MailServerEntity): OutgoingServer {
    return { ...thereOf(one), user: one.user, password: one.sealed ? unseal(one.sealed) : '' };
  }

  /** A confirmed sender; null: the mailing's choice is gone or not confirmed, or there is none. @param id null: the first confirmed one */
  async ready(id: number | null): Promise<Sender | null> {
    const known = this.cache.get(id ?? 'first');
    if (known) return known;
    const all = await this.senders.find({ order: { id: 'ASC' } });
    const one = all.find((sender) => sender.confirmedAt !== null && (id === null || sender.id === id));
    if (!one) return null;
    const { dkimDomain, dkimSelector, dkimSealed } = one;
    const isSigned = dkimDomain !== '' && dkimSelector !== '' && dkimSealed !== '';
    const sender: Sender = {
      id: one.id,
      serverId: one.serverId,
      name: one.name,
      address: one.address,
      replyTo: one.replyTo,
      dkim: isSigned ? { domainName: dkimDomain, keySelector: dkimSelector, privateKey: unseal(dkimSealed) } : null,
    };
    this.cache.set(id ?? 'first', sender);
    return sender;
  }

  /** The server itself failed: nothing is tried through it for a while that grows. */
  async rest(serverId: number, detail: Detail): Promise<string> {
    return this.transactions.run(async (manager) => {
      const row = await mailServerStore.restCount(manager, serverId);
      const count = (row?.restCount ?? 0) + 1;
      const until = new Date(Date.now() + retryDelay(count, config.retryPace)).toISOString();
      await mailServerStore.rest(manager, until, detail, count, serverId);
      return until;
    });
  }

  /** Rests that lie further ahead than any does, since the clock was set back. @param latest no rest that counts ends later */
  restsBroughtBack(sql: Sql, now: string, latest: string): Promise<void> {
    return mailServerStore.bringRestBack(sql, now, latest);
  }

  async restOver(serverId: number): Promise<void> {
    await this.transactions.run((manager) => mailServerStore.endRest(manager, serverId));
  }

  async serverAnswers(): Promise<MailServerAnswer[]> {
    const counts = await senderStore.countByServer(this.transactions);
    return (await this.servers.find({ order: { id: 'ASC' } })).map(
      ({ sealed, checkCertificate, restUntil, restDetail, restCount: _, createdAt: __, deletedAt: ___, ...one }) => ({
        ...one,
        checkCertificate: checkCertificate === 1,
        hasPassword: sealed !== '',
        senders: counts.find(({ serverId }) => serverId === one.id)?.count ?? 0,
        rest: restUntil ? { until: restUntil, detail: parseDetail(restDetail ?? '') } : null,
      }),
    );
  }

  /** The password of a request, sealed. @throws MailbagError secret-asked-again */
  private sealedOf({ password, ...there }: MailServerRequest, before: MailServerEntity | null): string {
    const stored = before && { sealed: before.sealed, target: targetOf(placeOf(thereOf(before))) };
    return sealedFor(password, stored, targetOf(placeOf({ ...there, host: there.host.trim() })), there.host);
  }

  /** @throws MailbagError secret-asked-again, target-local, not-found */
  async saveServer(id: number | null, given: MailServerRequest): Promise<MailServerAnswer[]> {
    const { password: _, checkCertificate, ...request } = given;
    const before = id === null ? null : await this.server(id);
    await assertTarget(request.host.trim(), request.port);
    const sealed = this.sealedOf(given, before);
    const [from, to] = [before && placeOf(thereOf(before)), placeOf({ ...given, host: given.host.trim() })];
    const values = { ...request, name: request.name.trim(), host: request.host.trim(), sealed, checkCertificate: checkCertificate ? 1 : 0 };
    const row = { ...values, hours: values.hours ? JSON.stringify(values.hours) : null };
    await this.transactions.run((manager) =>
      before ? mailServerStore.set(manager, before.id, row) : mailServerStore.add(manager, row, new Date().toISOString()),
    );
    if (from && from !== to) await this.history.note(t`pointed a mail server elsewhere`, values.name, `${from} → ${to}`);
    this.changed.next();
    return this.serverAnswers();
  }

  /** Tries settings that need not be kept yet. @param id whose kept password is taken where none is given @throws MailbagError secret-asked-again, target-local */
  async test(id: number | null, request: MailServerRequest): Promise<MailTestAnswer> {
    const before = id === null ? null : await this.server(id);
    const { port, security, checkCertificate, user } = request;
    const there = { host: request.host.trim(), port, security, checkCertificate };
    await assertTarget(there.host, port);
    const sealed = this.sealedOf(request, before);
    const answer = await testMailServer({ ...there, user, password: sealed ? unseal(sealed) : '' });
    if (answer.ok && before && placeOf(thereOf(before)) === placeOf(there)) {
      await this.restOver(before.id);
      this.changed.next();
    }
    return answer;
  }

  async senderAnswers(): Promise<SenderAnswer[]> {
    const servers = await this.servers.find();
    const now = new Date().toISOString();
    return (await this.senders.find({ order: { id: 'ASC' } })).map((one) => ({
      id: one.id,
      serverId: one.serverId,
      serverName: servers.find(({ id }) => id === one.serverId)?.name ?? '',
      name: one.name,
      address: one.address,
      replyTo: one.replyTo,
      dkimDomain: one.dkimDomain,
      dkimSelector: one.dkimSelector,
      hasDkimKey: one.dkimSealed !== '',
      confirmed: one.confirmedAt !== null,
      code: one.codeHash && one.codeUntil && one.codeUntil > now ? { until: one.codeUntil, triesLeft: CODE_TRIES - one.codeTries } : null,
    }));
  }

  /** Keeps a sender. Another address must be confirmed anew. @throws MailbagError sender-key-unreadable, sender-exists, not-found */
  async saveSender(id: number | null, request: SenderRequest): Promise<SenderAnswer[]> {
    const before = id === null ? null : await this.entity(id);
    await this.server(request.serverId);
    const address = request.address.trim();
    const same = await this.senders.findOneBy({ address });
    if (same && same.id !== before?.id) throw new MailbagError('sender-exists', { address });
    let dkimSealed = before?.dkimSealed ?? '';
    if (request.dkimKey !== undefined) {
      const pem = request.dkimKey.trim();
      if (pem !== '') {
        try {
          createPrivateKey(pem);
        } catch (cause) {
          throw new MailbagError('sender-key-unreadable', { address }, { cause });
        }
      }
      dkimSealed = pem === '' ? '' : seal(pem);
    }
    const isSame = before?.address.toLowerCase() === address.toLowerCase() && before.serverId === request.serverId;
    const values = {
      serverId: request.serverId,
      name: request.name.trim(),
      address,
      replyTo: request.replyTo?.trim() || null,
      dkimDomain: request.dkimDomain ?? '',
      dkimSelector: request.dkimSelector ?? '',
      dkimSealed,
    };
    await this.transactions.run((manager) =>
      before ? senderStore.set(manager, before.id, values, isSame) : senderStore.add(manager, values, new Date().toISOString()),
    );
    this.changed.next();
    return this.senderAnswers();
  }

  /** Mails a single message from the first confirmed sender, at once. @returns why it could not be; null: it was */
  async mailOne(to: string | string[], message: SingleMessage): Promise<string | null> {
    return (await this.mailSingle(to, message)).failure;
  }

  /** As `mailOne`, for what must not go out twice. */
  async mailSingle(to: string | string[], message: SingleMessage): Promise<SingleOutcome> {
    const sender = await this.ready(null);
    if (!sender) return { kind: 'not-sent', failure: 'no sender is confirmed yet' };
    return sendSingle((await this.connected(sender.id)).transporter, sender, to, message);
  }

  /** A sender with a connection to its server, which whoever asks for it closes. @throws MailbagError not-found */
  async connected(id: number): Promise<{ sender: SenderEntity; transporter: ReturnType<typeof nodemailer.createTransport> }> {
    const sender = await this.entity(id);
    return { sender, transporter: nodemailer.createTransport(connectionOptions(this.reach(await this.server(sender.serverId))) as object) };
  }
}
